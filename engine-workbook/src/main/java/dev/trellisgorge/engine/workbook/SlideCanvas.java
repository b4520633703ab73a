package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Color;
import dev.trellisgorge.sheet.SheetChart;
import dev.trellisgorge.sheet.TextLine;
import dev.trellisgorge.sheet.TextLook;
import java.awt.geom.Rectangle2D;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.apache.poi.util.Units;
import org.apache.poi.xslf.usermodel.XSLFChart;
import org.apache.poi.xslf.usermodel.XSLFSlide;
import org.apache.poi.xslf.usermodel.XSLFTextBox;
import org.openxmlformats.schemas.drawingml.x2006.main.CTShapeProperties;
import org.openxmlformats.schemas.drawingml.x2006.main.CTTextBody;
import org.openxmlformats.schemas.drawingml.x2006.main.CTTextCharacterProperties;
import org.openxmlformats.schemas.drawingml.x2006.main.CTTextParagraph;
import org.openxmlformats.schemas.drawingml.x2006.main.STTextAlignType;
import org.openxmlformats.schemas.drawingml.x2006.main.STTextAnchoringType;
import org.openxmlformats.schemas.presentationml.x2006.main.CTShape;

/** A slide, with charts and boxes at their places in pixels. Used by one thread. */
final class SlideCanvas implements Canvas {
    private final XSLFSlide slide;
    private final List<Drawn> drawn = new ArrayList<>();
    private final List<OnSlide> charts = new ArrayList<>();
    private double left;
    private double top;

    private record Drawn(String part, SheetChart chart) {
    }

    /**
     * A chart on a slide.
     *
     * @param part     the name of its part
     * @param workbook that it reads
     */
    record OnSlide(String part, SheetChart chart, byte[] workbook) {
    }

    SlideCanvas(XSLFSlide slide) {
        this.slide = slide;
    }

    /** From here on areas are counted from this corner, in pixels. */
    void from(double x, double y) {
        left = x;
        top = y;
    }

    @Override
    public void chart(Area area, String name, String description, SheetChart chart) {
        Rectangle2D place = place(area);
        XSLFChart empty = slide.getSlideShow().createChart();
        slide.addChart(empty, new Rectangle2D.Double(Units.pixelToEMU((int) Math.round(place.getX())), Units.pixelToEMU((int) Math.round(place.getY())),
                Units.pixelToEMU((int) Math.round(place.getWidth())), Units.pixelToEMU((int) Math.round(place.getHeight()))));
        var shapes = slide.getXmlObject().getCSld().getSpTree();
        var words = shapes.getGraphicFrameArray(shapes.sizeOfGraphicFrameArray() - 1).getNvGraphicFramePr().getCNvPr();
        words.setName(name);
        words.setDescr(description);
        drawn.add(new Drawn(empty.getPackagePart().getPartName().getName().substring(1), chart));
    }

    @Override
    public void box(Area area, String description, Optional<String> cell, boolean atTop, List<TextLine> lines) {
        Rectangle2D place = place(area);
        CTShape shape = box(place.getX(), place.getY(), place.getWidth(), place.getHeight(), lines);
        shape.getNvSpPr().getCNvPr().setDescr(description);
        if (atTop) {
            shape.getTxBody().getBodyPr().setAnchor(STTextAnchoringType.T);
        }
    }

    /** Where an area is on the slide, in pixels. */
    Rectangle2D place(Area area) {
        Rectangle2D place = area.inPixels();
        return new Rectangle2D.Double(left + place.getX(), top + place.getY(), place.getWidth(), place.getHeight());
    }

    /** Lines in the middle of a box, all in pixels. */
    private CTShape box(double x, double y, double width, double height, List<TextLine> lines) {
        XSLFTextBox box = slide.createTextBox();
        box.setAnchor(points(x, y, width, height));
        CTShape shape = (CTShape) box.getXmlObject();
        CTShapeProperties looks = shape.getSpPr();
        if (looks.isSetSolidFill()) {
            looks.unsetSolidFill();
        }
        looks.addNewNoFill();
        (looks.isSetLn() ? looks.getLn() : looks.addNewLn()).addNewNoFill();
        shape.getTxBody().getBodyPr().setAnchor(STTextAnchoringType.CTR);
        fill(shape.getTxBody(), lines);
        return shape;
    }

    /** Puts lines in place of what a body of text holds. */
    static void fill(CTTextBody body, List<TextLine> lines) {
        body.setPArray(new CTTextParagraph[0]);
        for (TextLine line : lines) {
            CTTextParagraph paragraph = body.addNewP();
            line.at().ifPresent(at -> paragraph.addNewPPr().setAlgn(switch (at) {
                case LEFT -> STTextAlignType.L;
                case CENTRE -> STTextAlignType.CTR;
                case RIGHT -> STTextAlignType.R;
            }));
            for (TextLine.Run run : line.runs()) {
                var made = paragraph.addNewR();
                CTTextCharacterProperties looks = made.addNewRPr();
                looks.setSz(run.look().size());
                run.look().bold().ifPresent(looks::setB);
                Color color = run.look().color();
                looks.addNewSolidFill().addNewSrgbClr().setVal(new byte[] {(byte) color.red(), (byte) color.green(), (byte) color.blue()});
                run.look().font().ifPresent(font -> looks.addNewLatin().setTypeface(font));
                made.setT(run.words());
            }
        }
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
    void words(double x, double y, double width, double height, String words, int size, boolean strong, TextLine.At at, Color color) {
        CTTextBody body = box(x, y, width, height, List.of(TextLine.of(words, new TextLook(size, color).bold(strong), Optional.of(at)))).getTxBody();
        body.getBodyPr().setLIns(0);
        body.getBodyPr().setRIns(0);
    }

    /** Gives the charts that were put here since the last time the workbook that they read. */
    void behind(byte[] workbook) {
        drawn.forEach(chart -> charts.add(new OnSlide(chart.part(), chart.chart(), workbook)));
        drawn.clear();
    }

    /** The charts, whose parts are empty until they are written. */
    List<OnSlide> charts() {
        return List.copyOf(charts);
    }
}
