package dev.trellisgorge.engine.opendocument;

import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.apache.poi.openxml4j.exceptions.InvalidFormatException;
import org.apache.poi.openxml4j.opc.PackagePart;
import org.apache.xmlbeans.XmlException;
import org.openxmlformats.schemas.drawingml.x2006.chart.ChartSpaceDocument;
import org.openxmlformats.schemas.drawingml.x2006.main.CTRegularTextRun;
import org.openxmlformats.schemas.drawingml.x2006.main.CTTextParagraph;
import org.openxmlformats.schemas.drawingml.x2006.spreadsheetDrawing.CTMarker;
import org.openxmlformats.schemas.drawingml.x2006.spreadsheetDrawing.CTShape;
import org.openxmlformats.schemas.drawingml.x2006.spreadsheetDrawing.CTTwoCellAnchor;
import org.openxmlformats.schemas.drawingml.x2006.spreadsheetDrawing.WsDrDocument;

/** What stands over a sheet's cells: charts, and words in boxes. */
final class SheetDrawing {
    private static final double EMU_PER_POINT = 12_700;
    /** After the prefix of a sheet's styles. */
    private static final String CHART = "chart";

    /**
     * A chart on a sheet.
     *
     * @param object the folder that it stands in
     * @param part   of the workbook
     */
    record Placed(String object, String name, ChartObject chart, PackagePart part) {
    }

    /** Where something stands, in points. */
    private record Box(double x, double y, double width, double height) {
    }

    private final SheetOutline outline;
    private final List<CTTwoCellAnchor> anchors;
    private final List<Placed> charts = new ArrayList<>();
    private final List<String> followed = new ArrayList<>();

    private SheetDrawing(SheetOutline outline, List<CTTwoCellAnchor> anchors) {
        this.outline = outline;
        this.anchors = anchors;
    }

    /** @param before how many charts other sheets have */
    static SheetDrawing read(SheetOutline outline, PackagePart part, int before) throws IOException, XmlException, InvalidFormatException {
        SheetDrawing drawing;
        try (InputStream in = part.getInputStream()) {
            drawing = new SheetDrawing(outline, List.of(WsDrDocument.Factory.parse(in).getWsDr().getTwoCellAnchorArray()));
        }
        for (CTTwoCellAnchor anchor : drawing.anchors) {
            if (anchor.isSetGraphicFrame()) {
                String id = anchor.getGraphicFrame().getGraphic().getGraphicData().getDomNode().getFirstChild().getAttributes()
                        .getNamedItemNS("http://schemas.openxmlformats.org/officeDocument/2006/relationships", "id").getNodeValue();
                PackagePart chart = part.getRelatedPart(part.getRelationship(id));
                Box box = drawing.box(anchor);
                try (InputStream in = chart.getInputStream()) {
                    drawing.charts.add(new Placed("Object " + (before + drawing.charts.size() + 1), anchor.getGraphicFrame().getNvGraphicFramePr().getCNvPr().getName(),
                            new ChartObject(ChartSpaceDocument.Factory.parse(in), box.width(), box.height()), chart));
                }
            } else if (anchor.getSp().isSetTextlink()) {
                drawing.followed.add(anchor.getSp().getNvSpPr().getCNvPr().getDescr());
            }
        }
        return drawing;
    }

    List<Placed> charts() {
        return charts;
    }

    /** The boxes whose words can't follow a cell here, each in words. */
    List<String> followed() {
        return followed;
    }

    private Box box(CTTwoCellAnchor anchor) {
        double left = x(anchor.getFrom());
        double top = y(anchor.getFrom());
        return new Box(left, top, x(anchor.getTo()) - left, y(anchor.getTo()) - top);
    }

    private double x(CTMarker at) {
        return outline.left(at.getCol()) + ((Number) at.getColOff()).doubleValue() / EMU_PER_POINT;
    }

    private double y(CTMarker at) {
        return outline.top(at.getRow()) + ((Number) at.getRowOff()).doubleValue() / EMU_PER_POINT;
    }

    /** The looks of boxes and their words, where automatic styles stand. */
    void styles(PartWriter part, String prefix) {
        part.open("style:style", "style:name", prefix + CHART, "style:family", "graphic").leaf("style:graphic-properties", "draw:fill", "none", "draw:stroke", "none").close(1);
        boxStyles(prefix).forEach((anchor, names) -> {
            CTShape shape = anchor.getSp();
            String down = shape.getTxBody().getBodyPr().isSetAnchor() && shape.getTxBody().getBodyPr().getAnchor().toString().equals("t") ? "top" : "middle";
            part.open("style:style", "style:name", names, "style:family", "graphic");
            part.leaf("style:graphic-properties", "draw:fill", "none", "draw:stroke", "none", "draw:textarea-vertical-align", down, "fo:padding", "0pt", "draw:auto-grow-height", "false").close(1);
            for (int p = 0; p < shape.getTxBody().sizeOfPArray(); p++) {
                CTTextParagraph paragraph = shape.getTxBody().getPArray(p);
                boolean left = paragraph.isSetPPr() && paragraph.getPPr().isSetAlgn() && paragraph.getPPr().getAlgn().toString().equals("l");
                part.open("style:style", "style:name", names + "p" + p, "style:family", "paragraph").leaf("style:paragraph-properties", "fo:text-align", left ? "start" : "center").close(1);
                for (int r = 0; r < paragraph.sizeOfRArray(); r++) {
                    var run = paragraph.getRArray(r).getRPr();
                    part.open("style:style", "style:name", names + "p" + p + "r" + r, "style:family", "text");
                    part.leaf("style:text-properties", "fo:font-size", PartWriter.points(run.getSz() / 100.0), "fo:font-weight", run.isSetB() && run.getB() ? "bold" : "normal", "fo:font-family",
                            run.getLatin().getTypeface(), "fo:color", CellLooks.color(run.getSolidFill().getSrgbClr().getVal()));
                    part.close(1);
                }
            }
        });
    }

    private Map<CTTwoCellAnchor, String> boxStyles(String prefix) {
        Map<CTTwoCellAnchor, String> names = new LinkedHashMap<>();
        anchors.stream().filter(CTTwoCellAnchor::isSetSp).forEach(anchor -> names.put(anchor, prefix + "b" + names.size()));
        return names;
    }

    /** The frames, where a table's shapes stand. */
    void write(PartWriter part, String prefix) {
        Map<CTTwoCellAnchor, String> styles = boxStyles(prefix);
        int chart = 0;
        part.open("table:shapes");
        for (CTTwoCellAnchor anchor : anchors) {
            Box box = box(anchor);
            var named = anchor.isSetGraphicFrame() ? anchor.getGraphicFrame().getNvGraphicFramePr().getCNvPr() : anchor.getSp().getNvSpPr().getCNvPr();
            part.open("draw:frame", "draw:name", named.getName(), "draw:style-name", styles.getOrDefault(anchor, prefix + CHART), "svg:x", PartWriter.points(box.x()), "svg:y", PartWriter.points(box.y()), "svg:width",
                    PartWriter.points(box.width()), "svg:height", PartWriter.points(box.height()));
            if (anchor.isSetGraphicFrame()) {
                part.leaf("draw:object", "xlink:href", "./" + charts.get(chart++).object(), "xlink:type", "simple", "xlink:show", "embed");
            } else {
                words(part, anchor.getSp(), styles.get(anchor));
            }
            if (named.isSetDescr()) {
                part.open("svg:desc").words(named.getDescr()).close(1);
            }
            part.close(1);
        }
        part.close(1);
    }

    private static void words(PartWriter part, CTShape shape, String style) {
        part.open("draw:text-box");
        for (int p = 0; p < shape.getTxBody().sizeOfPArray(); p++) {
            part.open("text:p", "text:style-name", style + "p" + p);
            CTTextParagraph paragraph = shape.getTxBody().getPArray(p);
            for (int r = 0; r < paragraph.sizeOfRArray(); r++) {
                CTRegularTextRun run = paragraph.getRArray(r);
                part.open("text:span", "text:style-name", style + "p" + p + "r" + r).spaced(run.getT()).close(1);
            }
            part.close(1);
        }
        part.close(1);
    }
}
