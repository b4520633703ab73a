package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Color;
import dev.trellisgorge.chart.Looks.Purpose;
import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import org.apache.poi.xddf.usermodel.XDDFColor;
import org.apache.poi.xddf.usermodel.XDDFLineProperties;
import org.apache.poi.xddf.usermodel.XDDFNoFillProperties;
import org.apache.poi.xddf.usermodel.XDDFSolidFillProperties;
import org.apache.poi.xddf.usermodel.chart.DisplayBlanks;
import org.apache.poi.xddf.usermodel.chart.LegendPosition;
import org.apache.poi.xddf.usermodel.chart.XDDFChart;
import org.apache.xmlbeans.XmlException;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTChart;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTExtensionList;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTManualLayout;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTTitle;
import org.openxmlformats.schemas.drawingml.x2006.chart.STLayoutMode;
import org.openxmlformats.schemas.drawingml.x2006.main.CTRegularTextRun;
import org.openxmlformats.schemas.drawingml.x2006.main.CTTextBody;
import org.openxmlformats.schemas.drawingml.x2006.main.CTTextCharacterProperties;
import org.openxmlformats.schemas.drawingml.x2006.main.CTTextParagraph;
import org.openxmlformats.schemas.drawingml.x2006.main.STTextAlignType;

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

    /** The size of text for a purpose in 1/100 point, where one was asked for; else the usual one. */
    int size(Purpose purpose, int usual) {
        return plain.looks().sizes().containsKey(purpose) ? (int) Math.round(plain.looks().sizes().get(purpose) * 75) : usual;
    }

    boolean isBold(Purpose purpose, boolean usual) {
        return plain.looks().bold().getOrDefault(purpose, usual);
    }

    /** How high the titles are in a chart of this width, all in pixels. */
    int titleHeight(int width, boolean headed) {
        double pixels = textSize / 75.0;
        double title = size(Purpose.TITLE, textSize * 3 / 2) / 75.0;
        double lines = plain.stamp().stream().mapToDouble(words -> lines(words, width, title)).sum() + lines(plain.title(), width, title)
                + lines(plain.subtitle(), width, Math.max(pixels * 1.5, size(Purpose.SUBTITLE, textSize) / 75.0)) + (headed ? pixels * 1.27 : 0);
        return (int) Math.round((lines == 0 ? 0 : pixels) + lines);
    }

    /** How high some words may be in a size, all in pixels. */
    private static double lines(String words, int width, double size) {
        return words.isEmpty() ? 0 : (1 + (long) (words.length() * 0.6 * size / width)) * size * 1.27;
    }

    /** The line above a panel that has no titles. */
    void heading(XDDFChart chart, String heading) {
        write(chart, Map.of(heading, Purpose.AXIS));
    }

    /** @param heading the line above its first panel, or empty */
    void title(XDDFChart chart, String heading) {
        Map<String, Purpose> lines = new LinkedHashMap<>();
        plain.stamp().ifPresent(words -> lines.put(words, Purpose.TITLE));
        lines.put(plain.title(), Purpose.TITLE);
        lines.putIfAbsent(plain.subtitle(), Purpose.SUBTITLE);
        lines.putIfAbsent(heading, Purpose.AXIS);
        lines.remove("");
        write(chart, lines);
    }

    private void write(XDDFChart chart, Map<String, Purpose> lines) {
        if (lines.isEmpty()) {
            chart.setAutoTitleDeleted(true);
            return;
        }
        chart.setTitleText("");
        chart.setTitleOverlay(false);
        CTTextBody body = chart.getCTChart().getTitle().getTx().getRich();
        body.setPArray(new CTTextParagraph[0]);
        lines.forEach((words, purpose) -> {
            CTTextParagraph paragraph = body.addNewP();
            plain.looks().titleAt().ifPresent(at -> paragraph.addNewPPr().setAlgn(at == Looks.Align.LEFT ? STTextAlignType.L : STTextAlignType.CTR));
            CTRegularTextRun run = paragraph.addNewR();
            CTTextCharacterProperties looks = run.addNewRPr();
            looks.setSz(size(purpose, purpose == Purpose.TITLE ? textSize * 3 / 2 : textSize));
            looks.setB(isBold(purpose, purpose != Purpose.SUBTITLE));
            looks.addNewSolidFill().addNewSrgbClr().setVal(bytes(Role.INK.color()));
            looks.addNewLatin().setTypeface(FONT);
            run.setT(words);
        });
    }

    /** A title can be put at the left; where it ends is known to the program that shows it, so not at the right. */
    void placeTitle(XDDFChart chart) {
        if (plain.looks().titleAt().equals(Optional.of(Looks.Align.RIGHT))) {
            throw new BadInput(Place.of("chart '" + plain.name() + "'"), ProblemKind.UNSUPPORTED, "files of this kind can't put the title at the right; put it at the left or in the centre");
        }
        if (plain.looks().titleAt().equals(Optional.of(Looks.Align.LEFT)) && chart.getCTChart().isSetTitle()) {
            CTTitle title = chart.getCTChart().getTitle();
            CTManualLayout place = (title.isSetLayout() ? title.getLayout() : title.addNewLayout()).addNewManualLayout();
            place.addNewXMode().setVal(STLayoutMode.EDGE);
            place.addNewYMode().setVal(STLayoutMode.EDGE);
            place.addNewX().setVal(0.015);
            place.addNewY().setVal(0.02);
        }
    }

    /** The native legend in the size that was asked for. */
    void legend(XDDFChart chart, LegendPosition position) {
        chart.getOrAddLegend().setPosition(position);
        chart.getOrAddLegend().setOverlay(false);
        if (plain.looks().sizes().containsKey(Purpose.LEGEND) || plain.looks().bold().containsKey(Purpose.LEGEND)) {
            run(chart.getCTChart().getLegend().addNewTxPr(), Purpose.LEGEND);
        }
    }

    /** The figures and names along an axis. */
    void axis(CTTextBody body) {
        run(body, Purpose.AXIS);
    }

    private void run(CTTextBody body, Purpose purpose) {
        body.addNewBodyPr();
        CTTextCharacterProperties looks = body.addNewP().addNewPPr().addNewDefRPr();
        looks.setSz(size(purpose, textSize));
        looks.setB(isBold(purpose, false));
        looks.addNewSolidFill().addNewSrgbClr().setVal(bytes(Role.INK.color()));
        looks.addNewLatin().setTypeface(FONT);
    }

    void finish(XDDFChart chart) {
        placeTitle(chart);
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
    }

    /** Without a ground of its own, so that what lies behind the chart is seen. */
    static void seeThrough(XDDFChart chart) {
        var ground = chart.getCTChartSpace().getSpPr();
        ground.unsetSolidFill();
        ground.addNewNoFill();
        var plot = chart.getCTChart().getPlotArea();
        (plot.isSetSpPr() ? plot.getSpPr() : plot.addNewSpPr()).addNewNoFill();
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
