package dev.trellisgorge.engine.image;

import dev.trellisgorge.engine.Page;
import dev.trellisgorge.engine.Tile;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.chart.TextCells;
import java.awt.Font;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/** Characters that the typeface of pictures lacks: they are drawn with the fonts of the machine, or told where none has them. */
final class Scripts {
    private static final int LISTED = 8;
    private static final int EMOJI = 0x1F000;
    /** What a Debian system installs for scripts; all others are in the first. */
    private static final String MOST = "fonts-noto-core";
    private static final Map<Character.UnicodeScript, String> PACKAGES = Map.of(Character.UnicodeScript.HAN, "fonts-noto-cjk", Character.UnicodeScript.HIRAGANA, "fonts-noto-cjk",
            Character.UnicodeScript.KATAKANA, "fonts-noto-cjk", Character.UnicodeScript.HANGUL, "fonts-noto-cjk");

    private Scripts() {
    }

    /** A typeface that has all characters of some words: ours, or where it lacks one what the machine has together. */
    static Font able(Font ours, String words) {
        return ours.canDisplayUpTo(words) < 0 ? ours : new Font(Font.SANS_SERIF, ours.getFamily().equals(Fonts.strong(1).getFamily()) ? Font.BOLD : Font.PLAIN, 1).deriveFont(ours.getSize2D());
    }

    static Font able(Font ours, Collection<String> words) {
        return able(ours, String.join("", words));
    }

    /** What can't be drawn of a page, a sentence for each reason. */
    static List<String> leftOut(Page page) {
        Set<Integer> glyphs = new TreeSet<>();
        Set<Integer> none = new TreeSet<>();
        Font machine = new Font(Font.SANS_SERIF, Font.PLAIN, 12);
        words(page).forEach(words -> missing(Fonts.regular(12), words).filter(character -> !machine.canDisplay(character)).forEach(none::add));
        bars(page).forEach(bar -> missing(Fonts.glyphs(12), bar).filter(character -> character != 0xFE0F).forEach(glyphs::add));
        return Stream.of(glyphs.isEmpty() ? Optional.<String>empty() : Optional.of("● stands for " + listed(glyphs) + ", which the typeface of bars made of characters lacks; an .svg keeps it"),
                none.isEmpty() ? Optional.<String>empty() : Optional.of(sentence(none))).flatMap(Optional::stream).toList();
    }

    private static Stream<Integer> missing(Font ours, String words) {
        return words.codePoints().filter(character -> !ours.canDisplay(character) && !Character.isISOControl(character) && Character.getType(character) != Character.FORMAT).boxed();
    }

    private static String sentence(Set<Integer> none) {
        Map<String, Set<Integer>> byPackage = new TreeMap<>();
        none.forEach(character -> byPackage.computeIfAbsent(character >= EMOJI ? "" : PACKAGES.getOrDefault(Character.UnicodeScript.of(character), MOST), name -> new TreeSet<>()).add(character));
        return "no font here has " + byPackage.entrySet().stream().map(each -> listed(each.getValue())
                + (each.getKey().isEmpty() ? "" : " (install one that has, on Debian " + each.getKey() + ")")).collect(Collectors.joining(", nor ")) + ", so boxes stand there; an .svg leaves them to the viewer's fonts";
    }

    private static String listed(Set<Integer> characters) {
        return "'" + characters.stream().limit(LISTED).map(Character::toString).collect(Collectors.joining()) + (characters.size() > LISTED ? "…" : "") + "'";
    }

    /** Everything that is said on a page. */
    private static Stream<String> words(Page page) {
        return Stream.concat(Stream.of(page.title()), page.tiles().stream().flatMap(tile -> tile instanceof Tile.OfFigure figure
                ? Stream.of(figure.title(), figure.text(), figure.written()) : ((Tile.OfChart) tile).parts().stream().flatMap(Scripts::words)));
    }

    private static Stream<String> words(PlainChart chart) {
        Stream<String> names = chart.plan().category().isEmpty() ? Stream.empty() : IntStream.range(0, chart.data().rowCount()).mapToObj(chart::categoryText);
        Stream<String> labels = chart.series().stream().flatMap(series -> IntStream.range(0, chart.data().rowCount()).mapToObj(row -> chart.labelTexts(series, row)));
        Stream<String> around = Stream.concat(Stream.of(chart.title(), chart.subtitle()), chart.series().stream().filter(Series::inLegend).map(Series::name));
        Stream<String> lines = chart.panels().stream().flatMap(panel -> Stream.concat(Stream.of(panel.axis().title()), panel.references().stream().map(line -> line.name())));
        return Stream.of(names, labels, around, lines).flatMap(each -> each);
    }

    /** The texts of bars made of characters. */
    private static Stream<String> bars(Page page) {
        return page.charts().stream().filter(chart -> chart.drawing() instanceof TextCells).flatMap(chart -> chart.series().stream().flatMap(series -> IntStream.range(0, chart.data().rowCount())
                .mapToObj(row -> chart.data().column(series.column()).written(row))));
    }
}
