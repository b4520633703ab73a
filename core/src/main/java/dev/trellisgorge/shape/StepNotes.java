package dev.trellisgorge.shape;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Leaf;
import dev.trellisgorge.formula.ValueFormatter;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Numbers;
import dev.trellisgorge.table.Schema;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Collectors;

/** What steps tell of the rows, in words: the same wherever the rows are counted. Thread-safe. */
public final class StepNotes {
    /** How many names of rows are reported, and how many columns of figures. */
    public static final int LISTED = 10;
    private static final int AMOUNTS = 3;

    private StepNotes() {
    }

    /**
     * What a column of figures amounts to.
     *
     * @param left of the rows that are left out
     * @param all  of all rows
     */
    public record Amount(String column, double left, double all) {
        public Amount {
            Objects.requireNonNull(column, "column");
        }

        @Override
        public String toString() {
            return column + " " + Numbers.brief(left) + " of " + Numbers.brief(all);
        }
    }

    /** A column that holds a figure from this size on, which keeps no decimals, has no amount: its sum would depend on the order of the rows. */
    public static final double AMOUNTS_BELOW = 1e15;

    /** The columns whose amounts are reported. */
    public static List<String> amountsOf(Schema schema) {
        return schema.fields().stream().filter(field -> field.kind() == Kind.NUMBER).limit(AMOUNTS).map(Field::name).toList();
    }

    /** The column that rows are called by: the first one of texts, or of dates where there is none; empty where there is neither. */
    public static Optional<String> namedBy(Schema schema) {
        return schema.fields().stream().filter(field -> field.kind() == Kind.TEXT).findFirst()
                .or(() -> schema.fields().stream().filter(field -> field.kind() == Kind.DATE).findFirst()).map(Field::name);
    }

    /** The first names, and how many more there are. @param all how many there are */
    public static List<String> listed(List<String> names, long all) {
        if (all <= LISTED) {
            return names;
        }
        List<String> first = new ArrayList<>(names.subList(0, LISTED));
        first.add("and " + (all - LISTED) + " more");
        return first;
    }

    /** The first of all names. */
    static List<String> listed(Collection<String> all) {
        List<String> names = all.stream().distinct().toList();
        return listed(names, names.size());
    }

    /** A condition that left out rows. @param unknown how many of them miss a cell that it reads */
    public static Note leftOut(Keep keep, long left, long all, long unknown, List<Amount> amounts, List<String> names) {
        return leftOut("keep: " + keep.condition(), left, all, unknown == 0 ? "" : ", of which " + unknown + (unknown == 1 ? " misses a cell" : " miss a cell") + " that it reads", amounts, names);
    }

    /** Rows after the first ones. */
    public static Note leftOut(Top top, long left, long all, List<Amount> amounts, List<String> names) {
        return leftOut("top: " + top.rows(), left, all, "", amounts, names);
    }

    /** Rows that are not in a slice. @param cut as it is shown */
    public static Note leftOut(Slice slice, String cut, long left, long all, List<Amount> amounts, List<String> names) {
        return leftOut("slice: " + slice.column() + " " + cut, left, all, "", amounts, names);
    }

    private static Note leftOut(String step, long left, long all, String more, List<Amount> amounts, List<String> names) {
        return new Note(step + " left out " + left + " of " + all + " rows" + more + (amounts.isEmpty() ? "" : " (" + amounts.stream().map(Amount::toString).collect(Collectors.joining(", ")) + ")"), names);
    }

    /**
     * Cells that a sum or a mean passes over, as a ratio of two sums may then compare different rows.
     *
     * @param figure what passes over them: {@code the sum of 'made'}
     */
    public static Note passedOver(String figure, long missing, List<String> names) {
        return Note.urgent(figure + " passes over " + missing + (missing == 1 ? " missing cell" : " missing cells"), names);
    }

    /** What a total makes of a column. */
    public static String figure(Total.Figure figure) {
        return "the " + figure.fold() + " of '" + figure.column() + "'";
    }

    /** What the row for all others makes of a column. */
    public static String figure(String row, String column, Rest.Way way) {
        return "the " + way.name().toLowerCase(Locale.ROOT) + " of '" + column + "' in the row '" + row + "'";
    }

    /** Rows that the other table of a join has no key of. */
    public static Note unmatched(Join join, List<String> keys) {
        return new Note("no row of '" + join.other().name() + "' for the " + String.join(", ", join.on().keySet()) + (join.way() == Join.Way.INNER ? ", so the rows are left out" : ""), keys);
    }

    /** Keys of the other table of a join that no row has. */
    public static Note unused(Join join, List<String> keys) {
        return new Note("in '" + join.other().name() + "' and on no row here", keys);
    }

    /** Periods that had no row. */
    public static Note filled(PeriodOf period, List<String> added) {
        return new Note("no row in a " + period.unit().name().toLowerCase(Locale.ROOT) + ", so one was added", added);
    }

    /** Names that a pivot makes no column of. */
    public static Note others(Pivot pivot, List<String> names) {
        return new Note("pivot: left out the names in '" + pivot.names() + "' that get no column", names);
    }

    /** Rows that a rank cut off. @param share of all, of what they are ranked by; NaN where that is no size */
    public static Note cutOff(Rank rank, long rows, double share, List<String> names) {
        String count = rows + (rows == 1 ? " row" : " rows");
        return new Note(rank.rest().map(row -> count + " totalled in '" + row.name() + "'").orElse(count + " left out")
                + (Double.isNaN(share) ? "" : ", " + ValueFormatter.by(Kind.NUMBER, "0.#%", Locale.ROOT).apply(share) + " of all " + rank.by().title()), names);
    }

    /** Whether rows are ranked by something that adds up. */
    public static boolean isSize(Formula by, Kind kind) {
        return kind == Kind.NUMBER && !(by instanceof Leaf.RowNumber);
    }
}
