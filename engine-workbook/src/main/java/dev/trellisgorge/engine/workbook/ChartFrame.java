package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Looks.Purpose;
import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.sheet.SheetChart;
import dev.trellisgorge.sheet.TextLine;
import dev.trellisgorge.sheet.TextLook;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** What every native chart has round its plot: titles, fonts, no frame, words for readers who can't see it. */
final class ChartFrame {
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
    Optional<SheetChart.Title> heading(String heading) {
        return described(Map.of(heading, Purpose.AXIS));
    }

    /** @param heading the line above its first panel, or empty */
    Optional<SheetChart.Title> title(String heading) {
        Map<String, Purpose> lines = new LinkedHashMap<>();
        plain.stamp().ifPresent(words -> lines.put(words, Purpose.TITLE));
        lines.put(plain.title(), Purpose.TITLE);
        lines.putIfAbsent(plain.subtitle(), Purpose.SUBTITLE);
        lines.putIfAbsent(heading, Purpose.AXIS);
        lines.remove("");
        return described(lines);
    }

    /** A title can be put at the left; where it ends is known to the program that shows it, so not at the right. */
    private Optional<SheetChart.Title> described(Map<String, Purpose> lines) {
        Optional<Looks.Align> at = plain.looks().titleAt();
        if (at.equals(Optional.of(Looks.Align.RIGHT))) {
            throw new BadInput(Place.of("chart '" + plain.name() + "'"), ProblemKind.UNSUPPORTED, "files of this kind can't put the title at the right; put it at the left or in the centre");
        }
        List<TextLine> written = lines.entrySet().stream().map(line -> TextLine.of(line.getKey(), look(line.getValue()), at.map(where -> where == Looks.Align.LEFT ? TextLine.At.LEFT : TextLine.At.CENTRE))).toList();
        return written.isEmpty() ? Optional.empty() : Optional.of(new SheetChart.Title(written, at.equals(Optional.of(Looks.Align.LEFT))));
    }

    private TextLook look(Purpose purpose) {
        return new TextLook(size(purpose, purpose == Purpose.TITLE ? textSize * 3 / 2 : textSize), Role.INK.color()).bold(isBold(purpose, purpose != Purpose.SUBTITLE));
    }

    /** The size and weight that were asked for; empty for as the chart has it. */
    Optional<TextLook> asked(Purpose purpose) {
        boolean isAsked = plain.looks().sizes().containsKey(purpose) || plain.looks().bold().containsKey(purpose);
        return isAsked ? Optional.of(new TextLook(size(purpose, textSize), Role.INK.color()).bold(isBold(purpose, false))) : Optional.empty();
    }

    /** Of words that say nothing else. */
    TextLook text() {
        return new TextLook(textSize, Role.INK.color());
    }
}
