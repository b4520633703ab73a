package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Color;
import java.awt.geom.Rectangle2D;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.apache.poi.openxml4j.exceptions.InvalidFormatException;
import org.apache.poi.util.Units;
import org.apache.poi.xddf.usermodel.chart.XDDFChart;
import org.apache.poi.xslf.usermodel.XSLFChart;
import org.apache.poi.xslf.usermodel.XSLFRelation;
import org.apache.poi.xslf.usermodel.XSLFSlide;
import org.apache.poi.xslf.usermodel.XSLFTextBox;
import org.openxmlformats.schemas.drawingml.x2006.main.CTTextBody;
import org.openxmlformats.schemas.drawingml.x2006.main.STTextAlignType;
import org.openxmlformats.schemas.presentationml.x2006.main.CTShape;

/** A slide, with charts and boxes at their places in pixels. Used by one thread. */
final class SlideCanvas implements Canvas {
    private final XSLFSlide slide;
    private final List<XSLFChart> drawn = new ArrayList<>();
    private final Map<String, byte[]> workbooks = new HashMap<>();
    private double left;
    private double top;

    SlideCanvas(XSLFSlide slide) {
        this.slide = slide;
    }

    /** From here on areas are counted from this corner, in pixels. */
    void from(double x, double y) {
        left = x;
        top = y;
    }

    @Override
    public XDDFChart chart(Area area, String name, String description) {
        Rectangle2D place = place(area);
        XSLFChart chart = slide.getSlideShow().createChart();
        slide.addChart(chart, new Rectangle2D.Double(Units.pixelToEMU((int) Math.round(place.getX())), Units.pixelToEMU((int) Math.round(place.getY())),
                Units.pixelToEMU((int) Math.round(place.getWidth())), Units.pixelToEMU((int) Math.round(place.getHeight()))));
        var shapes = slide.getXmlObject().getCSld().getSpTree();
        var words = shapes.getGraphicFrameArray(shapes.sizeOfGraphicFrameArray() - 1).getNvGraphicFramePr().getCNvPr();
        words.setName(name);
        words.setDescr(description);
        drawn.add(chart);
        return chart;
    }

    @Override
    public CTTextBody box(Area area, String description, Optional<String> cell) {
        Rectangle2D place = place(area);
        CTShape shape = box(place.getX(), place.getY(), place.getWidth(), place.getHeight());
        shape.getNvSpPr().getCNvPr().setDescr(description);
        return shape.getTxBody();
    }

    /** Where an area is on the slide, in pixels. */
    Rectangle2D place(Area area) {
        Rectangle2D place = area.inPixels();
        return new Rectangle2D.Double(left + place.getX(), top + place.getY(), place.getWidth(), place.getHeight());
    }

    /** An empty paragraph in the middle of a box, all in pixels. */
    private CTShape box(double x, double y, double width, double height) {
        XSLFTextBox box = slide.createTextBox();
        box.setAnchor(points(x, y, width, height));
        CTShape shape = (CTShape) box.getXmlObject();
        Key.emptied(shape.getSpPr(), shape.getTxBody());
        return shape;
    }

    static Rectangle2D points(double x, double y, double width, double height) {
        double each = SlideDeck.POINTS_PER_PIXEL;
        return new Rectangle2D.Double(x * each, y * each, width * each, height * each);
    }

    /**
     * Words in one style.
     *
     * @param size in 1/100 point
     */
    void words(double x, double y, double width, double height, String words, int size, boolean strong, STTextAlignType.Enum at, Color color) {
        CTTextBody body = box(x, y, width, height).getTxBody();
        body.getBodyPr().setLIns(0);
        body.getBodyPr().setRIns(0);
        body.getPArray(0).getPPr().setAlgn(at);
        Key.run(body.getPArray(0), words, size, color).setB(strong);
    }

    /** Gives the charts that were drawn since the last time the workbook that they read. */
    void behind(byte[] workbook) {
        try {
            for (XSLFChart chart : drawn) {
                chart.saveWorkbook(chart.getWorkbook());
                String part = chart.getPackagePart().getRelationshipsByType(XSLFRelation.WORKBOOK.getRelation()).getRelationship(0).getTargetURI().toString();
                workbooks.put(part, workbook);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (InvalidFormatException e) {
            throw new IllegalStateException(e);
        }
        drawn.clear();
    }

    /** The workbooks behind the charts, by the name of their part. */
    Map<String, byte[]> workbooks() {
        return Map.copyOf(workbooks);
    }
}
