package dev.trellisgorge.conformance;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.stream.Collectors;

/** Holds a chart that was computed elsewhere to the one that is computed here; figures as far as sums may differ in their last digits. */
public final class SameCharts {
    private static final double CLOSE = 1e-9;

    private SameCharts() {
    }

    /** Fails where another chart has another row, cell, text or note. */
    public static void check(String name, PlainChart here, PlainChart there) {
        checkCells(name, here, there);
        assertThat(there.notes().stream().map(SameCharts::called).sorted().toList()).as(name).isEqualTo(here.notes().stream().map(SameCharts::called).sorted().toList());
    }

    /** Fails where another chart has another row, cell or text. */
    public static void checkCells(String name, PlainChart here, PlainChart there) {
        assertThat(there.data().rowCount()).as(name).isEqualTo(here.data().rowCount());
        for (Column cells : here.data().series()) {
            Column found = there.data().column(cells.name());
            for (int row = 0; row < cells.size(); row++) {
                boolean same = cells.kind() == Kind.NUMBER && cells.isPresent(row) && found.isPresent(row) ? Math.abs(cells.number(row) - found.number(row)) <= CLOSE * Math.max(1, Math.abs(cells.number(row)))
                        : Objects.equals(written(cells, row), written(found, row));
                assertThat(same).as("%s: %s, row %d: %s, not %s", name, cells.name(), row, written(found, row), written(cells, row)).isTrue();
            }
        }
        assertThat(texts(there)).as(name).isEqualTo(texts(here));
    }

    private static String written(Column cells, int row) {
        return cells.isPresent(row) ? cells.written(row) : null;
    }

    private static List<String> texts(PlainChart chart) {
        List<String> texts = new ArrayList<>();
        for (int row = 0; row < chart.data().rowCount(); row++) {
            int at = row;
            chart.series().forEach(series -> texts.add(chart.labelTexts(series, at)));
            texts.add(chart.categoryText(row));
        }
        return texts;
    }

    /** Names of rows may come in another order, and figures in their last digits. */
    private static String called(Note note) {
        return note.sentence().replaceAll("\\d[\\d.]*(E-?\\d+)?", "#") + note.urgent() + (note.rows().size() > 10 ? "many" : note.rows().stream().sorted().collect(Collectors.joining(",")));
    }
}
