package dev.trellisgorge.cli;

import dev.trellisgorge.pattern.Key;
import dev.trellisgorge.pattern.PatternType;
import dev.trellisgorge.pattern.Patterns;
import java.io.PrintStream;

/** Prints the catalogue, for a terminal or as the reference in Markdown, both from the patterns' own types. */
record PatternText(PrintStream out) {
    void list() {
        int width = Patterns.all().stream().mapToInt(type -> type.name().length()).max().orElse(0);
        Patterns.all().forEach(type -> out.println(type.name() + " ".repeat(width - type.name().length() + 2) + type.purpose()));
    }

    void one(PatternType type) {
        out.println(type.name() + ": " + type.purpose());
        out.println();
        type.picture().lines().forEach(line -> out.println("  " + line));
        out.println();
        out.println("Keys");
        type.allKeys().forEach(key -> out.println("  " + key.name() + " (" + about(key) + "): " + key.meaning()));
        out.println();
        out.println("Helper " + (type.categories() ? "columns" : "rows") + ": " + type.series());
        out.println();
        out.println("A brief to copy");
        brief(type).lines().forEach(line -> out.println("  " + line));
    }

    /** The whole reference. */
    void markdown() {
        out.println("# Patterns\n");
        out.println("What `gorge patterns` prints, in one page; written by `gorge patterns --as markdown`. Every chart also takes `title`, "
                + "`subtitle`, `slice`, `rank`, `labels`, `names`, `colors` and `orientation` (see docs/briefs.md).\n");
        for (PatternType type : Patterns.all()) {
            out.println("## " + type.name() + "\n\n" + type.purpose() + ".\n");
            out.println("```\n" + type.picture().stripTrailing() + "\n```\n");
            out.println("| key | takes | what it is |\n|---|---|---|");
            type.allKeys().forEach(key -> out.println("| `" + key.name() + "` | " + about(key) + " | " + key.meaning().replace("|", "\\|") + " |"));
            out.println("\nHelper " + (type.categories() ? "columns" : "rows") + ": " + type.series() + ".\n");
            out.println("```yaml\n" + brief(type).stripTrailing() + "\n```\n");
        }
    }

    private static String about(Key key) {
        return key.takes().phrase() + (key.required() ? ", required" : key.fallback().isEmpty() ? "" : ", " + key.fallback() + " by default");
    }

    static String brief(PatternType type) {
        return "brief: 1\ndata:\n  table: FILE.csv\ncharts:\n  chart:\n" + type.brief().indent(4);
    }
}
