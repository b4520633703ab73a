package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Label;
import dev.trellisgorge.chart.Ring;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.table.Column;
import java.util.List;
import java.util.Optional;
import org.apache.poi.xddf.usermodel.XDDFNoFillProperties;
import org.apache.poi.xddf.usermodel.XDDFShapeProperties;
import org.apache.poi.xddf.usermodel.XDDFSolidFillProperties;
import org.apache.poi.xddf.usermodel.chart.ChartTypes;
import org.apache.poi.xddf.usermodel.chart.XDDFChartData;
import org.apache.poi.xddf.usermodel.chart.XDDFDataSourcesFactory;
import org.apache.poi.xddf.usermodel.chart.XDDFDoughnutChartData;
import org.apache.poi.xddf.usermodel.chart.XDDFChart;
import org.openxmlformats.schemas.drawingml.x2006.main.CTTextBody;

/** A ring as a native chart, with its centre text in a box that follows the label cell. */
final class NativeRing {
    private static final int CENTRE_TEXT = 2800;

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
        XDDFChart chart = canvas.chart(area, plain.name(), plain.alternative());
        XDDFDoughnutChartData rings = (XDDFDoughnutChartData) chart.createData(ChartTypes.DOUGHNUT, null, null);
        rings.setVaryColors(false);
        rings.setHoleSize((int) Math.round(ring.hole() * 100));
        rings.setFirstSliceAngle((int) Math.round(ring.start()));
        for (int track = ring.tracks().size() - 1; track >= 0; track--) { // the innermost first
            add(rings, track);
        }
        chart.plot(rings);
        frame.title(chart, "");
        frame.finish(chart);
        NativeChart.place(chart, 0.1, 0.2, 0.8, 0.76);
        ring.centre().ifPresent(centre -> centre.label().ifPresent(label -> centre(canvas, area, centre, label)));
    }

    private void add(XDDFDoughnutChartData rings, int track) {
        List<Series> slices = ring.tracks().get(track);
        String[] names = slices.stream().map(Series::name).toArray(String[]::new);
        Double[] sizes = slices.stream().map(this::size).toArray(Double[]::new);
        XDDFChartData.Series series = rings.addSeries(XDDFDataSourcesFactory.fromArray(names, helpers.sliceNames(track), 0),
                XDDFDataSourcesFactory.fromArray(sizes, helpers.sliceSizes(track), 0));
        for (int i = 0; i < slices.size(); i++) {
            XDDFShapeProperties looks = new XDDFShapeProperties();
            looks.setFillProperties(slices.get(i).fill().isPresent() ? new XDDFSolidFillProperties(ChartFrame.color(slices.get(i).fill().get()))
                    : new XDDFNoFillProperties());
            looks.setLineProperties(ChartFrame.noLine());
            series.getDataPoint(i).setShapeProperties(looks);
        }
    }

    private Double size(Series slice) {
        Column cells = plain.data().column(slice.column());
        return plain.data().rowCount() > 0 && cells.isPresent(0) ? cells.number(0) : 0;
    }

    /** In the middle of the ring; of half a ring, just above its flat side. */
    private void centre(Canvas canvas, Area area, Series centre, Label label) {
        boolean half = ring.tracks().get(0).stream().anyMatch(slice -> !slice.isSeen());
        Area box = area.within(0.35, half ? 0.49 : 0.53, 0.3, 0.1);
        CTTextBody body = canvas.box(box, "the figure in the middle of " + plain.name(), Optional.of(helpers.labelCell(centre, 0)));
        String words = plain.data().rowCount() == 0 ? "" : plain.labelText(centre.column(), label, 0);
        Key.run(body.getPArray(0), words, CENTRE_TEXT, Role.INK.color()).setB(true);
    }
}
