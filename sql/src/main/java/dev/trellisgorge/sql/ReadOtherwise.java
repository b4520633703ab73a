package dev.trellisgorge.sql;

import dev.trellisgorge.problem.Place;

/** A file has cells that the engine reads otherwise than the reader here; what was planned by its first lines is to be planned anew, over what is read here. */
public final class ReadOtherwise extends RuntimeException {
    private static final long serialVersionUID = 1;

    public ReadOtherwise(Place file) {
        super(file + ": has cells that are read otherwise than they are written");
    }
}
