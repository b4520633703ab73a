package dev.trellisgorge.chart;

import java.util.List;

/**
 * Texts beside each category: bars made of characters.
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
    public List<Series> series() {
        return columns.stream().flatMap(column -> column.series().stream()).toList();
    }
}
