package dev.trellisgorge.engine.text;

import dev.trellisgorge.chart.Color;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** The glyph that fills each series' bars where there is no colour: one for each fill. */
final class Glyphs {
    static final char FULL = '\u2588';
    private static final List<Character> LOUD = List.of(FULL, '\u2592', '\u2593', '\u259A', '\u2591', '\u25A4', '\u25A5');
    private static final List<Character> QUIET = List.of('\u2591', '\u2592', '\u2593', FULL, '\u259A', '\u25A4', '\u25A5');

    private final Map<Color, Character> glyphs = new LinkedHashMap<>();

    /** Ordinary figures choose first, and what stands back does last, so that it does not take the fullest glyph. */
    Glyphs(List<Series> series) {
        series.stream().filter(s -> s.role() == Role.BASE).forEach(s -> choose(s, LOUD));
        series.stream().filter(s -> s.role() != Role.MUTED).forEach(s -> choose(s, LOUD));
        series.stream().filter(s -> s.role() == Role.MUTED).forEach(s -> choose(s, QUIET));
    }

    private void choose(Series series, List<Character> preferred) {
        series.fill().ifPresent(fill -> glyphs.computeIfAbsent(fill, f -> preferred.stream().filter(glyph -> !glyphs.containsValue(glyph)).findFirst()
                .orElse(preferred.get(glyphs.size() % preferred.size()))));
    }

    char of(Series series) {
        return series.fill().map(glyphs::get).orElse(' ');
    }
}
