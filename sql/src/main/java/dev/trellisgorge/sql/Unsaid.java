package dev.trellisgorge.sql;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;

/** A step or a column that a dialect can't say. */
public final class Unsaid extends BadInput {
    private static final long serialVersionUID = 1;

    Unsaid(Place place, String message) {
        super(place, ProblemKind.UNSUPPORTED, message);
    }
}
