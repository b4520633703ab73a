package dev.trellisgorge.engine.opendocument;

import java.io.OutputStream;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTBarChart;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTBarSer;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTCatAx;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTCrosses;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTLegend;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTLineSer;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTManualLayout;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTPieSer;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTPlotArea;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTScaling;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTTitle;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTValAx;
import org.openxmlformats.schemas.drawingml.x2006.chart.ChartSpaceDocument;
import org.openxmlformats.schemas.drawingml.x2006.chart.STBarDir;
import org.openxmlformats.schemas.drawingml.x2006.chart.STBarGrouping;
import org.openxmlformats.schemas.drawingml.x2006.chart.STCrosses;
import org.openxmlformats.schemas.drawingml.x2006.chart.STOrientation;
import org.openxmlformats.schemas.drawingml.x2006.chart.STTickLblPos;
import org.openxmlformats.schemas.drawingml.x2006.main.CTRegularTextRun;
import org.openxmlformats.schemas.drawingml.x2006.main.CTTextParagraph;

/** Writes a native chart of a workbook (DrawingML) as a chart of an OpenDocument spreadsheet, over the same cells. Used by one thread. */
final class ChartObject {
    /** Programs turn a ring from the right, and ours start at the top. */
    private static final long TOP = 90;

    private final ChartSpaceDocument chart;
    private final CTPlotArea plot;
    private final double width;
    private final double height;
    private final ChartLooks looks = new ChartLooks();
    private final ChartSeries series;

    /** @param width of the whole chart, as {@code height}, in points */
    ChartObject(ChartSpaceDocument chart, double width, double height) {
        this.chart = chart;
        this.plot = chart.getChartSpace().getChart().getPlotArea();
        this.width = width;
        this.height = height;
        this.series = new ChartSeries(plot, looks);
    }

    ChartLooks looks() {
        return looks;
    }

    /** Whether it has labels that can't follow the cells. Known when it was written. */
    boolean hasFixedLabels() {
        return series.hasFixedLabels();
    }

    /** Writes the chart itself. */
    void write(OutputStream out) {
        // Styles stand before what they are for, so all of it is put together first.
        List<Consumer<PartWriter>> body = new ArrayList<>();
        title(body);
        legend(body);
        plot(body);
        ChartLooks.Style ground = looks.style();
        ground.shape(chart.getChartSpace().getSpPr());
        String whole = ground.name();
        try (PartWriter part = new PartWriter(out, "office:document-content", "style", "text", "table", "chart", "draw", "fo", "svg", "number", "xlink")) {
            part.open("office:automatic-styles");
            looks.write(part);
            part.close(1).open("office:body").open("office:chart").open("chart:chart", "chart:class", series.type(), "svg:width", PartWriter.points(width), "svg:height", PartWriter.points(height),
                    "chart:style-name", whole);
            body.forEach(each -> each.accept(part));
        }
    }

    /** Writes what its styles refer to by name. */
    void writeStyles(OutputStream out) {
        try (PartWriter part = new PartWriter(out, "office:document-styles", "style", "draw", "svg", "xlink")) {
            part.open("office:styles");
            looks.writeNamed(part, name -> part.leaf("draw:fill-image", "draw:name", name, "xlink:href", "Pictures/" + name + ".png", "xlink:type", "simple", "xlink:show", "embed"));
        }
    }

    private void title(List<Consumer<PartWriter>> body) {
        if (!chart.getChartSpace().getChart().isSetTitle()) {
            return;
        }
        CTTitle title = chart.getChartSpace().getChart().getTitle();
        List<CTTextParagraph> lines = Arrays.asList(title.getTx().getRich().getPArray()).stream().filter(line -> line.sizeOfRArray() > 0).toList();
        if (lines.isEmpty()) {
            return;
        }
        int large = lines.get(0).getRArray(0).getRPr().getSz();
        List<CTTextParagraph> first = lines.stream().filter(line -> line.getRArray(0).getRPr().getSz() == large && line.getRArray(0).getRPr().getB() == lines.get(0).getRArray(0).getRPr().getB()).toList();
        List<CTTextParagraph> others = lines.stream().filter(line -> !first.contains(line)).toList();
        CTManualLayout place = title.isSetLayout() && title.getLayout().isSetManualLayout() ? title.getLayout().getManualLayout() : null;
        String x = place == null ? null : PartWriter.points(place.getX().getVal() * width);
        body.add(written("chart:title", first, x, place == null ? null : PartWriter.points(place.getY().getVal() * height)));
        if (!others.isEmpty()) {
            double below = (place == null ? 0 : place.getY().getVal() * height) + first.size() * large / 100.0 * 1.3;
            body.add(written("chart:subtitle", others, x, place == null ? null : PartWriter.points(below)));
        }
    }

    private Consumer<PartWriter> written(String element, List<CTTextParagraph> lines, String x, String y) {
        String style = looks.style().words(lines.get(0).getRArray(0).getRPr()).name();
        return part -> part.open(element, "svg:x", x, "svg:y", y, "chart:style-name", style).open("text:p").spaced(lines.stream().map(ChartObject::words).collect(Collectors.joining("\n"))).close(2);
    }

    private static String words(CTTextParagraph line) {
        return Arrays.stream(line.getRArray()).map(CTRegularTextRun::getT).collect(Collectors.joining());
    }

    private void legend(List<Consumer<PartWriter>> body) {
        if (!chart.getChartSpace().getChart().isSetLegend()) {
            return;
        }
        CTLegend legend = chart.getChartSpace().getChart().getLegend();
        ChartLooks.Style style = text(looks.style()).graphic("draw:stroke", "none").graphic("draw:fill", "none");
        if (legend.isSetTxPr()) {
            style.words(legend.getTxPr());
        }
        String name = style.name();
        String at = switch (legend.getLegendPos().getVal().toString()) {
            case "b" -> "bottom";
            case "l" -> "start";
            case "r" -> "end";
            default -> "top";
        };
        body.add(part -> part.leaf("chart:legend", "chart:legend-position", at, "chart:style-name", name));
    }

    /** As the chart's words are written where nothing else is said. */
    private ChartLooks.Style text(ChartLooks.Style style) {
        return style.words(chart.getChartSpace().getTxPr());
    }

    private void plot(List<Consumer<PartWriter>> body) {
        ChartLooks.Style style = looks.style().chart("chart:include-hidden-cells", "true").chart("chart:treat-empty-cells", "leave-gap");
        boolean lying = plot.sizeOfBarChartArray() > 0 && plot.getBarChartArray(0).getBarDir().getVal() == STBarDir.BAR;
        if (lying) {
            style.chart("chart:vertical", "true");
        }
        if (plot.sizeOfBarChartArray() > 0 && Arrays.stream(plot.getBarChartArray()).anyMatch(bars -> bars.getGrouping().getVal() == STBarGrouping.STACKED)) {
            style.chart("chart:stacked", "true");
        }
        if (plot.sizeOfValAxArray() > 1) {
            style.chart("chart:group-bars-per-axis", "true");
        }
        if (plot.sizeOfDoughnutChartArray() > 0) {
            style.chart("chart:angle-offset", String.valueOf(Math.floorMod(TOP - plot.getDoughnutChartArray(0).getFirstSliceAng().getVal(), 360)));
        }
        String name = style.name();
        String wall = looks.style().graphic("draw:fill", "none").graphic("draw:stroke", "none").name();
        List<Consumer<PartWriter>> inside = new ArrayList<>();
        if (plot.isSetLayout() && plot.getLayout().isSetManualLayout()) {
            CTManualLayout place = plot.getLayout().getManualLayout();
            inside.add(part -> part.leaf("chart:coordinate-region", "svg:x", PartWriter.points(place.getX().getVal() * width), "svg:y", PartWriter.points(place.getY().getVal() * height), "svg:width",
                    PartWriter.points(place.getW().getVal() * width), "svg:height", PartWriter.points(place.getH().getVal() * height)));
        }
        Optional<String> categories = categories();
        if (plot.sizeOfDoughnutChartArray() > 0) {
            String clockwise = looks.style().chart("chart:reverse-direction", "true").name();
            inside.add(part -> {
                part.open("chart:axis", "chart:dimension", "x", "chart:name", "primary-x");
                categories.ifPresent(cells -> part.leaf("chart:categories", "table:cell-range-address", cells));
                part.close(1).leaf("chart:axis", "chart:dimension", "y", "chart:name", "primary-y", "chart:style-name", clockwise);
            });
        }
        for (int i = 0; i < plot.sizeOfCatAxArray(); i++) {
            categoryAxis(inside, plot.getCatAxArray(i), i, i == 0 ? categories : Optional.empty());
        }
        for (int i = 0; i < plot.sizeOfValAxArray(); i++) {
            valueAxis(inside, plot.getValAxArray(i), i);
        }
        inside.addAll(series.written());
        body.add(part -> {
            part.open("chart:plot-area", "chart:style-name", name);
            inside.forEach(each -> each.accept(part));
            part.leaf("chart:wall", "chart:style-name", wall).leaf("chart:floor", "chart:style-name", wall).close(1);
        });
    }

    private Optional<String> categories() {
        return Arrays.stream(plot.getBarChartArray()).flatMap(bars -> Arrays.stream(bars.getSerArray())).map(CTBarSer::getCat)
                .findFirst().or(() -> Arrays.stream(plot.getLineChartArray()).flatMap(lines -> Arrays.stream(lines.getSerArray())).map(CTLineSer::getCat).findFirst())
                .or(() -> Arrays.stream(plot.getDoughnutChartArray()).flatMap(rings -> Arrays.stream(rings.getSerArray())).map(CTPieSer::getCat).findFirst())
                .map(cells -> OpenFormula.address(cells.isSetStrRef() ? cells.getStrRef().getF() : cells.getNumRef().getF()));
    }

    private void categoryAxis(List<Consumer<PartWriter>> inside, CTCatAx axis, int at, Optional<String> categories) {
        ChartLooks.Style style = axis(axis.getScaling(), axis.getDelete().getVal(), axis.getTickLblPos().getVal(), axis.isSetCrosses() ? axis.getCrosses() : null);
        if (axis.isSetTxPr()) {
            style.words(axis.getTxPr());
        }
        if (axis.isSetSpPr() && axis.getSpPr().isSetLn()) {
            style.line(axis.getSpPr().getLn());
        }
        String name = style.name();
        inside.add(part -> {
            part.open("chart:axis", "chart:dimension", "x", "chart:name", at == 0 ? "primary-x" : "secondary-x", "chart:style-name", name);
            categories.ifPresent(cells -> part.leaf("chart:categories", "table:cell-range-address", cells));
            part.close(1);
        });
    }

    private void valueAxis(List<Consumer<PartWriter>> inside, CTValAx axis, int at) {
        ChartLooks.Style style = axis(axis.getScaling(), axis.getDelete().getVal(), axis.getTickLblPos().getVal(), axis.isSetCrosses() ? axis.getCrosses() : null);
        if (axis.isSetTxPr()) {
            style.words(axis.getTxPr());
        }
        if (axis.isSetSpPr() && axis.getSpPr().isSetLn()) {
            style.line(axis.getSpPr().getLn());
        }
        if (axis.getScaling().isSetMin()) {
            style.chart("chart:minimum", String.valueOf(axis.getScaling().getMin().getVal()));
        }
        if (axis.getScaling().isSetMax()) {
            style.chart("chart:maximum", String.valueOf(axis.getScaling().getMax().getVal()));
        }
        if (axis.isSetNumFmt() && !axis.getNumFmt().getSourceLinked()) {
            style.format(axis.getNumFmt().getFormatCode());
        }
        Arrays.stream(plot.getBarChartArray()).filter(bars -> Arrays.stream(bars.getAxIdArray()).anyMatch(id -> id.getVal() == axis.getAxId().getVal())).findFirst()
                .ifPresent(bars -> style.chart("chart:gap-width", String.valueOf(gap(bars))).chart("chart:overlap", String.valueOf(bars.isSetOverlap() ? bars.getOverlap().getVal().toString() : 0)));
        String name = style.name();
        Optional<CTTitle> title = axis.isSetTitle() ? Optional.of(axis.getTitle()) : Optional.empty();
        String titled = text(looks.style()).name();
        inside.add(part -> {
            part.open("chart:axis", "chart:dimension", "y", "chart:name", at == 0 ? "primary-y" : "secondary-y", "chart:style-name", name);
            title.ifPresent(words -> part.open("chart:title", "chart:style-name", titled).open("text:p").spaced(Arrays.stream(words.getTx().getRich().getPArray()).map(ChartObject::words)
                    .collect(Collectors.joining("\n"))).close(2));
            part.close(1);
        });
    }

    private static String gap(CTBarChart bars) {
        return bars.isSetGapWidth() ? String.valueOf(bars.getGapWidth().getVal()) : "150";
    }

    private ChartLooks.Style axis(CTScaling scaling, boolean deleted, STTickLblPos.Enum labels, CTCrosses crosses) {
        ChartLooks.Style style = text(looks.style());
        style.chart("chart:visible", String.valueOf(!deleted)).chart("chart:display-label", String.valueOf(!deleted && labels != STTickLblPos.NONE)).chart("chart:tick-marks-major-inner", "false")
                .chart("chart:tick-marks-major-outer", "false").chart("chart:reverse-direction", String.valueOf(scaling.isSetOrientation() && scaling.getOrientation().getVal() == STOrientation.MAX_MIN));
        if (labels == STTickLblPos.LOW || labels == STTickLblPos.HIGH) {
            style.chart("chart:axis-label-position", labels == STTickLblPos.LOW ? "outside-start" : "outside-end");
        }
        STCrosses.Enum at = crosses == null ? STCrosses.AUTO_ZERO : crosses.getVal();
        return style.chart("chart:axis-position", at == STCrosses.MAX ? "end" : at == STCrosses.MIN ? "start" : "0");
    }
}
