package dev.trellisgorge.chart;

import java.util.List;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;

/**
 * Texts beside each category: bars made of characters. Immutable and thread-safe.
 *
 * @param columns from the left
 */
public record TextCells(List<TextColumn> columns) implements Drawing {

    /**
     * One column of texts.
     *
     * @param series   the series that share it; on each row one of them is present at most
     * @param flushEnd whether the texts end at one line, not start at it
     */
    public record TextColumn(List<Series> series, boolean flushEnd) {
        public TextColumn {
            series = List.copyOf(series);
        }
    }

    public TextCells {
        columns = List.copyOf(columns);
    }

    @Override
    public TextCells each(UnaryOperator<Series> change) {
        return new TextCells(columns.stream().map(column -> new TextColumn(column.series().stream().map(change).toList(), column.flushEnd())).toList());
    }

    @Override
    public TextCells without(Predicate<Series> gone) {
        return new TextCells(columns.stream().map(column -> new TextColumn(column.series().stream().filter(gone.negate()).toList(), column.flushEnd()))
                .filter(column -> !column.series().isEmpty()).toList());
    }

    @Override
    public List<Series> series() {
        return columns.stream().flatMap(column -> column.series().stream()).toList();
    }
}
