package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Color;
import dev.trellisgorge.sheet.Anchor;
import dev.trellisgorge.sheet.CellFormat;
import dev.trellisgorge.sheet.SheetChart;
import dev.trellisgorge.sheet.SheetChart.Axis;
import dev.trellisgorge.sheet.SheetChart.Bar;
import dev.trellisgorge.sheet.SheetChart.Data;
import dev.trellisgorge.sheet.SheetChart.Fill;
import dev.trellisgorge.sheet.SheetChart.LabelAt;
import dev.trellisgorge.sheet.SheetChart.Labels;
import dev.trellisgorge.sheet.SheetChart.Layer;
import dev.trellisgorge.sheet.SheetChart.OwnLabel;
import dev.trellisgorge.sheet.SheetChart.Range;
import dev.trellisgorge.sheet.TextLine;
import dev.trellisgorge.sheet.TextLook;
import java.io.OutputStream;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;

/** Writes a native chart as a part of a package (DrawingML, ECMA-376 part 1, 21.2). Used by one thread. */
final class ChartWriter {
    private static final String OF_LABEL = "{CE6537A1-D6FC-4f65-9D91-7224C49458BB}";
    private static final String OF_SERIES = "{02D57815-91ED-43cb-92C2-25804820EDAC}";
    private static final String OF_CHART = "{56B9EC1D-385E-4148-901F-78D8002777C0}";

    private final SheetChart chart;
    private final Function<byte[], String> pictures;
    private final OfficeXml part;

    private ChartWriter(SheetChart chart, Function<byte[], String> pictures, OfficeXml part) {
        this.chart = chart;
        this.pictures = pictures;
        this.part = part;
    }

    /**
     * Writes a chart.
     *
     * @param pictures puts a picture into the package, and gives the id of the relationship to it
     * @param behind   the id of the relationship to the workbook that the chart reads; empty for the one that it is in
     */
    static void write(OutputStream out, SheetChart chart, Function<byte[], String> pictures, Optional<String> behind) {
        try (OfficeXml part = OfficeXml.prefixed(out, "c:chartSpace", "a", "r")) {
            new ChartWriter(chart, pictures, part).write(behind);
        }
    }

    private void write(Optional<String> behind) {
        part.open("c:chart");
        chart.title().ifPresentOrElse(title -> title(title.lines(), title.atLeft() ? Optional.of(title.corner()) : Optional.empty()), () -> part.value("c:autoTitleDeleted", true));
        part.open("c:plotArea");
        layout();
        chart.layers().forEach(this::layer);
        for (int pair = 0; pair < chart.axes().size(); pair++) {
            axis("c:catAx", chart.axes().get(pair).categories(), 2 * pair, 2 * pair + 1);
            axis("c:valAx", chart.axes().get(pair).values(), 2 * pair + 1, 2 * pair);
        }
        if (chart.ground().isEmpty()) {
            part.open("c:spPr").leaf("a:noFill").close(1);
        }
        part.close(1);
        chart.legend().ifPresent(this::legend);
        part.value("c:plotVisOnly", false).value("c:dispBlanksAs", "gap");
        // Says that #N/A is a gap for labels too; programs that do not know it pass it over.
        part.open("c:extLst").open("c:ext", "uri", OF_CHART).space("c16r3").open("c16r3:dataDisplayOptions16").value("c16r3:dispNaAsBlank", 1).close(4);
        part.open("c:spPr");
        chart.ground().ifPresentOrElse(part::fill, () -> part.leaf("a:noFill"));
        noLine().close(1);
        text(chart.text());
        behind.ifPresentOrElse(id -> part.leaf("c:externalData", "r:id", id), () -> part.open("c:printSettings").leaf("c:headerFooter")
                .leaf("c:pageMargins", "b", "0.75", "l", "0.7", "r", "0.7", "t", "0.75", "header", "0.3", "footer", "0.3").leaf("c:pageSetup").close(1));
    }

    private void title(List<TextLine> lines, Optional<double[]> corner) {
        part.open("c:title").open("c:tx").open("c:rich").leaf("a:bodyPr", "anchor", "t", "rtlCol", "false").leaf("a:lstStyle");
        part.lines(lines).close(2);
        if (corner.isPresent()) {
            part.open("c:layout").open("c:manualLayout").value("c:xMode", "edge").value("c:yMode", "edge").value("c:x", corner.get()[0]).value("c:y", corner.get()[1]).close(2);
        } else {
            part.leaf("c:layout");
        }
        part.value("c:overlay", false).close(1);
    }

    private void text(TextLook look) {
        part.open("c:txPr").leaf("a:bodyPr").open("a:p").open("a:pPr");
        part.look("a:defRPr", look).close(3);
    }

    private void layout() {
        chart.place().ifPresent(place -> part.open("c:layout").open("c:manualLayout").value("c:layoutTarget", "inner").value("c:xMode", "edge").value("c:yMode", "edge").value("c:x", place.left()).value("c:y", place.top())
                .value("c:w", place.width()).value("c:h", place.height()).close(2));
    }

    private void layer(Layer layer) {
        layer.match(bars -> {
            part.open("c:barChart").value("c:barDir", bars.upright() ? "col" : "bar").value("c:grouping", bars.stacked() ? "stacked" : "clustered").value("c:varyColors", false);
            bars.bars().forEach(this::bar);
            part.value("c:gapWidth", bars.gap()).value("c:overlap", bars.over());
            onAxes(bars.second());
        }, line -> {
            part.open("c:lineChart").value("c:grouping", "standard").value("c:varyColors", false);
            line(line);
            onAxes(false);
        }, rings -> {
            part.open("c:doughnutChart").value("c:varyColors", false);
            rings.rings().forEach(this::ring);
            part.value("c:firstSliceAng", rings.start()).value("c:holeSize", rings.hole());
        });
        part.close(1);
    }

    private void onAxes(boolean second) {
        part.value("c:axId", second ? 2 : 0).value("c:axId", second ? 3 : 1);
    }

    private void begin(int number) {
        part.open("c:ser").value("c:idx", number).value("c:order", number);
    }

    private void name(Data data) {
        part.open("c:tx");
        texts(data.name());
        part.close(1);
    }

    private void bar(Bar bar) {
        begin(bar.data().number());
        name(bar.data());
        shape(bar.fill(), bar.outline());
        part.value("c:invertIfNegative", false);
        bar.data().labels().ifPresent(this::labels);
        cells(bar.data().categories(), bar.data().values());
        bar.data().labels().flatMap(Labels::from).ifPresent(this::labelCells);
        part.close(1);
    }

    private void line(Layer.OfLine line) {
        begin(line.data().number());
        name(line.data());
        part.open("c:spPr");
        line.line().ifPresentOrElse(this::line, this::noLine);
        part.close(1).open("c:marker");
        line.marker().ifPresentOrElse(marker -> part.value("c:symbol", marker.dot() ? "circle" : "dash").value("c:size", marker.size()).open("c:spPr").fill(marker.fill()).open("a:ln").fill(marker.outline()).close(2),
                () -> part.value("c:symbol", "none"));
        part.close(1);
        line.data().labels().ifPresent(this::labels);
        cells(line.data().categories(), line.data().values());
        part.value("c:smooth", false);
        line.data().labels().flatMap(Labels::from).ifPresent(this::labelCells);
        part.close(1);
    }

    private void ring(SheetChart.Ring ring) {
        begin(ring.number());
        for (int at = 0; at < ring.fills().size(); at++) {
            part.open("c:dPt").value("c:idx", at);
            shape(ring.fills().get(at), Optional.empty());
            part.close(1);
        }
        cells(ring.categories(), ring.values());
        part.close(1);
    }

    private void shape(Fill fill, Optional<SheetChart.Line> outline) {
        part.open("c:spPr");
        fill.match(() -> part.leaf("a:noFill"), solid -> part.fill(solid.color()),
                picture -> part.open("a:blipFill").leaf("a:blip", "r:embed", pictures.apply(picture.png())).open("a:stretch").leaf("a:fillRect").close(2));
        outline.ifPresentOrElse(this::line, this::noLine);
        part.close(1);
    }

    private void line(SheetChart.Line line) {
        part.open("a:ln", "w", line.points().isPresent() ? String.valueOf(Math.round(line.points().getAsDouble() * Anchor.UNITS_PER_POINT)) : null).fill(line.color());
        if (line.dashed()) {
            part.value("a:prstDash", "dash");
        }
        part.close(1);
    }

    private OfficeXml noLine() {
        return part.open("a:ln").leaf("a:noFill").close(1);
    }

    private void texts(Range<String> range) {
        part.open("c:strRef").element("c:f", range.cells());
        copies("c:strCache", range);
        part.close(1);
    }

    private void copies(String element, Range<?> range) {
        part.open(element);
        if (!range.copies().isEmpty()) { // said even where no row has one: programs make up figures else
            part.value("c:ptCount", range.copies().size());
        }
        for (int at = 0; at < range.copies().size(); at++) {
            if (range.copies().get(at) != null) {
                part.open("c:pt", "idx", String.valueOf(at)).element("c:v", String.valueOf(range.copies().get(at))).close(1);
            }
        }
        part.close(1);
    }

    private void cells(Range<String> categories, Range<Double> values) {
        part.open("c:cat");
        texts(categories);
        part.close(1).open("c:val").open("c:numRef").element("c:f", values.cells());
        copies("c:numCache", values);
        part.close(2);
    }

    /**
     * Labels that are values, or texts of cells by the extension that most programs know; for viewers that don't, each point has its text
     * too.
     */
    private void labels(Labels labels) {
        boolean values = labels.from().isEmpty();
        part.open("c:dLbls");
        labels.own().forEach(label -> own(label, labels));
        part.leaf("c:numFmt", "formatCode", FormatCodes.of(labels.format()), "sourceLinked", "0");
        look(labels.paper(), labels.text());
        part.value("c:dLblPos", at(labels.at()));
        shows(values);
        part.close(1);
    }

    private void own(OwnLabel label, Labels labels) {
        part.open("c:dLbl").value("c:idx", label.row());
        label.words().ifPresentOrElse(words -> {
            part.open("c:tx").open("c:rich").leaf("a:bodyPr").open("a:p").open("a:fld", "id", label.id(), "type", "CELLRANGE");
            part.look("a:rPr", label.text()).leaf("a:pPr").element("a:t", words).close(1).leaf("a:endParaRPr").close(3);
        }, () -> part.leaf("c:numFmt", "formatCode", FormatCodes.of(labels.format()), "sourceLinked", "0"));
        if (label.ownLook()) {
            look(label.paper(), label.text());
        }
        part.value("c:dLblPos", at(label.at()));
        shows(label.words().isEmpty());
        part.close(1);
    }

    private void look(Optional<Color> paper, TextLook text) {
        part.open("c:spPr");
        paper.ifPresentOrElse(part::fill, () -> part.leaf("a:noFill"));
        noLine().close(1);
        part.open("c:txPr").leaf("a:bodyPr", "wrap", "none").open("a:p").open("a:pPr");
        part.look("a:defRPr", text).close(1).leaf("a:endParaRPr").close(2);
    }

    private void shows(boolean value) {
        part.value("c:showLegendKey", 0).value("c:showVal", value ? 1 : 0).value("c:showCatName", 0).value("c:showSerName", 0).value("c:showPercent", 0).value("c:showBubbleSize", 0);
        if (!value) {
            part.open("c:extLst").open("c:ext", "uri", OF_LABEL).space("c15").value("c15:showDataLabelsRange", 1).close(2);
        }
    }

    private void labelCells(Range<String> cells) {
        part.open("c:extLst").open("c:ext", "uri", OF_SERIES).space("c15").open("c15:datalabelsRange").element("c15:f", cells.cells()).open("c15:dlblRangeCache").value("c:ptCount", cells.copies().size());
        for (int at = 0; at < cells.copies().size(); at++) {
            if (cells.copies().get(at) != null) {
                part.open("c:pt", "idx", String.valueOf(at)).element("c:v", cells.copies().get(at)).close(1);
            }
        }
        part.close(4);
    }

    private static String at(LabelAt place) {
        return switch (place) {
            case OUTSIDE_END -> "outEnd";
            case INSIDE_END -> "inEnd";
            case INSIDE_BASE -> "inBase";
            case ABOVE -> "t";
            case BELOW -> "b";
            case LEFT -> "l";
            case RIGHT -> "r";
        };
    }

    private static String side(SheetChart.Side side) {
        return switch (side) {
            case TOP -> "t";
            case BOTTOM -> "b";
            case LEFT -> "l";
            case RIGHT -> "r";
        };
    }

    private void axis(String element, Axis axis, int id, int other) {
        boolean values = element.equals("c:valAx");
        part.open(element).value("c:axId", id).open("c:scaling").value("c:orientation", axis.backwards() ? "maxMin" : "minMax");
        axis.largest().ifPresent(largest -> part.value("c:max", largest));
        axis.least().ifPresent(least -> part.value("c:min", least));
        part.close(1).value("c:delete", !axis.shown()).value("c:axPos", side(axis.at()));
        if (!axis.title().isEmpty()) {
            part.open("c:title").open("c:tx").open("c:rich").leaf("a:bodyPr", "anchor", "t", "rtlCol", "false").leaf("a:lstStyle").open("a:p").open("a:pPr", "algn", "l").leaf("a:defRPr").close(1)
                    .open("a:r").leaf("a:rPr", "lang", "en").element("a:t", axis.title()).close(1).leaf("a:endParaRPr", "lang", "en-US", "sz", "1100").close(3).leaf("c:layout").value("c:overlay", false).close(1);
        }
        if (!axis.format().equals(CellFormat.GENERAL)) {
            part.leaf("c:numFmt", "formatCode", FormatCodes.of(axis.format()), "sourceLinked", "false");
        }
        part.value("c:majorTickMark", "none").value("c:minorTickMark", "none").value("c:tickLblPos", switch (axis.names()) {
            case NONE -> "none";
            case BESIDE -> "nextTo";
            case START -> "low";
            case END -> "high";
        });
        part.open("c:spPr");
        axis.line().ifPresentOrElse(this::line, this::noLine);
        part.close(1);
        axis.text().ifPresent(this::text);
        part.value("c:crossAx", other).value("c:crosses", switch (axis.crosses()) {
            case ZERO -> "autoZero";
            case START -> "min";
            case END -> "max";
        });
        if (values) {
            part.value("c:crossBetween", "between");
        } else {
            part.value("c:auto", false); // dates stay where they stand
        }
        part.close(1);
    }

    private void legend(SheetChart.Legend legend) {
        part.open("c:legend").value("c:legendPos", side(legend.at()));
        legend.without().forEach(series -> part.open("c:legendEntry").value("c:idx", series).value("c:delete", true).close(1));
        part.value("c:overlay", false);
        legend.text().ifPresent(this::text);
        part.close(1);
    }
}
