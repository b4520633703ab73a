package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Color;
import dev.trellisgorge.chart.Label;
import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.plan.PlainChart;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.apache.xmlbeans.XmlException;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTDLbls;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTExtensionList;
import org.openxmlformats.schemas.drawingml.x2006.chart.STDLblPos;

/**
 * The labels of a series. Where a bar is as long as the figure that it is labelled with, whatever the cells become, they are
 * its lengths; else they are taken from the label cells, by the extension that most spreadsheet programs know, and for
 * viewers that don't each point has its text too.
 */
final class PointLabels {
    private static final String SPACES = "<xml-fragment xmlns:c=\"http://schemas.openxmlformats.org/drawingml/2006/chart\""
            + " xmlns:a=\"http://schemas.openxmlformats.org/drawingml/2006/main\""
            + " xmlns:c15=\"http://schemas.microsoft.com/office/drawing/2012/chart\">";
    private static final String LABEL_EXTENSION = "{CE6537A1-D6FC-4f65-9D91-7224C49458BB}";
    private static final String SERIES_EXTENSION = "{02D57815-91ED-43cb-92C2-25804820EDAC}";

    private final PlainChart chart;
    private final Series series;
    private final Label label;
    private final HelperSheet helpers;
    private final int textSize;
    private final STDLblPos.Enum position;
    private final boolean onPaper;
    private final Set<Integer> tooShort;
    private final LabelOfLength.Says says;

    /**
     * @param textSize in 1/100 point
     * @param onPaper  whether each has a ground of its own, as a line may run behind it
     * @param tooShort the rows whose bar is too short to hold the label: it starts where the bar does, in ink
     */
    PointLabels(PlainChart chart, Series series, HelperSheet helpers, int textSize, STDLblPos.Enum position, boolean onPaper, Set<Integer> tooShort) {
        this.chart = chart;
        this.series = series;
        this.label = series.label().orElseThrow();
        this.helpers = helpers;
        this.textSize = textSize;
        this.position = position;
        this.onPaper = onPaper;
        this.tooShort = Set.copyOf(tooShort);
        this.says = new LabelOfLength(chart.plan(), series, label).says();
    }

    CTDLbls labels() {
        boolean lengths = saysItsLength();
        StringBuilder xml = new StringBuilder(SPACES);
        for (int row = 0; row < helpers.lines(); row++) {
            if (!lengths || tooShort.contains(row)) {
                xml.append("<c:dLbl><c:idx val=\"").append(row).append("\"/>").append(lengths ? "" : field(row)).append(lengths ? format() : "");
                if (tooShort.contains(row)) {
                    xml.append(ground(true)).append(text(false)).append("<c:dLblPos val=\"inBase\"/>");
                } else {
                    xml.append(position());
                }
                xml.append(shows(lengths)).append(lengths ? "" : "<c:extLst><c:ext uri=\"" + LABEL_EXTENSION
                        + "\"><c15:showDataLabelsRange val=\"1\"/></c:ext></c:extLst>").append("</c:dLbl>");
            }
        }
        xml.append(format()).append(ground(onPaper)).append(text(onFill())).append(position()).append(shows(lengths));
        if (!lengths) {
            xml.append("<c:extLst><c:ext uri=\"" + LABEL_EXTENSION + "\"><c15:showDataLabelsRange val=\"1\"/></c:ext></c:extLst>");
        }
        try {
            return CTDLbls.Factory.parse(xml.append("</xml-fragment>").toString());
        } catch (XmlException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Where the texts are taken from; empty where they are the lengths. */
    Optional<CTExtensionList> range() {
        if (saysItsLength()) {
            return Optional.empty();
        }
        StringBuilder xml = new StringBuilder(SPACES).append("<c:ext uri=\"" + SERIES_EXTENSION + "\"><c15:datalabelsRange><c15:f>")
                .append(escaped(helpers.labelsOf(series))).append("</c15:f><c15:dlblRangeCache><c:ptCount val=\"").append(helpers.lines()).append("\"/>");
        for (int row = 0; row < chart.data().rowCount(); row++) {
            String text = chart.labelText(series, row);
            if (!text.isEmpty()) {
                xml.append("<c:pt idx=\"").append(row).append("\"><c:v>").append(escaped(text)).append("</c:v></c:pt>");
            }
        }
        try {
            return Optional.of(CTExtensionList.Factory.parse(xml.append("</c15:dlblRangeCache></c15:datalabelsRange></c:ext></xml-fragment>").toString()));
        } catch (XmlException e) {
            throw new IllegalStateException(e);
        }
    }

    private boolean saysItsLength() {
        return says.ofLength();
    }

    private String field(int row) {
        return "<c:tx><c:rich><a:bodyPr/><a:p><a:fld id=\"" + id(row) + "\" type=\"CELLRANGE\"><a:rPr sz=\"" + textSize + "\"" + bold() + ">"
                + fill((tooShort.contains(row) || !onFill() ? Role.INK : Role.PAPER).color()) + "</a:rPr><a:pPr/><a:t>"
                + escaped(row < chart.data().rowCount() ? chart.labelText(series, row) : "") + "</a:t></a:fld><a:endParaRPr/></a:p></c:rich></c:tx>";
    }

    private String format() {
        return "<c:numFmt formatCode=\"" + escaped(says == LabelOfLength.Says.ITS_OPPOSITE ? NumberFormats.opposite(label.format()) : NumberFormats.of(label.format())) + "\" sourceLinked=\"0\"/>";
    }

    private String position() {
        return "<c:dLblPos val=\"" + position + "\"/>";
    }

    private static String shows(boolean value) {
        return "<c:showLegendKey val=\"0\"/><c:showVal val=\"" + (value ? 1 : 0)
                + "\"/><c:showCatName val=\"0\"/><c:showSerName val=\"0\"/><c:showPercent val=\"0\"/><c:showBubbleSize val=\"0\"/>";
    }

    private static String ground(boolean paper) {
        return "<c:spPr>" + (paper ? fill(Role.PAPER.color()) : "<a:noFill/>") + "<a:ln><a:noFill/></a:ln></c:spPr>";
    }

    /** Whether it stands on a fill that paper is read on better than ink. */
    private boolean onFill() {
        return !onPaper && label.at() != Label.At.END && series.fill().filter(f -> f.contrast(Role.PAPER.color()) >= f.contrast(Role.INK.color())).isPresent();
    }

    private String text(boolean paper) {
        return "<c:txPr><a:bodyPr wrap=\"none\"/><a:p><a:pPr><a:defRPr sz=\"" + textSize + "\"" + bold() + ">" + fill((paper ? Role.PAPER : Role.INK).color())
                + "</a:defRPr></a:pPr><a:endParaRPr/></a:p></c:txPr>";
    }

    private static String fill(Color color) {
        return "<a:solidFill><a:srgbClr val=\"" + color.toString().substring(1).toUpperCase(Locale.ROOT) + "\"/></a:solidFill>";
    }

    private String id(int row) {
        return "{" + UUID.nameUUIDFromBytes((chart.name() + "/" + series.column() + "/" + row).getBytes(StandardCharsets.UTF_8)).toString().toUpperCase(Locale.ROOT)
                + "}";
    }

    private static String escaped(String text) {
        return text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;").replace("\"", "&quot;");
    }

    private String bold() {
        return chart.looks().bold().getOrDefault(Looks.Purpose.LABELS, false) ? " b=\"1\"" : "";
    }
}
