package dev.trellisgorge.audit;

import dev.trellisgorge.formula.Identity;
import java.util.List;

/**
 * An identity held against the cells of a chart.
 *
 * @param identity what must hold
 * @param rows     how many rows it must hold on
 * @param failures the rows where it does not hold, in table order
 */
public record Proof(Identity identity, int rows, List<Failure> failures) {

    /**
     * One row where the identity does not hold.
     *
     * @param category the row's name
     * @param left     what the helper cells come to; NaN where they come to nothing
     * @param right    what they must come to; NaN where it is nothing
     */
    public record Failure(String category, double left, double right) {
    }

    public int rowsHeld() {
        return rows - failures.size();
    }

    public boolean holds() {
        return failures.isEmpty();
    }
}
