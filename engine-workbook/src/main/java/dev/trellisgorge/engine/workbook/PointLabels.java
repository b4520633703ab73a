package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Color;
import dev.trellisgorge.chart.Label;
import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.sheet.SheetChart;
import dev.trellisgorge.sheet.TextLook;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.IntStream;

/**
 * The labels of a series. Where a bar is as long as the figure that it is labelled with, whatever the cells become, they are
 * its lengths; else they are taken from the label cells, by the extension that most spreadsheet programs know, and for
 * viewers that don't each point has its text too.
 */
final class PointLabels {
    private final PlainChart chart;
    private final Series series;
    private final Label label;
    private final HelperSheet helpers;
    private final int textSize;
    private final SheetChart.LabelAt position;
    private final boolean onPaper;
    private final Set<Integer> tooShort;
    private final LabelOfLength.Says says;

    /**
     * @param textSize in 1/100 point
     * @param onPaper  whether each has a ground of its own, as a line may run behind it
     * @param tooShort the rows whose bar is too short to hold the label: it starts where the bar does, in ink
     */
    PointLabels(PlainChart chart, Series series, HelperSheet helpers, int textSize, SheetChart.LabelAt position, boolean onPaper, Set<Integer> tooShort) {
        this.chart = chart;
        this.series = series;
        this.label = series.label().orElseThrow();
        this.helpers = helpers;
        this.textSize = textSize;
        this.position = position;
        this.onPaper = onPaper;
        this.tooShort = Set.copyOf(tooShort);
        this.says = new LabelOfLength(chart.plan(), series, label).says();
    }

    SheetChart.Labels labels() {
        boolean lengths = says.ofLength();
        TextLook inBase = text(Role.INK.color());
        TextLook look = text((onFill() ? Role.PAPER : Role.INK).color());
        List<SheetChart.OwnLabel> own = new ArrayList<>();
        for (int row = 0; row < helpers.lines(); row++) {
            boolean isShort = tooShort.contains(row);
            if (!lengths || isShort) {
                own.add(new SheetChart.OwnLabel(row, lengths ? "" : id(row), lengths ? Optional.empty() : Optional.of(row < chart.data().rowCount() ? chart.labelText(series, row) : ""),
                        isShort ? SheetChart.LabelAt.INSIDE_BASE : position, isShort ? inBase : look, isShort, isShort ? Optional.of(Role.PAPER.color()) : Optional.empty()));
            }
        }
        return new SheetChart.Labels(lengths ? Optional.empty() : Optional.of(new SheetChart.Range<>(helpers.labelsOf(series), words())), own,
                says == LabelOfLength.Says.ITS_OPPOSITE ? NumberFormats.opposite(label.format()) : NumberFormats.of(label.format()), position, look, onPaper ? Optional.of(Role.PAPER.color()) : Optional.empty());
    }

    /** The labels of the rows, null where there is none. */
    private List<String> words() {
        return Arrays.asList(IntStream.range(0, helpers.lines()).mapToObj(row -> row < chart.data().rowCount() && !chart.labelText(series, row).isEmpty() ? chart.labelText(series, row) : null).toArray(String[]::new));
    }

    /** Whether it stands on a fill that paper is read on better than ink. */
    private boolean onFill() {
        return !onPaper && label.at() != Label.At.END && series.fill().filter(f -> f.contrast(Role.PAPER.color()) >= f.contrast(Role.INK.color())).isPresent();
    }

    private TextLook text(Color color) {
        return new TextLook(textSize, chart.looks().bold().getOrDefault(Looks.Purpose.LABELS, false) ? Optional.of(true) : Optional.empty(), color, Optional.empty());
    }

    private String id(int row) {
        return "{" + UUID.nameUUIDFromBytes((chart.name() + "/" + series.column() + "/" + row).getBytes(StandardCharsets.UTF_8)).toString().toUpperCase(Locale.ROOT)
                + "}";
    }
}
