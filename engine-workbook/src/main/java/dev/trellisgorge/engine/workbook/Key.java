package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Color;
import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.sheet.TextLine;
import dev.trellisgorge.sheet.TextLook;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

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
     * @param asLines those of the series that are lines
     * @param down  whether each name has a line of its own
     */
    static void draw(Canvas canvas, Area area, List<Series> series, Set<Series> asLines, ChartFrame frame, boolean down) {
        Map<String, Color> named = new LinkedHashMap<>();
        Set<String> dashed = asLines.stream().map(Series::name).collect(Collectors.toSet());
        series.stream().filter(Series::inLegend).forEach(s -> named.put(s.name(), s.fill().or(s::outline).orElse(Role.PAPER.color())));
        int size = frame.size(Looks.Purpose.LEGEND, frame.textSize());
        TextLook name = new TextLook(size, Role.INK.color()).bold(frame.isBold(Looks.Purpose.LEGEND, false));
        List<List<TextLine.Run>> entries = new ArrayList<>();
        named.forEach((words, color) -> entries.add(List.of(new TextLine.Run(dashed.contains(words) ? DASHES : SQUARE, new TextLook(size, color)), new TextLine.Run(words + "     ", name))));
        List<TextLine> lines = down ? entries.stream().map(entry -> new TextLine(entry, Optional.of(TextLine.At.LEFT))).toList()
                : List.of(new TextLine(entries.stream().flatMap(List::stream).toList(), Optional.of(TextLine.At.CENTRE)));
        canvas.box(area, "what the colours say", Optional.empty(), down, lines);
    }
}
