package dev.trellisgorge.campaign;

import dev.trellisgorge.brief.Brief;
import dev.trellisgorge.engine.Engines;
import dev.trellisgorge.chart.Size;
import dev.trellisgorge.engine.Page;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;

/** One chart of each drawing that there is, and the kinds of file that it is drawn to. */
final class Kinds {
    static final List<String> ENDINGS = List.of("svg", "png", "pdf", "xlsx", "ods", "pptx", "txt", "json");
    private static final String BRIEF = """
            brief: 1
            data: {t: t.csv}
            settings: {goal: 3}
            charts:
              c: {pattern: columns, category: n, value: v, classify: {split: {at: ":goal"}}, title: Five stations}
            """;
    private static final Size SIZE = new Size(640, 400);

    private Kinds() {
    }

    /** The pages of the chart, over files that are written to a folder. */
    static List<Page> pages(Path folder) throws IOException {
        Files.writeString(folder.resolve("t.csv"), "n,v\nNorth Sluice,5\nHeron Weir,3\nMill Race,1\nAlder Gate,4\nStone Leat,2\n", StandardCharsets.UTF_8);
        Files.writeString(folder.resolve("b.yaml"), BRIEF, StandardCharsets.UTF_8);
        Brief brief = Brief.read(folder.resolve("b.yaml"));
        return brief.pages(brief.compute(brief.charts()));
    }

    static void draw(List<Page> pages, Path file) {
        Engines.draw(pages, file, SIZE);
    }
}
