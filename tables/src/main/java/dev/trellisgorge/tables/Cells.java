package dev.trellisgorge.tables;

import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Kind;
import java.util.List;
import java.util.function.IntFunction;
import java.util.function.IntPredicate;

/**
 * Room for the cells of some rows, column by column. Threads may write to rows of their own.
 *
 * @param figures of each column of numbers, truths as 0 or 1 and days since 1970-01-01; NaN is missing; null of other columns, and where a column is not wanted
 * @param texts   of each column of texts, likewise; a null in it is missing
 * @param <T>     what a text is kept as
 */
public record Cells<T>(double[][] figures, T[][] texts) {

    /** @param wanted whether there is room for a column, by its place @param room for texts, in so many columns or so many rows */
    static <T> Cells<T> of(List<Field> fields, IntPredicate wanted, int rows, IntFunction<T[]> room, IntFunction<T[][]> columns) {
        Cells<T> cells = new Cells<>(new double[fields.size()][], columns.apply(fields.size()));
        for (int i = 0; i < fields.size(); i++) {
            if (!wanted.test(i)) {
                continue;
            } else if (fields.get(i).kind() == Kind.TEXT) {
                cells.texts[i] = room.apply(rows);
            } else {
                cells.figures[i] = new double[rows];
            }
        }
        return cells;
    }

    /** Takes rows of others to its start, in the columns that are wanted. */
    void take(Cells<T> others, int from, int count) {
        for (int i = 0; i < figures.length; i++) {
            if (figures[i] != null) {
                System.arraycopy(others.figures[i], from, figures[i], 0, count);
            } else if (texts[i] != null) {
                System.arraycopy(others.texts[i], from, texts[i], 0, count);
            }
        }
    }

    /** For texts as they are in a {@link dev.trellisgorge.table.Table}. */
    static Cells<String> ofTexts(List<Field> fields, int rows) {
        return of(fields, column -> true, rows, String[]::new, String[][]::new);
    }

    /** For texts as UTF-8. */
    public static Cells<byte[]> ofBytes(List<Field> fields, IntPredicate wanted, int rows) {
        return of(fields, wanted, rows, byte[][]::new, byte[][][]::new);
    }
}
