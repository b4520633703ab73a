package dev.trellisgorge.engine.opendocument;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Consumer;
import org.apache.poi.ss.util.CellRangeAddress;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTBarChart;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTBarSer;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTDLbl;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTDLbls;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTDPt;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTDoughnutChart;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTLineChart;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTLineSer;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTMarker;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTPieSer;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTPlotArea;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTSerTx;
import org.openxmlformats.schemas.drawingml.x2006.chart.STDLblPos;
import org.openxmlformats.schemas.drawingml.x2006.chart.STMarkerStyle;
import org.openxmlformats.schemas.drawingml.x2006.main.CTTextCharacterProperties;

/** The series of a chart, over their cells: bars, lines, points and rings, with their labels. Used by one thread. */
final class ChartSeries {
    private static final String RING = "chart:ring";
    private static final String BAR = "chart:bar";
    private static final String LINE = "chart:line";

    private final CTPlotArea plot;
    private final ChartLooks looks;
    private final List<Drawn> all;
    private boolean fixedLabels;

    ChartSeries(CTPlotArea plot, ChartLooks looks) {
        this.plot = plot;
        this.looks = looks;
        this.all = drawn();
    }

    /** A series, whatever it is drawn as. */
    private record Drawn(String type, String values, Optional<CTSerTx> name, ChartLooks.Style style, Optional<CTDLbls> labels, List<CTDPt> points, boolean second) {
        /** How many rows its cells have. */
        int rows() {
            CellRangeAddress cells = CellRangeAddress.valueOf(values.substring(values.lastIndexOf('!') + 1));
            return cells.getLastRow() - cells.getFirstRow() + 1;
        }
    }

    /** What the chart is as a whole. */
    String type() {
        return all.stream().map(Drawn::type).filter(each -> !each.equals(LINE)).findFirst().orElse(LINE);
    }

    /** Whether some label can't follow the cells. Known when all are written. */
    boolean hasFixedLabels() {
        return fixedLabels;
    }

    /** Each of them, to be written when all styles are known. */
    List<Consumer<PartWriter>> written() {
        List<Consumer<PartWriter>> written = new ArrayList<>();
        all.forEach(each -> series(written, each));
        return written;
    }

    private List<Drawn> drawn() {
        Map<Long, Drawn> all = new TreeMap<>();
        for (CTBarChart bars : plot.getBarChartArray()) {
            boolean second = plot.sizeOfValAxArray() > 1 && Arrays.stream(bars.getAxIdArray()).anyMatch(id -> id.getVal() == plot.getValAxArray(1).getAxId().getVal());
            for (CTBarSer bar : bars.getSerArray()) {
                ChartLooks.Style style = looks.style().shape(bar.getSpPr());
                all.put(bar.getOrder().getVal(), new Drawn(BAR, bar.getVal().getNumRef().getF(), bar.isSetTx() ? Optional.of(bar.getTx()) : Optional.empty(), style,
                        bar.isSetDLbls() ? Optional.of(bar.getDLbls()) : Optional.empty(), List.of(), second));
            }
        }
        for (CTLineChart lines : plot.getLineChartArray()) {
            for (CTLineSer line : lines.getSerArray()) {
                all.put(line.getOrder().getVal(), new Drawn(LINE, line.getVal().getNumRef().getF(), line.isSetTx() ? Optional.of(line.getTx()) : Optional.empty(), line(line),
                        line.isSetDLbls() ? Optional.of(line.getDLbls()) : Optional.empty(), List.of(), false));
            }
        }
        for (CTDoughnutChart rings : plot.getDoughnutChartArray()) {
            for (CTPieSer ring : rings.getSerArray()) { // the outermost stands last there, and first here
                all.put(-ring.getOrder().getVal(), new Drawn(RING, ring.getVal().getNumRef().getF(), ring.isSetTx() ? Optional.of(ring.getTx()) : Optional.empty(), looks.style(), Optional.empty(),
                        Arrays.asList(ring.getDPtArray()), false));
            }
        }
        return List.copyOf(all.values());
    }

    private ChartLooks.Style line(CTLineSer line) {
        ChartLooks.Style style = looks.style().line(line.getSpPr().getLn());
        CTMarker marker = line.getMarker();
        if (marker.getSymbol().getVal() == STMarkerStyle.NONE) {
            return style.chart("chart:symbol-type", "none");
        }
        String size = PartWriter.points(marker.isSetSize() ? marker.getSize().getVal() : 7);
        String color = CellLooks.color(marker.getSpPr().getSolidFill().getSrgbClr().getVal());
        return style.graphic("svg:stroke-color", color).graphic("draw:fill-color", color).chart("chart:symbol-type", "named-symbol")
                .chart("chart:symbol-name", marker.getSymbol().getVal() == STMarkerStyle.CIRCLE ? "circle" : "horizontal-bar").chart("chart:symbol-width", size).chart("chart:symbol-height", size);
    }

    private void series(List<Consumer<PartWriter>> inside, Drawn drawn) {
        ChartLooks.Style style = drawn.style();
        Map<Long, CTDLbl> own = new LinkedHashMap<>();
        drawn.labels().ifPresent(labels -> {
            for (CTDLbl label : labels.getDLblArray()) {
                own.put(label.getIdx().getVal(), label);
            }
            if (labels.getShowVal().getVal()) {
                style.chart("chart:data-label-number", "value").format(labels.getNumFmt().getFormatCode());
            }
            style.chart("chart:label-position", at(labels.getDLblPos().getVal())).words(labels.getTxPr());
        });
        String name = style.name();
        List<Consumer<PartWriter>> points = new ArrayList<>();
        long next = 0;
        boolean plain = own.isEmpty() && drawn.points().isEmpty();
        for (long at = 0; at < (plain ? 0 : drawn.rows()); at++) {
            Consumer<PartWriter> point = point(drawn, at, own.get(at));
            if (point != null) {
                skip(points, at - next);
                points.add(point);
                next = at + 1;
            }
        }
        if (next > 0) {
            skip(points, drawn.rows() - next);
        }
        inside.add(part -> {
            part.open("chart:series", "chart:style-name", name, "chart:values-cell-range-address", OpenFormula.address(drawn.values()), "chart:label-cell-address",
                    drawn.name().filter(CTSerTx::isSetStrRef).map(cell -> OpenFormula.address(cell.getStrRef().getF())).orElse(null));
            if (!drawn.type().equals(RING)) {
                part.with("chart:class", drawn.type(), "chart:attached-axis", drawn.second() ? "secondary-y" : "primary-y");
            }
            points.forEach(each -> each.accept(part));
            part.close(1);
        });
    }

    private static void skip(List<Consumer<PartWriter>> points, long many) {
        if (many > 0) {
            points.add(part -> part.leaf("chart:data-point", "chart:repeated", String.valueOf(many)));
        }
    }

    /** What a point has of its own; absent where it is as the series says. */
    private Consumer<PartWriter> point(Drawn drawn, long at, CTDLbl label) {
        Optional<CTDPt> shape = drawn.points().stream().filter(each -> each.getIdx().getVal() == at).findFirst();
        if (shape.isPresent()) {
            String name = looks.style().shape(shape.get().getSpPr()).name();
            return part -> part.leaf("chart:data-point", "chart:style-name", name);
        } else if (label == null) {
            return null;
        }
        ChartLooks.Style style = looks.style().chart("chart:label-position", at(label.getDLblPos().getVal()));
        if (!label.isSetTx()) { // too short for its label, which begins where the bar does
            String name = style.chart("chart:data-label-number", "value").format(label.getNumFmt().getFormatCode()).words(label.getTxPr()).name();
            return part -> part.leaf("chart:data-point", "chart:style-name", name);
        }
        fixedLabels = true;
        var field = label.getTx().getRich().getPArray(0).getFldArray(0);
        String text = field.getT();
        if (text == null || text.isEmpty()) {
            return null;
        }
        CTTextCharacterProperties words = field.getRPr();
        String name = style.words(words).chart("chart:data-label-number", "value").name();
        return part -> part.open("chart:data-point", "chart:style-name", name).open("chart:data-label", "chart:style-name", name).open("text:p").open("text:span").spaced(text).close(4);
    }

    private static String at(STDLblPos.Enum place) {
        return switch (place.toString()) {
            case "outEnd" -> "outside";
            case "inEnd" -> "inside";
            case "inBase" -> "near-origin";
            case "t" -> "top";
            case "b" -> "bottom";
            case "r" -> "right";
            default -> "center";
        };
    }
}
