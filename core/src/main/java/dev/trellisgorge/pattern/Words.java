package dev.trellisgorge.pattern;

import dev.trellisgorge.chart.TextCells;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.plan.PlanBuilder;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.shape.Pipeline;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Collectors;

/**
 * A line of text that says what the rows are: words as they stand, and formulas whose outcome is said in their place. A formula is over all rows of the
 * chart, as an aggregate is ({@code SUM(mwh) OVER ()}); a column that it names by itself has the same cell on every row, or is one that a slice keeps one
 * cell of. What has no value is said as a dash. Immutable and thread-safe.
 *
 * @param pieces in reading order
 */
public record Words(List<Piece> pieces) {
    /** No words at all. */
    public static final Words NONE = new Words(List.of());

    public Words {
        pieces = List.copyOf(pieces);
    }

    /** A part of the line. */
    public sealed interface Piece {
    }

    /** Words as they stand. */
    public record Said(String text) implements Piece {
        public Said {
            Objects.requireNonNull(text, "text");
        }
    }

    /**
     * What a formula comes to.
     *
     * @param of      of any kind
     * @param pattern a CLDR pattern for numbers or dates; the plainest where it is empty
     */
    public record Made(Formula of, Optional<String> pattern) implements Piece {
        public Made {
            Objects.requireNonNull(of, "of");
            Objects.requireNonNull(pattern, "pattern");
        }
    }

    /** Words that are the same whatever the rows are. */
    public static Words of(String text) {
        return text.isEmpty() ? NONE : new Words(List.of(new Said(text)));
    }

    /** These words, then what a formula comes to, as plainly as it can be written. */
    public Words and(Formula of) {
        return with(new Made(of, Optional.empty()));
    }

    /** The same by a CLDR pattern. */
    public Words and(Formula of, String pattern) {
        return with(new Made(of, Optional.of(pattern)));
    }

    /** These words, then some as they stand. */
    public Words and(String text) {
        return with(new Said(text));
    }

    private Words with(Piece piece) {
        List<Piece> more = new ArrayList<>(pieces);
        more.add(piece);
        return new Words(more);
    }

    /**
     * Two lines that say something of a table, as the title and the subtitle of a chart without series.
     *
     * @param name   what messages call them
     * @param locale in whose language figures and dates are written
     * @throws BadInput where a formula can't be computed, or a column that is named by itself has several cells
     */
    public static PlainChart lines(String name, Words first, Words second, Pipeline table, Executor executor, Locale locale) {
        PlanBuilder plan = new PlanBuilder(name, table, table, table, executor.known(), Optional.empty()).titles(first.said(), second.said()).locale(locale).drawing(new TextCells(List.of())).firstRowAlone();
        Wording wording = new Wording(plan, locale);
        return plan.titlesFrom(wording.column(first, "title"), wording.column(second, "text")).build().over(executor);
    }

    /** Whether they are the same whatever the rows are. */
    public boolean arePlain() {
        return pieces.stream().allMatch(Said.class::isInstance);
    }

    /** What stands there whatever the rows are; formulas are left out. */
    public String said() {
        return pieces.stream().map(piece -> piece instanceof Said said ? said.text() : "").collect(Collectors.joining());
    }
}
