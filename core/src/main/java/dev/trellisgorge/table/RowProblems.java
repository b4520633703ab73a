package dev.trellisgorge.table;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.Problem;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.problem.Problems;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.function.IntFunction;
import java.util.function.IntPredicate;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/**
 * Reports what is wrong with single rows: the first few by their place, the others by their number.
 * Not thread-safe: it adds to the problems that it was given.
 *
 * @param table    whose rows
 * @param problems where it goes
 */
public record RowProblems(Table table, Problems problems) {
    private static final int LISTED = 5;

    public RowProblems {
        Objects.requireNonNull(table, "table");
        Objects.requireNonNull(problems, "problems");
    }

    /** @param column the column that the cells stand in, where it is one column's */
    public void report(IntPredicate wrong, Optional<String> column, IntFunction<String> message) {
        int[] rows = IntStream.range(0, table.rowCount()).filter(wrong).toArray();
        for (int i = 0; i < Math.min(rows.length, LISTED); i++) {
            problems.add(within(table.rowPlace(rows[i]), column), ProblemKind.DATA, message.apply(rows[i]) + known(rows[i]));
        }
        if (rows.length > LISTED) {
            problems.add(within(table.place(), column), ProblemKind.DATA, "the same on " + (rows.length - LISTED) + " more rows");
        }
    }

    /** What is known of that row by itself, which may be why. */
    private String known(int row) {
        return table.notes().stream().filter(note -> note.rows().contains(table.rowPlace(row).toString())).map(note -> "; " + note.sentence())
                .collect(Collectors.joining());
    }

    private static Place within(Place place, Optional<String> column) {
        return column.map(name -> place.within("column '" + name + "'")).orElse(place);
    }

    /**
     * The cells of a column of texts that are no numbers, each of which keeps it from being one of numbers; they may be on rows
     * that were left out since. Numbers that are written otherwise are none of them, where the reader of the table has told which are.
     */
    public void reportNoNumbers(Column texts) {
        List<Problem> told = told(table, texts);
        if (!told.isEmpty()) {
            told.forEach(problems::add);
            return;
        }
        Table all = odd(table, texts).findAny().isPresent() ? table : table.whole();
        Column cells = all.find(texts.name()).orElse(texts);
        if (cells.kind() == Kind.TEXT && odd(all, cells).findAny().isPresent()) {
            new RowProblems(all, problems).report(row -> cells.isPresent(row) && !isNumber(cells, row), Optional.of(cells.name()),
                    row -> "'" + cells.written(row) + "' is text, and a figure must be a number");
        } else {
            problems.add(within(table.place(), Optional.of(texts.name())), ProblemKind.WRONG_TYPE, "holds texts, and a figure must be a number");
        }
    }

    private static List<Problem> told(Table table, Column texts) {
        return table.notes().stream().flatMap(note -> note.noFigures().stream()).filter(note -> note.column().equals(texts.name())).findFirst()
                .map(Note.NoFigures::cells).orElse(List.of());
    }

    private static IntStream odd(Table table, Column texts) {
        return IntStream.range(0, table.rowCount()).filter(row -> texts.isPresent(row) && !isNumber(texts, row));
    }

    /**
     * Where a column is used as numbers and holds texts, of which some are numbers.
     *
     * @throws BadInput with the place of each of the others; not where none is a number, or the cells aren't at hand
     */
    public static void refuseFewTexts(Schema schema, String column) {
        schema.read().ifPresent(table -> table.find(column).ifPresent(texts -> refuseFewTexts(table, texts)));
    }

    /** Reports the cells of a column of texts that are no numbers, where they are at hand; else the column. */
    public static void reportNoNumbers(Schema schema, String column, Problems problems) {
        Optional<Table> read = schema.read().filter(table -> table.find(column).filter(cells -> cells.kind() == Kind.TEXT).isPresent());
        if (read.isPresent()) {
            new RowProblems(read.get(), problems).reportNoNumbers(read.get().column(column));
        } else {
            problems.add(schema.place().within("column '" + column + "'"), ProblemKind.WRONG_TYPE, "holds texts, and a figure must be a number");
        }
    }

    /** The same of a table's column. */
    private static void refuseFewTexts(Table table, Column texts) {
        if (texts.kind() == Kind.TEXT && (!told(table, texts).isEmpty() || IntStream.range(0, texts.size()).anyMatch(row -> isNumber(texts, row)))) {
            Problems problems = new Problems();
            new RowProblems(table, problems).reportNoNumbers(texts);
            problems.throwIfAny();
        }
    }

    private static boolean isNumber(Column texts, int row) {
        return texts.isPresent(row) && Numbers.parse(texts.written(row)).isPresent();
    }
}
