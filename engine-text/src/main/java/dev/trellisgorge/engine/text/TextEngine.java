package dev.trellisgorge.engine.text;

import dev.trellisgorge.engine.Ability;
import dev.trellisgorge.engine.Engine;
import dev.trellisgorge.engine.Options;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.engine.Tile;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.Stream;

/**
 * Writes pages as text ({@code .txt}, UTF-8): a line a category, whichever way the bars of a picture would run. A file has no
 * colours, and a column for each 12.8 pixels of a picture; a terminal has its own width and colours.
 */
public final class TextEngine implements Engine {
    private static final double PIXELS_A_COLUMN = 12.8;
    private static final int FEWEST_COLUMNS = 30;

    private final OptionalInt columns;
    private final Palette palette;

    /** For files. */
    public TextEngine() {
        this(OptionalInt.empty(), Palette.NONE);
    }

    private TextEngine(OptionalInt columns, Palette palette) {
        this.columns = columns;
        this.palette = palette;
    }

    /** @param columns how wide the terminal is, in characters */
    public static TextEngine forTerminal(int columns, Palette palette) {
        return new TextEngine(OptionalInt.of(columns), palette);
    }

    @Override
    public Set<String> endings() {
        return Set.of("txt");
    }

    @Override
    public boolean holdsSeveral(String ending) {
        return true;
    }

    @Override
    public Set<Ability> abilities() {
        return EnumSet.complementOf(EnumSet.of(Ability.LINES, Ability.BARS_IN_CELLS));
    }

    @Override
    public void draw(List<Page> pages, String ending, Options options, OutputStream out, Consumer<String> warnings) throws IOException {
        tellWhatHasNoUse(pages, warnings);
        int wide = Math.max(FEWEST_COLUMNS, columns.orElse((int) Math.round(options.size().width() / PIXELS_A_COLUMN)));
        List<String> lines = new ArrayList<>();
        for (Page page : pages) {
            if (!page.title().isEmpty()) {
                separate(lines);
                lines.add(palette.strong(page.title()));
            }
            if (!page.subtitle().isEmpty()) {
                lines.add(page.subtitle());
            }
            for (Tile tile : page.tiles()) {
                separate(lines);
                lines.addAll(lines(tile, wide));
            }
            if (!page.source().isEmpty()) {
                separate(lines);
                lines.add(page.source());
            }
        }
        out.write((String.join("\n", lines) + "\n").getBytes(StandardCharsets.UTF_8));
    }

    /** Letters of text are of one size, and its rows have no room between them. */
    private static void tellWhatHasNoUse(List<Page> pages, Consumer<String> warnings) {
        List<Looks> looks = Stream.concat(pages.stream().map(Page::looks), pages.stream().flatMap(page -> page.charts().stream()).map(PlainChart::looks)).toList();
        List<String> keys = new ArrayList<>();
        if (looks.stream().anyMatch(some -> !some.sizes().isEmpty() || some.bold().entrySet().stream().anyMatch(bold -> bold.getValue() != (bold.getKey() == Looks.Purpose.TITLE)))) {
            keys.add("'text'");
        }
        if (looks.stream().anyMatch(some -> some.gap().isPresent())) {
            keys.add("'gap'");
        }
        if (looks.stream().anyMatch(some -> some.titleAt().filter(at -> at != Looks.Align.LEFT).isPresent())) {
            keys.add("'title-at'");
        }
        if (looks.stream().anyMatch(some -> some.legend().filter(at -> at == Looks.Legend.LEFT || at == Looks.Legend.RIGHT).isPresent())) {
            keys.add("'legend' at a side");
        }
        if (!keys.isEmpty()) {
            warnings.accept("text can't follow " + String.join(", ", keys) + "; pictures do");
        }
    }

    private static void separate(List<String> lines) {
        if (!lines.isEmpty()) {
            lines.add("");
        }
    }

    private List<String> lines(Tile tile, int wide) {
        if (tile instanceof Tile.OfFigure figure) {
            List<String> lines = new ArrayList<>();
            Optional.of(figure.title()).filter(title -> !title.isEmpty()).ifPresent(lines::add);
            lines.add(palette.strong(figure.written().isEmpty() ? "no figure" : figure.written())
                    + (figure.text().isEmpty() ? "" : "  " + figure.text()));
            return lines;
        }
        List<String> lines = new ArrayList<>();
        for (PlainChart part : ((Tile.OfChart) tile).parts()) {
            lines.addAll(new TextChart(part, wide, palette).lines());
        }
        return lines;
    }
}
