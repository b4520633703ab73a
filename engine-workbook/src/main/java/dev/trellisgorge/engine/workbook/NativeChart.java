package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.BarGroup;
import dev.trellisgorge.chart.BarGroup.Placing;
import dev.trellisgorge.chart.Color;
import dev.trellisgorge.chart.Label;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Panel;
import dev.trellisgorge.chart.PlainChart;
import dev.trellisgorge.chart.ReferenceLine;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.table.Column;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.stream.IntStream;
import org.apache.poi.xddf.usermodel.PresetLineDash;
import org.apache.poi.xddf.usermodel.XDDFColor;
import org.apache.poi.xddf.usermodel.XDDFFillProperties;
import org.apache.poi.xddf.usermodel.XDDFLineProperties;
import org.apache.poi.xddf.usermodel.XDDFNoFillProperties;
import org.apache.poi.xddf.usermodel.XDDFPresetLineDash;
import org.apache.poi.xddf.usermodel.XDDFSolidFillProperties;
import org.apache.poi.xddf.usermodel.chart.AxisCrossBetween;
import org.apache.poi.xddf.usermodel.chart.AxisCrosses;
import org.apache.poi.xddf.usermodel.chart.AxisOrientation;
import org.apache.poi.xddf.usermodel.chart.AxisPosition;
import org.apache.poi.xddf.usermodel.chart.AxisTickMark;
import org.apache.poi.xddf.usermodel.chart.BarDirection;
import org.apache.poi.xddf.usermodel.chart.BarGrouping;
import org.apache.poi.xddf.usermodel.chart.ChartTypes;
import org.apache.poi.xddf.usermodel.chart.DisplayBlanks;
import org.apache.poi.xddf.usermodel.chart.Grouping;
import org.apache.poi.xddf.usermodel.chart.LegendPosition;
import org.apache.poi.xddf.usermodel.chart.MarkerStyle;
import org.apache.poi.xddf.usermodel.chart.XDDFBarChartData;
import org.apache.poi.xddf.usermodel.chart.XDDFCategoryAxis;
import org.apache.poi.xddf.usermodel.chart.XDDFCategoryDataSource;
import org.apache.poi.xddf.usermodel.chart.XDDFChartAxis;
import org.apache.poi.xddf.usermodel.chart.XDDFChartData;
import org.apache.poi.xddf.usermodel.chart.XDDFDataSourcesFactory;
import org.apache.poi.xddf.usermodel.chart.XDDFLineChartData;
import org.apache.poi.xddf.usermodel.chart.XDDFNumericalDataSource;
import org.apache.poi.xddf.usermodel.chart.XDDFValueAxis;
import org.apache.poi.xssf.usermodel.XSSFChart;
import org.apache.xmlbeans.XmlException;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTBarSer;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTCatAx;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTChart;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTDLbls;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTExtensionList;
import org.openxmlformats.schemas.drawingml.x2006.chart.STDLblPos;
import org.openxmlformats.schemas.drawingml.x2006.chart.STTickLblPos;
import org.openxmlformats.schemas.drawingml.x2006.main.CTRegularTextRun;
import org.openxmlformats.schemas.drawingml.x2006.main.CTTextBody;
import org.openxmlformats.schemas.drawingml.x2006.main.CTTextCharacterProperties;
import org.openxmlformats.schemas.drawingml.x2006.main.CTTextParagraph;

/** A native chart (DrawingML) over the ranges of a helper sheet. */
final class NativeChart {
    /** Says that {@code #N/A} is a gap for labels too; programs that do not know it pass it over. */
    private static final String ABSENT_IS_BLANK = """
            <xml-fragment xmlns:c="http://schemas.openxmlformats.org/drawingml/2006/chart">\
            <c:ext uri="{56B9EC1D-385E-4148-901F-78D8002777C0}" \
            xmlns:c16r3="http://schemas.microsoft.com/office/drawing/2017/03/chart">\
            <c16r3:dataDisplayOptions16><c16r3:dispNaAsBlank val="1"/></c16r3:dataDisplayOptions16>\
            </c:ext></xml-fragment>""";
    private static final int TEXT_SIZE = 1200;
    private static final int TITLE_SIZE = 1800;

    private final PlainChart plain;
    private final HelperSheet helpers;
    private final boolean upright;

    NativeChart(PlainChart plain, HelperSheet helpers) {
        this.plain = plain;
        this.helpers = helpers;
        this.upright = plain.orientation() == Orientation.VERTICAL;
    }

    void drawOn(XSSFChart chart) {
        Panel panel = plain.panels().get(0);
        XDDFCategoryAxis categories = categoryAxis(chart);
        XDDFValueAxis values = valueAxis(chart, panel);
        XDDFCategoryDataSource names = XDDFDataSourcesFactory.fromArray(categoryNames(), helpers.categories(), 0);
        panel.bars().forEach(group -> bars(chart, group, names, categories, values));
        for (int i = 0; i < panel.lines().size(); i++) {
            line(chart, panel.lines().get(i), i, names, categories, values);
        }
        title(chart);
        if (plain.series().stream().anyMatch(Series::inLegend)) {
            chart.getOrAddLegend().setPosition(LegendPosition.TOP);
            chart.getOrAddLegend().setOverlay(false);
        }
        finish(chart);
    }

    private String[] categoryNames() {
        Column category = plain.data().category();
        return IntStream.range(0, category.size()).mapToObj(category::written).toArray(String[]::new);
    }

    private XDDFCategoryAxis categoryAxis(XSSFChart chart) {
        XDDFCategoryAxis axis = chart.createCategoryAxis(upright ? AxisPosition.BOTTOM : AxisPosition.LEFT);
        axis.setMajorTickMark(AxisTickMark.NONE);
        axis.getOrAddShapeProperties().setLineProperties(solidLine(Role.INK.color(), 1));
        if (!upright) {
            axis.setOrientation(AxisOrientation.MAX_MIN);
        }
        return axis;
    }

    private XDDFValueAxis valueAxis(XSSFChart chart, Panel panel) {
        XDDFValueAxis axis = chart.createValueAxis(upright ? AxisPosition.LEFT : AxisPosition.BOTTOM);
        axis.setCrosses(upright ? AxisCrosses.AUTO_ZERO : AxisCrosses.MAX);
        axis.setCrossBetween(AxisCrossBetween.BETWEEN);
        axis.setMajorTickMark(AxisTickMark.NONE);
        axis.setVisible(panel.valueAxisShown());
        noLine(axis);
        return axis;
    }

    private static void noLine(XDDFChartAxis axis) {
        XDDFLineProperties none = new XDDFLineProperties();
        none.setFillProperties(new XDDFNoFillProperties());
        axis.getOrAddShapeProperties().setLineProperties(none);
    }

    private void bars(XSSFChart chart, BarGroup group, XDDFCategoryDataSource names, XDDFCategoryAxis categories,
            XDDFValueAxis values) {
        XDDFBarChartData bars = (XDDFBarChartData) chart.createData(ChartTypes.BAR, categories, values);
        bars.setBarDirection(upright ? BarDirection.COL : BarDirection.BAR);
        bars.setBarGrouping(group.placing() == Placing.STACKED ? BarGrouping.STACKED : BarGrouping.CLUSTERED);
        bars.setGapWidth((int) Math.round(group.gap() * 100));
        bars.setOverlap((byte) (group.placing() == Placing.BESIDE ? 0 : 100));
        bars.setVaryColors(false);
        for (Series series : group.series()) {
            Column cells = plain.data().column(series.column()).cells();
            Double[] lengths = IntStream.range(0, cells.size())
                    .mapToObj(row -> cells.isPresent(row) ? cells.number(row) : null).toArray(Double[]::new);
            XDDFChartData.Series drawn = bars.addSeries(names, figures(lengths, helpers.valuesOf(series)));
            drawn.setTitle(series.name(), helpers.titleOf(series));
            drawn.setFillProperties(series.fill().<XDDFFillProperties>map(fill -> new XDDFSolidFillProperties(color(fill)))
                    .orElseGet(XDDFNoFillProperties::new));
            XDDFBarChartData.Series bar = (XDDFBarChartData.Series) drawn;
            bar.setInvertIfNegative(false);
            series.label().ifPresent(label -> labels(bar.getCTBarSer(), series, label));
        }
        chart.plot(bars);
    }

    private static XDDFNumericalDataSource<Double> figures(Double[] values, String range) {
        return XDDFDataSourcesFactory.fromArray(values, range, 0);
    }

    private void labels(CTBarSer bar, Series series, Label label) {
        CTDLbls labels = bar.addNewDLbls();
        labels.addNewNumFmt().setFormatCode(NumberFormats.of(label.format()));
        labels.getNumFmt().setSourceLinked(false);
        if (label.at() == Label.At.END) { // on paper of their own, so that a line does not strike them through
            labels.addNewSpPr().addNewSolidFill().addNewSrgbClr().setVal(bytes(Role.PAPER.color()));
        } else {
            labels.addNewSpPr().addNewNoFill();
        }
        labels.getSpPr().addNewLn().addNewNoFill();
        var properties = labels.addNewTxPr();
        properties.addNewBodyPr();
        var text = properties.addNewP().addNewPPr().addNewDefRPr();
        text.setSz(TEXT_SIZE);
        boolean onFill = label.at() != Label.At.END
                && series.fill().filter(f -> f.contrast(Role.PAPER.color()) >= f.contrast(Role.INK.color())).isPresent();
        text.addNewSolidFill().addNewSrgbClr().setVal(bytes((onFill ? Role.PAPER : Role.INK).color()));
        labels.addNewDLblPos().setVal(switch (label.at()) {
            case END -> STDLblPos.OUT_END;
            case INSIDE -> STDLblPos.IN_END;
            case BASE -> STDLblPos.IN_BASE;
        });
        labels.addNewShowLegendKey().setVal(false);
        labels.addNewShowVal().setVal(true);
        labels.addNewShowCatName().setVal(false);
        labels.addNewShowSerName().setVal(false);
        labels.addNewShowPercent().setVal(false);
        labels.addNewShowBubbleSize().setVal(false);
    }

    /** Engines of this kind have no reference line: a line series that has its level on every row. */
    private void line(XSSFChart chart, ReferenceLine reference, int index, XDDFCategoryDataSource names,
            XDDFCategoryAxis categories, XDDFValueAxis values) {
        if (!upright) {
            return; // a line series can't stand upright over lying bars; the goal stays in the settings below
        }
        XDDFLineChartData lines = (XDDFLineChartData) chart.createData(ChartTypes.LINE, categories, values);
        lines.setVaryColors(false);
        lines.setGrouping(Grouping.STANDARD);
        Double[] level = new Double[plain.data().rowCount()];
        Arrays.fill(level, reference.value());
        XDDFLineChartData.Series drawn = (XDDFLineChartData.Series) lines.addSeries(names,
                figures(level, helpers.valuesOfLine(index)));
        drawn.setTitle(helpers.titleText(helpers.titleOfLine(index)), helpers.titleOfLine(index));
        drawn.setMarkerStyle(MarkerStyle.NONE);
        drawn.setSmooth(false);
        XDDFLineProperties dashed = solidLine(Role.INK.color(), 1.5);
        dashed.setPresetDash(new XDDFPresetLineDash(PresetLineDash.DASH));
        drawn.setLineProperties(dashed);
        chart.plot(lines);
    }

    private static XDDFLineProperties solidLine(Color color, double points) {
        XDDFLineProperties line = new XDDFLineProperties(new XDDFSolidFillProperties(color(color)));
        line.setWidth(points);
        return line;
    }

    private static XDDFColor color(Color color) {
        return XDDFColor.from(bytes(color));
    }

    private static byte[] bytes(Color color) {
        return new byte[] {(byte) color.red(), (byte) color.green(), (byte) color.blue()};
    }

    private void title(XSSFChart chart) {
        Map<String, Integer> lines = new LinkedHashMap<>();
        plain.stamp().ifPresent(words -> lines.put(words, TITLE_SIZE));
        lines.put(plain.title(), TITLE_SIZE);
        lines.putIfAbsent(plain.subtitle(), TEXT_SIZE);
        lines.remove("");
        if (lines.isEmpty()) {
            chart.setAutoTitleDeleted(true);
            return;
        }
        chart.setTitleText("");
        chart.setTitleOverlay(false);
        CTTextBody body = chart.getCTChart().getTitle().getTx().getRich();
        body.setPArray(new CTTextParagraph[0]);
        lines.forEach((words, size) -> {
            CTRegularTextRun run = body.addNewP().addNewR();
            CTTextCharacterProperties looks = run.addNewRPr();
            looks.setSz(size);
            looks.setB(size == TITLE_SIZE);
            looks.addNewSolidFill().addNewSrgbClr().setVal(bytes(Role.INK.color()));
            run.setT(words);
        });
    }

    private void finish(XSSFChart chart) {
        CTChart ct = chart.getCTChart();
        (ct.isSetPlotVisOnly() ? ct.getPlotVisOnly() : ct.addNewPlotVisOnly()).setVal(false);
        chart.displayBlanksAs(DisplayBlanks.GAP);
        for (CTCatAx axis : ct.getPlotArea().getCatAxArray()) {
            (axis.isSetTickLblPos() ? axis.getTickLblPos() : axis.addNewTickLblPos()).setVal(STTickLblPos.LOW);
        }
        try {
            ct.setExtLst(CTExtensionList.Factory.parse(ABSENT_IS_BLANK));
        } catch (XmlException e) {
            throw new IllegalStateException(e);
        }
        var text = chart.getCTChartSpace().addNewTxPr();
        text.addNewBodyPr();
        var run = text.addNewP().addNewPPr().addNewDefRPr();
        run.setSz(TEXT_SIZE);
        run.addNewSolidFill().addNewSrgbClr().setVal(bytes(Role.INK.color()));
        var frame = chart.getGraphicFrame().getCTGraphicalObjectFrame().getNvGraphicFramePr().getCNvPr();
        frame.setName(plain.name());
        frame.setDescr(plain.alternative());
    }
}
