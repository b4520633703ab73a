package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Label;
import dev.trellisgorge.chart.Ring;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.sheet.SheetChart;
import dev.trellisgorge.sheet.SheetChart.Fill;
import dev.trellisgorge.sheet.SheetChart.Layer;
import dev.trellisgorge.sheet.SheetChart.Range;
import dev.trellisgorge.sheet.TextLine;
import dev.trellisgorge.sheet.TextLook;
import dev.trellisgorge.table.Column;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** A ring as a native chart, with its centre text in a box that follows the label cell. */
final class NativeRing {
    private static final int CENTRE_TEXT = 2800;
    private static final SheetChart.Frame PLACE = new SheetChart.Frame(0.1, 0.2, 0.8, 0.76);

    private final PlainChart plain;
    private final Ring ring;
    private final HelperSheet helpers;
    private final ChartFrame frame;

    NativeRing(PlainChart plain, Ring ring, HelperSheet helpers) {
        this.plain = plain;
        this.ring = ring;
        this.helpers = helpers;
        this.frame = new ChartFrame(plain, false);
    }

    void drawOn(Canvas canvas, Area area) {
        List<SheetChart.Ring> rings = new ArrayList<>();
        for (int track = ring.tracks().size() - 1; track >= 0; track--) { // the innermost first
            rings.add(described(rings.size(), track));
        }
        Layer layer = new Layer.Rings((int) Math.round(ring.start()), (int) Math.round(ring.hole() * 100), rings);
        canvas.chart(area, plain.name(), plain.alternative(), new SheetChart(frame.title(""), Optional.of(PLACE), List.of(), List.of(layer), Optional.empty(), frame.text(), Optional.of(Role.PAPER.color())));
        ring.centre().ifPresent(centre -> centre.label().ifPresent(label -> centre(canvas, area, centre, label)));
    }

    private SheetChart.Ring described(int number, int track) {
        List<Series> slices = ring.tracks().get(track);
        return new SheetChart.Ring(number, new Range<>(helpers.sliceNames(track), slices.stream().map(Series::name).toList()), new Range<>(helpers.sliceSizes(track), slices.stream().map(this::size).toList()),
                slices.stream().map(slice -> Fill.of(slice.fill())).toList());
    }

    private Double size(Series slice) {
        Column cells = plain.data().column(slice.column());
        return plain.data().rowCount() > 0 && cells.isPresent(0) ? cells.number(0) : 0;
    }

    /** In the middle of the ring; of half a ring, just above its flat side. */
    private void centre(Canvas canvas, Area area, Series centre, Label label) {
        boolean half = ring.tracks().get(0).stream().anyMatch(slice -> !slice.isSeen());
        Area box = area.within(0.35, half ? 0.49 : 0.53, 0.3, 0.1);
        String words = plain.data().rowCount() == 0 ? "" : plain.labelText(centre.column(), label, 0);
        canvas.box(box, "the figure in the middle of " + plain.name(), Optional.of(helpers.labelCell(centre, 0)), false,
                List.of(TextLine.of(words, new TextLook(CENTRE_TEXT, Role.INK.color()).bold(true), Optional.of(TextLine.At.CENTRE))));
    }
}
