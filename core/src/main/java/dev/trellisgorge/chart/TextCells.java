package dev.trellisgorge.chart;

import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;

/**
 * Texts beside each category: bars made of characters. Immutable and thread-safe.
 *
 * @param columns from the left
 * @param figures the column whose figures the bars are as long as, where they may as well be drawn; empty where they were asked to be of characters
 */
public record TextCells(List<TextColumn> columns, Optional<String> figures) implements Drawing {

    /**
     * One column of texts.
     *
     * @param series   the series that share it; on each row one of them is present at most
     * @param flushEnd whether the texts end at one line, not start at it
     * @param rest     the last characters of each text, which have a colour of their own; empty where the whole text has one
     */
    public record TextColumn(List<Series> series, boolean flushEnd, Optional<Series> rest) {
        public TextColumn {
            series = List.copyOf(series);
            Objects.requireNonNull(rest, "rest");
        }

        /** A column whose texts have one colour each. */
        public TextColumn(List<Series> series, boolean flushEnd) {
            this(series, flushEnd, Optional.empty());
        }
    }

    public TextCells {
        columns = List.copyOf(columns);
        Objects.requireNonNull(figures, "figures");
    }

    /** Bars that are of characters. */
    public TextCells(List<TextColumn> columns) {
        this(columns, Optional.empty());
    }

    /** The same, of characters whether it was asked for or not. */
    public TextCells ofCharacters() {
        return new TextCells(columns);
    }

    @Override
    public TextCells each(UnaryOperator<Series> change) {
        return new TextCells(columns.stream().map(column -> new TextColumn(column.series().stream().map(change).toList(), column.flushEnd(), column.rest().map(change))).toList(), figures);
    }

    @Override
    public TextCells without(Predicate<Series> gone) {
        return new TextCells(columns.stream().map(column -> new TextColumn(column.series().stream().filter(gone.negate()).toList(), column.flushEnd(), column.rest().filter(gone.negate())))
                .filter(column -> !column.series().isEmpty()).toList(), figures);
    }

    @Override
    public <E extends Exception> void match(Case<Panels, E> panels, Case<Ring, E> ring, Case<TextCells, E> texts) throws E {
        texts.of(this);
    }

    @Override
    public <R> R matched(Function<Panels, R> panels, Function<Ring, R> ring, Function<TextCells, R> texts) {
        return texts.apply(this);
    }

    @Override
    public List<Series> series() {
        return columns.stream().flatMap(column -> Stream.concat(column.series().stream(), column.rest().stream())).toList();
    }
}
