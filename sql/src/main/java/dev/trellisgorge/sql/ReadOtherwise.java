package dev.trellisgorge.sql;

import dev.trellisgorge.problem.Place;

/** A file has rows that are not plain, or a step that the engine can't say; what was planned by its first lines is to be planned anew, over what is read here as a whole. */
public final class ReadOtherwise extends RuntimeException {
    private static final long serialVersionUID = 1;

    public ReadOtherwise(Place file) {
        super(file + ": has cells that are read otherwise than they are written");
    }
}
