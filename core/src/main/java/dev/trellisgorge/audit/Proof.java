package dev.trellisgorge.audit;

import java.util.List;
import java.util.Objects;

/**
 * An equation held against the cells of a chart. Immutable.
 *
 * @param statement what must hold, in words
 * @param rows      how many rows it must hold on
 * @param failures  the rows where it does not hold, in table order
 */
public record Proof(String statement, int rows, List<Failure> failures) {

    /**
     * One row where it does not hold.
     *
     * @param category the row's name
     * @param left     what the helper cells come to; NaN where they come to nothing
     * @param right    what they must come to; NaN where it is nothing
     */
    public record Failure(String category, double left, double right) {
        public Failure {
            Objects.requireNonNull(category, "category");
        }
    }

    public Proof {
        Objects.requireNonNull(statement, "statement");
        failures = List.copyOf(failures);
    }

    public int rowsHeld() {
        return rows - failures.size();
    }

    public boolean holds() {
        return failures.isEmpty();
    }
}
