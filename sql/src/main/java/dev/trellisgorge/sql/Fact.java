package dev.trellisgorge.sql;

import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.shape.Pivot;
import dev.trellisgorge.shape.Rank;
import dev.trellisgorge.shape.Total;

/**
 * Something that a statement counts on its way, as it is reported or a mistake.
 *
 * @param expression its figure, as an expression of its own
 * @param before     the steps before the one that it is about
 * @param of         what it is
 */
record Fact(String expression, Pipeline before, Of of) {

    /** What is counted. */
    sealed interface Of {
    }

    /** The cells that a total passes over. */
    record PassedOver(Total.Figure figure) implements Of {
    }

    /** The cells that the row for all others passes over. */
    record PassedOverInRest(Rank rank, String column) implements Of {
    }

    /** The most rows that one cell of a pivot is made of. */
    record RowsOfCell(Pivot pivot) implements Of {
    }

    /** The rows that a total of all is made of. */
    record RowsOfAll() implements Of {
    }
}
