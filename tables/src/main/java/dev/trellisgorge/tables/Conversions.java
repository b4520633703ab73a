package dev.trellisgorge.tables;

import dev.trellisgorge.problem.Note;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.IntFunction;
import java.util.function.Supplier;

/** The cells of one column that were read as something else than stands there: how many, and the first few. */
final class Conversions {
    private static final int LISTED = 5;

    private final List<Conversion> first = new ArrayList<>();
    private int count;

    /**
     * One of them.
     *
     * @param row  0 for the first
     * @param cell what stands there
     * @param as   what it was read as
     */
    private record Conversion(int row, String cell, String as) {
    }

    /** @param as asked for the first few only */
    void add(int row, String cell, Supplier<String> as) {
        if (count++ < LISTED) {
            first.add(new Conversion(row, cell.strip(), as.get()));
        }
    }

    boolean any() {
        return count > 0;
    }

    /**
     * Empty where nothing was converted.
     *
     * @param one what a cell of the column is: {@code number}
     */
    Optional<Note> note(String column, String one, IntFunction<String> places) {
        if (count == 0) {
            return Optional.empty();
        }
        List<String> listed = new ArrayList<>();
        first.forEach(each -> listed.add("'" + each.cell() + "' is read as " + each.as() + " (" + places.apply(each.row()) + ")"));
        if (count > LISTED) {
            listed.add("and " + (count - LISTED) + " more");
        }
        return Optional.of(new Note(count == 1 ? "1 cell of '" + column + "' is not plainly written as a " + one
                : count + " cells of '" + column + "' are not plainly written as " + one + "s", listed));
    }
}
