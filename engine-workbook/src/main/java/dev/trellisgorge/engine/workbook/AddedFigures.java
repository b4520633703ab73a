package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.plan.ComputedColumns;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;

/** The figures of rows that are on no raw sheet: sums of raw rows, or what the row was given. */
final class AddedFigures {
    /** Sums of more rows than this stay figures: a cell's formula has an end. */
    private static final int MOST_SUMMED = 500;
    private static final int MOST_ARGUMENTS = 200;

    private final ComputedColumns data;
    private final SourceRows rows;

    AddedFigures(ComputedColumns data, SourceRows rows) {
        this.data = data;
        this.rows = rows;
    }

    /** The sum that a row's cell is of raw cells; empty where it is none, or one of too many. */
    Optional<String> sum(String input, int row) {
        Column cells = data.rows().column(input);
        int[] summed = data.rows().summedRows(row, input);
        return cells.kind() == Kind.NUMBER && summed.length > 0 && summed.length <= MOST_SUMMED ? Optional.of("SUM(" + areas(input, summed) + ")") : Optional.empty();
    }

    /** Raw cells below each other as one area each, in bundles that a function takes. */
    private String areas(String input, int[] rows) {
        int[] sorted = IntStream.of(rows).sorted().toArray();
        List<String> areas = new ArrayList<>();
        for (int i = 0; i < sorted.length; i++) {
            int first = i;
            while (i + 1 < sorted.length && sorted[i + 1] == sorted[i] + 1) {
                i++;
            }
            areas.add(this.rows.area(input, sorted[first], sorted[i]));
        }
        if (areas.size() <= MOST_ARGUMENTS) {
            return String.join(",", areas);
        }
        List<String> bundles = new ArrayList<>();
        for (int i = 0; i < areas.size(); i += MOST_ARGUMENTS) {
            bundles.add("SUM(" + String.join(",", areas.subList(i, Math.min(areas.size(), i + MOST_ARGUMENTS))) + ")");
        }
        return String.join(",", bundles);
    }
}
