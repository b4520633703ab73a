package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Color;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.plan.PlainChart;
import java.util.LinkedHashMap;
import java.util.Map;
import org.apache.poi.xddf.usermodel.XDDFColor;
import org.apache.poi.xddf.usermodel.XDDFLineProperties;
import org.apache.poi.xddf.usermodel.XDDFNoFillProperties;
import org.apache.poi.xddf.usermodel.XDDFSolidFillProperties;
import org.apache.poi.xddf.usermodel.chart.DisplayBlanks;
import org.apache.poi.xssf.usermodel.XSSFChart;
import org.apache.xmlbeans.XmlException;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTChart;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTExtensionList;
import org.openxmlformats.schemas.drawingml.x2006.main.CTRegularTextRun;
import org.openxmlformats.schemas.drawingml.x2006.main.CTTextBody;
import org.openxmlformats.schemas.drawingml.x2006.main.CTTextCharacterProperties;
import org.openxmlformats.schemas.drawingml.x2006.main.CTTextParagraph;

/** What every native chart has round its plot: titles, fonts, no frame, words for readers who can't see it. */
final class ChartFrame {
    /** Says that {@code #N/A} is a gap for labels too; programs that do not know it pass it over. */
    private static final String ABSENT_IS_BLANK = """
            <xml-fragment xmlns:c="http://schemas.openxmlformats.org/drawingml/2006/chart">\
            <c:ext uri="{56B9EC1D-385E-4148-901F-78D8002777C0}" \
            xmlns:c16r3="http://schemas.microsoft.com/office/drawing/2017/03/chart">\
            <c16r3:dataDisplayOptions16><c16r3:dispNaAsBlank val="1"/></c16r3:dataDisplayOptions16>\
            </c:ext></xml-fragment>""";
    /** Charts and what stands over them have one font, which programs without it replace by one of the same widths. */
    static final String FONT = "Arial";
    /** In 1/100 point. */
    private static final int TEXT = 1200;
    private static final int SMALL_TEXT = 1000;

    private final PlainChart plain;
    private final int textSize;

    ChartFrame(PlainChart plain, boolean small) {
        this.plain = plain;
        this.textSize = small ? SMALL_TEXT : TEXT;
    }

    int textSize() {
        return textSize;
    }

    /** How high the titles are in a chart of this width, all in pixels. */
    int titleHeight(int width) {
        double pixels = textSize / 75.0;
        long lines = plain.stamp().stream().mapToLong(words -> lines(words, width)).sum() + lines(plain.title(), width) + lines(plain.subtitle(), width);
        return (int) Math.round((lines == 0 ? 0 : pixels) + lines * pixels * 1.9);
    }

    /** How many lines some words may take in the size of a title. */
    private long lines(String words, int width) {
        return words.isEmpty() ? 0 : 1 + (long) (words.length() * 0.6 * textSize * 1.5 / 75 / width);
    }

    void title(XSSFChart chart) {
        int large = textSize * 3 / 2;
        Map<String, Integer> lines = new LinkedHashMap<>();
        plain.stamp().ifPresent(words -> lines.put(words, large));
        lines.put(plain.title(), large);
        lines.putIfAbsent(plain.subtitle(), textSize);
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
            looks.setB(size == large);
            looks.addNewSolidFill().addNewSrgbClr().setVal(bytes(Role.INK.color()));
            looks.addNewLatin().setTypeface(FONT);
            run.setT(words);
        });
    }

    void finish(XSSFChart chart) {
        CTChart ct = chart.getCTChart();
        (ct.isSetPlotVisOnly() ? ct.getPlotVisOnly() : ct.addNewPlotVisOnly()).setVal(false);
        chart.displayBlanksAs(DisplayBlanks.GAP);
        try {
            ct.setExtLst(CTExtensionList.Factory.parse(ABSENT_IS_BLANK));
        } catch (XmlException e) {
            throw new IllegalStateException(e);
        }
        var space = chart.getCTChartSpace();
        var ground = space.isSetSpPr() ? space.getSpPr() : space.addNewSpPr();
        ground.addNewSolidFill().addNewSrgbClr().setVal(bytes(Role.PAPER.color()));
        ground.addNewLn().addNewNoFill();
        var text = space.isSetTxPr() ? space.getTxPr() : space.addNewTxPr();
        text.addNewBodyPr();
        var run = text.addNewP().addNewPPr().addNewDefRPr();
        run.setSz(textSize);
        run.addNewSolidFill().addNewSrgbClr().setVal(bytes(Role.INK.color()));
        run.addNewLatin().setTypeface(FONT);
        var words = chart.getGraphicFrame().getCTGraphicalObjectFrame().getNvGraphicFramePr().getCNvPr();
        words.setName(plain.name());
        words.setDescr(plain.alternative());
    }

    static XDDFLineProperties line(Color color, double points) {
        XDDFLineProperties line = new XDDFLineProperties(new XDDFSolidFillProperties(color(color)));
        line.setWidth(points);
        return line;
    }

    static XDDFLineProperties noLine() {
        XDDFLineProperties none = new XDDFLineProperties();
        none.setFillProperties(new XDDFNoFillProperties());
        return none;
    }

    static XDDFColor color(Color color) {
        return XDDFColor.from(bytes(color));
    }

    static byte[] bytes(Color color) {
        return new byte[] {(byte) color.red(), (byte) color.green(), (byte) color.blue()};
    }
}
