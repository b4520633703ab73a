package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Color;
import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.openxmlformats.schemas.drawingml.x2006.main.CTShapeProperties;
import org.openxmlformats.schemas.drawingml.x2006.main.CTTextBody;
import org.openxmlformats.schemas.drawingml.x2006.main.CTTextCharacterProperties;
import org.openxmlformats.schemas.drawingml.x2006.main.CTTextParagraph;
import org.openxmlformats.schemas.drawingml.x2006.main.STTextAlignType;
import org.openxmlformats.schemas.drawingml.x2006.main.STTextAnchoringType;

/**
 * Words over a chart, in a box without fill or line. A chart with series that are never to be named, spacers above all, has
 * its key here: programs do not agree on which entries of a native legend are left out.
 */
final class Key {
    private static final String SQUARE = "\u25A0 ";
    private static final String DASHES = "\u2013 \u2013 ";

    private Key() {
    }

    /** Whether a native legend would name a series that is not to be named. */
    static boolean isNeeded(List<Series> series) {
        return series.stream().anyMatch(Series::inLegend) && series.stream().anyMatch(s -> !s.inLegend());
    }

    /**
     * @param frame says how large and strong the names are
     * @param lines those of the series that are lines
     * @param down  whether each name has a line of its own
     */
    static void draw(Canvas canvas, Area area, List<Series> series, Set<Series> lines, ChartFrame frame, boolean down) {
        Map<String, Color> named = new LinkedHashMap<>();
        Set<String> dashed = lines.stream().map(Series::name).collect(Collectors.toSet());
        series.stream().filter(Series::inLegend).forEach(s -> named.put(s.name(), s.fill().or(s::outline).orElse(Role.PAPER.color())));
        CTTextBody body = canvas.box(area, "what the colours say", Optional.empty());
        if (down) {
            body.getBodyPr().setAnchor(STTextAnchoringType.T);
            body.getPArray(0).getPPr().setAlgn(STTextAlignType.L);
        }
        named.forEach((name, color) -> {
            boolean another = down && body.getPArray(0).sizeOfRArray() > 0;
            if (another) {
                body.addNewP().addNewPPr().setAlgn(STTextAlignType.L);
            }
            CTTextParagraph paragraph = body.getPArray(body.sizeOfPArray() - 1);
            int size = frame.size(Looks.Purpose.LEGEND, frame.textSize());
            run(paragraph, dashed.contains(name) ? DASHES : SQUARE, size, color);
            run(paragraph, name + "     ", size, Role.INK.color()).setB(frame.isBold(Looks.Purpose.LEGEND, false));
        });
    }

    /** A box without fill or line, with an empty paragraph in its middle. */
    static CTTextBody emptied(CTShapeProperties looks, CTTextBody body) {
        if (looks.isSetSolidFill()) {
            looks.unsetSolidFill();
        }
        looks.addNewNoFill();
        (looks.isSetLn() ? looks.getLn() : looks.addNewLn()).addNewNoFill();
        body.getBodyPr().setAnchor(STTextAnchoringType.CTR);
        while (body.sizeOfPArray() > 0) {
            body.removeP(0);
        }
        body.addNewP().addNewPPr().setAlgn(STTextAlignType.CTR);
        return body;
    }

    /** @param size in 1/100 point */
    static CTTextCharacterProperties run(CTTextParagraph paragraph, String words, int size, Color color) {
        var run = paragraph.addNewR();
        CTTextCharacterProperties looks = run.addNewRPr();
        looks.setSz(size);
        looks.addNewSolidFill().addNewSrgbClr().setVal(ChartFrame.bytes(color));
        looks.addNewLatin().setTypeface(ChartFrame.FONT);
        run.setT(words);
        return looks;
    }
}
