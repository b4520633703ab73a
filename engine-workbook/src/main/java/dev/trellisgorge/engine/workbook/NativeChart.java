package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.BarGroup.Placing;
import dev.trellisgorge.chart.BarGroup;
import dev.trellisgorge.chart.Label;
import dev.trellisgorge.chart.Line;
import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Panel;
import dev.trellisgorge.chart.Panels;
import dev.trellisgorge.chart.Points;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.plan.PlainChart;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.apache.poi.xddf.usermodel.PresetLineDash;
import org.apache.poi.xddf.usermodel.XDDFLineProperties;
import org.apache.poi.xddf.usermodel.XDDFNoFillProperties;
import org.apache.poi.xddf.usermodel.XDDFPresetLineDash;
import org.apache.poi.xddf.usermodel.XDDFShapeProperties;
import org.apache.poi.xddf.usermodel.XDDFSolidFillProperties;
import org.apache.poi.xddf.usermodel.chart.AxisCrossBetween;
import org.apache.poi.xddf.usermodel.chart.AxisCrosses;
import org.apache.poi.xddf.usermodel.chart.AxisOrientation;
import org.apache.poi.xddf.usermodel.chart.AxisPosition;
import org.apache.poi.xddf.usermodel.chart.AxisTickLabelPosition;
import org.apache.poi.xddf.usermodel.chart.AxisTickMark;
import org.apache.poi.xddf.usermodel.chart.BarDirection;
import org.apache.poi.xddf.usermodel.chart.BarGrouping;
import org.apache.poi.xddf.usermodel.chart.ChartTypes;
import org.apache.poi.xddf.usermodel.chart.Grouping;
import org.apache.poi.xddf.usermodel.chart.LegendPosition;
import org.apache.poi.xddf.usermodel.chart.MarkerStyle;
import org.apache.poi.xddf.usermodel.chart.XDDFBarChartData;
import org.apache.poi.xddf.usermodel.chart.XDDFCategoryAxis;
import org.apache.poi.xddf.usermodel.chart.XDDFCategoryDataSource;
import org.apache.poi.xddf.usermodel.chart.XDDFChartAxis;
import org.apache.poi.xddf.usermodel.chart.XDDFChartData;
import org.apache.poi.xddf.usermodel.chart.XDDFLineChartData;
import org.apache.poi.xddf.usermodel.chart.XDDFValueAxis;
import org.apache.poi.xddf.usermodel.chart.XDDFChart;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTBarSer;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTCatAx;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTLayout;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTLineSer;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTManualLayout;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTValAx;
import org.openxmlformats.schemas.drawingml.x2006.chart.STDLblPos;
import org.openxmlformats.schemas.drawingml.x2006.chart.STLayoutMode;
import org.openxmlformats.schemas.drawingml.x2006.chart.STLayoutTarget;
import org.openxmlformats.schemas.drawingml.x2006.chart.STTickLblPos;

/** A native chart (DrawingML) of one panel, over the ranges of a helper sheet. */
final class NativeChart {
    private static final short DOT_SIZE = 10;
    private static final short DASH_SIZE = 24;

    private final PlainChart plain;
    private final Panel panel;
    private final HelperSheet helpers;
    private final ChartFrame frame;
    private final Plot place;
    private final boolean upright;
    /** In 1/100 point; empty where the categories stand too close for any label. */
    private final OptionalInt labelSize;
    private final List<Series> drawn = new ArrayList<>();
    /** Which of the drawn series is the unseen one at 0; below 0 where none is. */
    private int zeroAt = -1;

    /** @param place how large its plot is, for the size of its texts */
    NativeChart(PlainChart plain, Panel panel, HelperSheet helpers, Plot place) {
        this.plain = plain;
        this.panel = panel;
        this.helpers = helpers;
        this.place = place;
        this.frame = new ChartFrame(plain, place.isSmall());
        this.upright = plain.orientation() == Orientation.VERTICAL;
        OptionalInt fitting = place.labelSize(plain, panel);
        this.labelSize = fitting.isEmpty() ? fitting : OptionalInt.of(frame.size(Looks.Purpose.LABELS, fitting.getAsInt()));
    }

    /**
     * @param titled whether it carries the chart's titles
     * @param named  whether it carries the names of the categories
     * @param keyed  whether the key stands over it, and not in a native legend
     */
    void drawOn(XDDFChart chart, boolean titled, boolean named, boolean keyed) {
        XDDFCategoryDataSource names = Cached.categories(plain, helpers);
        XDDFCategoryAxis categories = categoryAxis(chart);
        XDDFValueAxis values = valueAxis(chart);
        categories.crossAxis(values);
        values.crossAxis(categories);
        for (int i = 0; i < panel.bars().size(); i++) {
            if (i == 0) {
                bars(chart, panel.bars().get(i), names, categories, values);
            } else {
                secondBars(chart, panel.bars().get(i), names);
            }
        }
        panel.lines().forEach(line -> line(chart, line, names, categories, values));
        panel.points().forEach(points -> points(chart, points, names, categories, values));
        if (upright && isFromZero()) {
            zero(chart, names, categories, values);
        }
        if (titled) {
            frame.title(chart, upright ? panel.heading() : "");
            Looks.Legend legend = plain.looks().legend().orElse(Looks.Legend.TOP);
            if (!keyed && legend != Looks.Legend.NONE && drawn.stream().anyMatch(Series::inLegend)) {
                frame.legend(chart, switch (legend) {
                    case BOTTOM -> LegendPosition.BOTTOM;
                    case LEFT -> LegendPosition.LEFT;
                    case RIGHT -> LegendPosition.RIGHT;
                    default -> LegendPosition.TOP;
                });
                if (zeroAt >= 0 && panel.bars().size() == 1) { // with two scales, programs don't agree on the order of the entries
                    var entry = chart.getCTChart().getLegend().addNewLegendEntry();
                    entry.addNewIdx().setVal(zeroAt);
                    entry.addNewDelete().setVal(true);
                }
            }
        } else if (upright && !panel.heading().isEmpty()) {
            frame.heading(chart, panel.heading());
        } else {
            chart.setAutoTitleDeleted(true);
        }
        boolean shown = named && ((Panels) plain.drawing()).categoriesShown();
        STTickLblPos.Enum far = panel.scale().backwards() ? STTickLblPos.HIGH : STTickLblPos.LOW;
        for (CTCatAx axis : chart.getCTChart().getPlotArea().getCatAxArray()) {
            (axis.isSetTickLblPos() ? axis.getTickLblPos() : axis.addNewTickLblPos()).setVal(shown ? far : STTickLblPos.NONE);
            (axis.isSetAuto() ? axis.getAuto() : axis.addNewAuto()).setVal(false); // dates stay where they stand
        }
        frame.finish(chart);
    }

    /** Puts the plot itself at a place within the chart, in shares of its width and height. */
    static void place(XDDFChart chart, double left, double top, double width, double height) {
        CTLayout layout = chart.getCTChart().getPlotArea().isSetLayout() ? chart.getCTChart().getPlotArea().getLayout()
                : chart.getCTChart().getPlotArea().addNewLayout();
        CTManualLayout place = layout.isSetManualLayout() ? layout.getManualLayout() : layout.addNewManualLayout();
        place.addNewLayoutTarget().setVal(STLayoutTarget.INNER);
        place.addNewXMode().setVal(STLayoutMode.EDGE);
        place.addNewYMode().setVal(STLayoutMode.EDGE);
        place.addNewX().setVal(left);
        place.addNewY().setVal(top);
        place.addNewW().setVal(width);
        place.addNewH().setVal(height);
    }

    private XDDFCategoryAxis categoryAxis(XDDFChart chart) {
        XDDFCategoryAxis axis = chart.createCategoryAxis(upright ? AxisPosition.BOTTOM : AxisPosition.LEFT);
        axis.setMajorTickMark(AxisTickMark.NONE);
        axis.getOrAddShapeProperties().setLineProperties(ChartFrame.line(Role.INK.color(), 1));
        if (!upright) {
            axis.setOrientation(AxisOrientation.MAX_MIN);
        }
        if (panel.scale().covered().filter(covered -> covered.from() > 0 || covered.to() < 0).isPresent()) {
            axis.setCrosses(AxisCrosses.MIN);
        }
        if (plain.looks().sizes().containsKey(Looks.Purpose.AXIS) || plain.looks().bold().containsKey(Looks.Purpose.AXIS)) {
            CTCatAx[] all = chart.getCTChart().getPlotArea().getCatAxArray();
            frame.axis(all[all.length - 1].isSetTxPr() ? all[all.length - 1].getTxPr() : all[all.length - 1].addNewTxPr());
        }
        return axis;
    }

    private XDDFValueAxis valueAxis(XDDFChart chart) {
        XDDFValueAxis axis = chart.createValueAxis(upright ? AxisPosition.LEFT : AxisPosition.BOTTOM);
        axis.setCrosses(upright ? AxisCrosses.AUTO_ZERO : AxisCrosses.MAX);
        axis.setCrossBetween(AxisCrossBetween.BETWEEN);
        axis.setMajorTickMark(AxisTickMark.NONE);
        String title = axisTitle(panel, upright);
        axis.setVisible(panel.valueAxisShown() || !title.isEmpty());
        if (!panel.valueAxisShown() && !title.isEmpty()) {
            axis.setTickLabelPosition(AxisTickLabelPosition.NONE);
        }
        if (!title.isEmpty()) {
            axis.setTitle(title);
        }
        if (!panel.axis().format().isFitting()) {
            axis.setNumberFormat(NumberFormats.of(panel.axis().format()));
        }
        panel.scale().covered().ifPresent(covered -> {
            axis.setMinimum(covered.from());
            axis.setMaximum(covered.to());
        });
        if (panel.scale().backwards()) {
            axis.setOrientation(AxisOrientation.MAX_MIN);
        }
        noLine(axis);
        if (plain.looks().sizes().containsKey(Looks.Purpose.AXIS) || plain.looks().bold().containsKey(Looks.Purpose.AXIS)) {
            CTValAx[] all = chart.getCTChart().getPlotArea().getValAxArray();
            frame.axis(all[all.length - 1].isSetTxPr() ? all[all.length - 1].getTxPr() : all[all.length - 1].addNewTxPr());
        }
        return axis;
    }

    /** What the axis is of; the line over a pane whose bars lie stands there too. */
    static String axisTitle(Panel panel, boolean upright) {
        return Stream.of(upright ? "" : panel.heading(), panel.axis().title()).filter(words -> !words.isEmpty()).collect(Collectors.joining(", "));
    }

    private static void noLine(XDDFChartAxis axis) {
        axis.getOrAddShapeProperties().setLineProperties(ChartFrame.noLine());
    }

    /** A group over the first has axes of its own, unseen; what it holds reaches as far, so their scales are one. */
    private void secondBars(XDDFChart chart, BarGroup group, XDDFCategoryDataSource names) {
        XDDFCategoryAxis categories = categoryAxis(chart);
        categories.setVisible(false);
        XDDFValueAxis values = valueAxis(chart);
        values.setVisible(true); // without labels and line: where it were deleted, some programs would put its bars on the first axis
        values.setTickLabelPosition(AxisTickLabelPosition.NONE);
        values.setCrosses(AxisCrosses.MAX);
        categories.crossAxis(values);
        values.crossAxis(categories);
        bars(chart, group, names, categories, values);
    }

    private void bars(XDDFChart chart, BarGroup group, XDDFCategoryDataSource names, XDDFCategoryAxis categories,
            XDDFValueAxis values) {
        XDDFBarChartData bars = (XDDFBarChartData) chart.createData(ChartTypes.BAR, categories, values);
        bars.setBarDirection(upright ? BarDirection.COL : BarDirection.BAR);
        bars.setBarGrouping(group.placing() == Placing.STACKED ? BarGrouping.STACKED : BarGrouping.CLUSTERED);
        bars.setGapWidth((int) Math.round(group.gap() * 100));
        bars.setOverlap((byte) (group.placing() == Placing.BESIDE ? 0 : 100));
        bars.setVaryColors(false);
        for (Series series : group.series()) {
            XDDFBarChartData.Series bar = (XDDFBarChartData.Series) add(bars, names, series);
            XDDFShapeProperties looks = new XDDFShapeProperties();
            looks.setFillProperties(series.fill().isPresent() ? new XDDFSolidFillProperties(ChartFrame.color(series.fill().get())) : new XDDFNoFillProperties());
            looks.setLineProperties(series.outline().map(color -> ChartFrame.line(color, 1.5)).orElseGet(ChartFrame::noLine));
            bar.setShapeProperties(looks);
            bar.setInvertIfNegative(false);
            CTBarSer ct = bar.getCTBarSer();
            if (series.round() && series.fill().isPresent()) {
                Optional<PlainChart.Bar> some = plain.bars(group).stream().filter(piece -> piece.series().equals(series)).findFirst();
                some.ifPresent(piece -> RoundedTop.fill(chart, ct.getSpPr(), series.fill().get(), place.shape(plain, panel, group, piece), upright, piece.end() < piece.start()));
            }
            labels(series, group).ifPresent(labels -> {
                ct.setDLbls(labels.labels());
                labels.range().ifPresent(ct::setExtLst);
            });
        }
        if (isFromZero() && (!upright || group != panel.bars().get(0))) {
            if (group.placing() != Placing.BESIDE) {
                ((XDDFBarChartData.Series) zero(bars, names)).setShapeProperties(unseen());
            } else if (plain.extent(panel).low() >= 0) { // beside others it would take room
                values.setMinimum(0);
            }
        }
        chart.plot(bars);
    }

    private static XDDFShapeProperties unseen() {
        XDDFShapeProperties looks = new XDDFShapeProperties();
        looks.setFillProperties(new XDDFNoFillProperties());
        looks.setLineProperties(ChartFrame.noLine());
        return looks;
    }

    private Optional<PointLabels> labels(Series series, BarGroup group) {
        return series.label().filter(label -> labelSize.isPresent()).map(label -> new PointLabels(plain, series, helpers, labelSize.getAsInt(),
                switch (label.at()) {
                    case END -> group.placing() == Placing.STACKED ? STDLblPos.IN_END : STDLblPos.OUT_END;
                    case INSIDE -> STDLblPos.IN_END;
                    case BASE, CENTRE -> STDLblPos.IN_BASE;
                }, mayBeCrossed(series, group), tooShort(series, group)));
    }

    /** Whether a line may run behind a label, or other bars lie there. */
    private boolean mayBeCrossed(Series series, BarGroup group) {
        boolean pastEnd = series.fill().isEmpty() || series.label().orElseThrow().at() == Label.At.END;
        return pastEnd && (!panel.lines().stream().allMatch(Line::guide) || group != panel.bars().get(0));
    }

    /** The rows on which a bar is too short for the label within it. */
    private Set<Integer> tooShort(Series series, BarGroup group) {
        Label label = series.label().orElseThrow();
        if (label.at() == Label.At.END || series.fill().isEmpty()) {
            return Set.of();
        }
        PlainChart.Extent extent = plain.extent(panel);
        double scale = extent.high() - extent.low();
        return plain.bars(group).stream().filter(bar -> bar.series().equals(series)).filter(bar -> {
            double room = upright ? 0.05 : 0.014 * plain.labelText(series, bar.row()).length();
            return Math.abs(bar.end() - bar.start()) < room * scale;
        }).map(PlainChart.Bar::row).collect(Collectors.toSet());
    }

    private XDDFChartData.Series add(XDDFChartData data, XDDFCategoryDataSource names, Series series) {
        drawn.add(series);
        XDDFChartData.Series added = data.addSeries(names, Cached.figures(plain, series, helpers));
        added.setTitle(helpers.titleText(series), helpers.titleOf(series));
        return added;
    }

    private void line(XDDFChart chart, Line line, XDDFCategoryDataSource names, XDDFCategoryAxis categories, XDDFValueAxis values) {
        XDDFLineProperties looks = line.series().fill().map(color -> ChartFrame.line(color, line.guide() ? 0.75 : 1.5)).orElseGet(ChartFrame::noLine);
        if (line.dashed()) {
            looks.setPresetDash(new XDDFPresetLineDash(PresetLineDash.DASH));
        }
        XDDFLineChartData.Series added = lines(chart, line.series(), names, categories, values);
        added.setMarkerStyle(MarkerStyle.NONE);
        added.setLineProperties(looks);
    }

    /** Markers of a line series that has no line. */
    private void points(XDDFChart chart, Points points, XDDFCategoryDataSource names, XDDFCategoryAxis categories, XDDFValueAxis values) {
        XDDFLineChartData.Series added = lines(chart, points.series(), names, categories, values);
        added.setLineProperties(ChartFrame.noLine());
        boolean dot = points.shape() == Points.Shape.DOT;
        added.setMarkerStyle(dot ? MarkerStyle.CIRCLE : MarkerStyle.DASH);
        added.setMarkerSize((short) Math.max(2, Math.min(72, Math.round((dot ? DOT_SIZE : DASH_SIZE) * points.size()))));
        CTLineSer ct = added.getCTLineSer();
        var looks = ct.getMarker().isSetSpPr() ? ct.getMarker().getSpPr() : ct.getMarker().addNewSpPr();
        points.series().fill().ifPresent(fill -> {
            looks.addNewSolidFill().addNewSrgbClr().setVal(ChartFrame.bytes(fill));
            looks.addNewLn().addNewSolidFill().addNewSrgbClr().setVal(ChartFrame.bytes(dot ? Role.PAPER.color() : fill));
        });
        points.series().label().filter(label -> labelSize.isPresent()).ifPresent(label -> {
            PointLabels labels = new PointLabels(plain, points.series(), helpers, labelSize.getAsInt(), switch (label.at()) {
                case END -> STDLblPos.T;
                case INSIDE -> STDLblPos.R;
                case BASE, CENTRE -> STDLblPos.B;
            }, !panel.lines().isEmpty(), Set.of());
            ct.setDLbls(labels.labels());
            labels.range().ifPresent(ct::setExtLst);
        });
    }

    private XDDFLineChartData.Series lines(XDDFChart chart, Series series, XDDFCategoryDataSource names, XDDFCategoryAxis categories,
            XDDFValueAxis values) {
        XDDFLineChartData lines = (XDDFLineChartData) chart.createData(ChartTypes.LINE, categories, values);
        lines.setVaryColors(false);
        lines.setGrouping(Grouping.STANDARD);
        XDDFLineChartData.Series added = (XDDFLineChartData.Series) add(lines, names, series);
        added.setSmooth(false);
        chart.plot(lines);
        return added;
    }

    /** Programs begin the scale of figures that are close together above 0, and bars then lie about their length. */
    private boolean isFromZero() {
        return !panel.bars().isEmpty() && panel.scale().covered().isEmpty() && helpers.zero().isPresent();
    }

    /** An unseen point at 0, for upright bars: the scale then takes it in, whatever the figures become. */
    private void zero(XDDFChart chart, XDDFCategoryDataSource names, XDDFCategoryAxis categories, XDDFValueAxis values) {
        XDDFLineChartData lines = (XDDFLineChartData) chart.createData(ChartTypes.LINE, categories, values);
        lines.setVaryColors(false);
        lines.setGrouping(Grouping.STANDARD);
        XDDFLineChartData.Series added = (XDDFLineChartData.Series) zero(lines, names);
        added.setSmooth(false);
        added.setMarkerStyle(MarkerStyle.NONE);
        added.setLineProperties(ChartFrame.noLine());
        chart.plot(lines);
    }

    private XDDFChartData.Series zero(XDDFChartData data, XDDFCategoryDataSource names) {
        zeroAt = drawn.size();
        XDDFChartData.Series added = data.addSeries(names, Cached.zero(plain, helpers.zero().orElseThrow()));
        added.setTitle(HelperSheet.UNNAMED, helpers.zeroTitle());
        return added;
    }
}
