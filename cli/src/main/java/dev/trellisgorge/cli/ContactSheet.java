package dev.trellisgorge.cli;

import dev.trellisgorge.engine.Page;
import dev.trellisgorge.plan.PlainChart;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Collectors;

/** A plain page, without scripts and without anything from elsewhere, that shows pictures and names the files beside them. */
final class ContactSheet {
    private final StringBuilder body = new StringBuilder();
    private final String title;

    ContactSheet(String title) {
        this.title = title;
    }

    /** One brief: its pictures, and links to every file that was written for it, all in the sheet's own folder. */
    void add(Path brief, List<Page> pages, List<Path> written) {
        body.append("<h2>").append(escaped(name(brief))).append("</h2>\n<p>").append(link(brief));
        written.forEach(file -> body.append(" \u00B7 ").append(link(file)));
        body.append("</p>\n<div>\n");
        List<Path> pictures = written.stream().filter(file -> name(file).endsWith(".svg")).toList();
        for (int i = 0; i < pictures.size(); i++) {
            String told = pages.get(i).charts().stream().map(PlainChart::alternative).collect(Collectors.joining(" "));
            body.append("<a href=\"").append(escaped(name(pictures.get(i)))).append("\"><img src=\"").append(escaped(name(pictures.get(i)))).append("\" alt=\"")
                    .append(escaped(told)).append("\"></a>\n");
        }
        body.append("</div>\n");
    }

    private static String link(Path file) {
        return "<a href=\"" + escaped(name(file)) + "\">" + escaped(name(file)) + "</a>";
    }

    private static String name(Path file) {
        return file.getFileName().toString();
    }

    String html() {
        return """
                <!DOCTYPE html>
                <html lang="en">
                <meta charset="utf-8">
                <meta name="viewport" content="width=device-width">
                <title>%s</title>
                <style>
                body { font-family: sans-serif; color: #22303a; margin: 2em; }
                div { display: grid; grid-template-columns: repeat(auto-fill, minmax(24em, 1fr)); gap: 1.5em; }
                img { width: 100%%; border: 1px solid #d5dade; }
                a { color: #1d5470; }
                </style>
                <h1>%s</h1>
                %s</html>
                """.formatted(escaped(title), escaped(title), body);
    }

    private static String escaped(String text) {
        return text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;").replace("\"", "&quot;");
    }
}
