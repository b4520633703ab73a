package dev.trellisgorge.pattern;

import static dev.trellisgorge.formula.Formulas.not;
import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.formula.Formulas.present;
import static dev.trellisgorge.formula.Formulas.rowCount;
import static dev.trellisgorge.formula.Formulas.rowNumber;
import static dev.trellisgorge.formula.Formulas.truth;

import dev.trellisgorge.chart.Role;
import dev.trellisgorge.formula.Choice;
import dev.trellisgorge.formula.Condition;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.Window;
import dev.trellisgorge.formula.Window.Direction;
import dev.trellisgorge.plan.RowWarning;
import java.util.List;
import java.util.Map;
import java.util.Objects;

/**
 * A few rows that stand out: classes {@code rest} and {@code highlighted}. A missing value is never highlighted. Immutable and thread-safe.
 *
 * @param choice which rows
 */
public record Highlight(Choice choice) implements Classifier {
    public Highlight {
        Objects.requireNonNull(choice, "choice");
    }

    /** A way to choose rows. */
    public sealed interface Choice permits Extreme, Edge, Named, Where {
    }

    /** Which end of the values. */
    public enum End {
        LARGEST, SMALLEST
    }

    /** What happens where values equal to the last one chosen are left. */
    public enum Tied {
        /** They are all taken: every value that is at least (at most) the last one. */
        ALL,
        /** Just as many as asked for are taken, the earliest first. */
        FIRST
    }

    /** The largest or smallest values; all of them where there are fewer than {@code count}. */
    public record Extreme(End end, int count, Tied tied) implements Choice {
        public Extreme {
            Objects.requireNonNull(end, "end");
            Objects.requireNonNull(tied, "tied");
        }
    }

    /** The first or the last rows of the table. */
    public record Edge(boolean first, int count) implements Choice {
    }

    /** The rows with these category names. */
    public record Named(List<String> names) implements Choice {
        public Named {
            names = List.copyOf(names);
        }
    }

    /** The rows on which a condition is true; where it is unknown, the value is unjudged. */
    public record Where(Formula condition) implements Choice {
        public Where {
            Objects.requireNonNull(condition, "condition");
        }
    }

    public static Highlight largest(int count) {
        return new Highlight(new Extreme(End.LARGEST, positive(count), Tied.ALL));
    }

    public static Highlight smallest(int count) {
        return new Highlight(new Extreme(End.SMALLEST, positive(count), Tied.ALL));
    }

    public static Highlight first(int count) {
        return new Highlight(new Edge(true, positive(count)));
    }

    public static Highlight last(int count) {
        return new Highlight(new Edge(false, positive(count)));
    }

    public static Highlight names(String... names) {
        return new Highlight(new Named(List.of(names)));
    }

    public static Highlight where(Formula condition) {
        return new Highlight(new Where(condition));
    }

    /** What happens to ties; only the largest and smallest have any. */
    public Highlight tied(Tied tied) {
        return choice instanceof Extreme e ? new Highlight(new Extreme(e.end(), e.count(), tied)) : this;
    }

    private static int positive(int count) {
        if (count < 1) {
            throw new IllegalArgumentException("at least 1 row is highlighted, not " + count);
        }
        return count;
    }

    @Override
    public List<RowClass> classes(Formula value, Formula category) {
        Formula chosen = chosen(value, category);
        return List.of(new RowClass("rest", present(value).and(not(chosen)), Role.MUTED),
                new RowClass("highlighted", present(value).and(chosen), Role.ACCENT));
    }

    private Formula chosen(Formula value, Formula category) {
        if (choice instanceof Extreme e) {
            Direction direction = e.end() == End.LARGEST ? Direction.DESCENDING : Direction.ASCENDING;
            return new Window.Rank(value, direction, e.tied() == Tied.ALL ? Window.Ties.SHARED : Window.Ties.BY_ROW).atMost(number(e.count()));
        }
        if (choice instanceof Edge edge) {
            return edge.first() ? rowNumber().atMost(number(edge.count()))
                    : rowNumber().above(rowCount().minus(number(edge.count())));
        }
        if (choice instanceof Named named) {
            return named.names().isEmpty() ? truth(false) : new Condition.In(category, named.names().stream().map(Formulas::text).toList());
        }
        return ((Where) choice).condition();
    }

    @Override
    public Formula judged(Formula value, Formula category) {
        return choice instanceof Where where ? present(where.condition()) : truth(true);
    }

    @Override
    public Map<String, Formula> figures() {
        return Map.of();
    }

    @Override
    public List<String> categories() {
        return choice instanceof Named named ? named.names() : List.of();
    }

    @Override
    public List<RowWarning> watches(Formula value, Formula category) {
        if (choice instanceof Where) {
            return unjudgedWatch(value, category, "what chooses the rows is missing");
        }
        if (!(choice instanceof Extreme e)) {
            return List.of();
        }
        Direction direction = e.end() == End.LARGEST ? Direction.DESCENDING : Direction.ASCENDING;
        Formula shared = new Window.Rank(value, direction, Window.Ties.SHARED);
        Formula own = new Window.Rank(value, direction, Window.Ties.BY_ROW);
        Formula tiedBeyond = shared.atMost(number(e.count())).and(own.above(number(e.count())));
        return List.of(new RowWarning("equal to the last one highlighted, " + (e.tied() == Tied.ALL ? "highlighted too" : "not highlighted"),
                tiedBeyond, value));
    }
}
