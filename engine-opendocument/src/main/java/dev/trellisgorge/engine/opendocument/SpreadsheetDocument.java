package dev.trellisgorge.engine.opendocument;

import dev.trellisgorge.file.Temporaries;
import dev.trellisgorge.sheet.Book;
import dev.trellisgorge.sheet.Sheet;
import java.io.BufferedOutputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import org.apache.poi.ss.util.CellReference;

/** Writes a book, cells, formulas, looks and charts, as an OpenDocument spreadsheet (ISO/IEC 26300). Used by one thread. */
final class SpreadsheetDocument {
    /** As the file names who wrote it. */
    static final String PROGRAM = "Trellis Gorge";
    private static final String CONTENT = "office:document-content";
    private static final String BODY = "<office:body>";

    private final Book book;
    private final Consumer<String> warnings;
    private final CellLooks looks = new CellLooks();
    private final List<SheetShape> shapes = new ArrayList<>();
    private final Map<SheetShape, SheetDrawing> drawings = new LinkedHashMap<>();
    private final Map<String, String> sizes = new LinkedHashMap<>();

    /** @param warnings takes what is not as in a workbook */
    SpreadsheetDocument(Book book, Consumer<String> warnings) {
        this.book = book;
        this.warnings = warnings;
        int charts = 0;
        for (Sheet sheet : book.sheets()) {
            SheetShape shape = new SheetShape(sheet, shapes.size());
            if (!sheet.placed().isEmpty()) {
                SheetDrawing drawing = new SheetDrawing(shape, "s" + shapes.size(), charts);
                drawings.put(shape, drawing);
                charts += drawing.charts().size();
            }
            shapes.add(shape);
        }
    }

    void writeTo(OutputStream out) throws IOException {
        try (DocumentPackage made = new DocumentPackage(out, DocumentPackage.SPREADSHEET)) {
            try (OutputStream part = made.part("content.xml", DocumentPackage.XML)) {
                content(part);
            }
            try (OutputStream part = made.part("styles.xml", DocumentPackage.XML)) {
                styles(part);
            }
            try (OutputStream part = made.part("settings.xml", DocumentPackage.XML)) {
                ViewSettings.write(part, book.sheets());
            }
            try (OutputStream part = made.part("meta.xml", DocumentPackage.XML)) {
                meta(part);
            }
            for (SheetDrawing drawing : drawings.values()) {
                for (SheetDrawing.PlacedChart chart : drawing.charts()) {
                    chart(made, chart);
                }
                drawing.followed().forEach(box -> warnings.accept(box + " stays as it was drawn: a spreadsheet of this kind has no words over a chart that follow a cell"));
            }
        }
    }

    private void chart(DocumentPackage made, SheetDrawing.PlacedChart placed) throws IOException {
        made.folder(placed.object() + "/", DocumentPackage.CHART);
        try (OutputStream part = made.part(placed.object() + "/content.xml", DocumentPackage.XML)) {
            placed.chart().write(part);
        }
        try (OutputStream part = made.part(placed.object() + "/styles.xml", DocumentPackage.XML)) {
            placed.chart().writeStyles(part);
        }
        for (var picture : placed.chart().looks().pictures().entrySet()) {
            try (OutputStream part = made.part(placed.object() + "/Pictures/" + picture.getValue() + ".png", "image/png")) {
                part.write(picture.getKey().png());
            }
        }
    }

    /** Styles stand before the cells that have them, and which there are is known when all cells are made: the body waits in a file. */
    private void content(OutputStream out) throws IOException {
        shapes.forEach(shape -> {
            shape.columns().forEach(some -> sizes.computeIfAbsent(SheetTable.width(some.width()), each -> "co" + sizes.size()));
            shape.heights().values().forEach(height -> sizes.computeIfAbsent(SheetTable.height(height), each -> "ro" + sizes.size()));
        });
        sizes.computeIfAbsent(SheetTable.height(SheetShape.ROW), each -> "ro" + sizes.size());
        Path file = Temporaries.make();
        try {
            try (OutputStream made = new BufferedOutputStream(Files.newOutputStream(file)); PartWriter part = content(made, CONTENT)) {
                body(part);
            } catch (IOException | UncheckedIOException e) {
                throw new IOException("not all could be written; is there room in " + Temporaries.NAMED + "?", e);
            }
            ByteArrayOutputStream head = new ByteArrayOutputStream();
            try (PartWriter part = content(head, CONTENT)) {
                part.open("office:automatic-styles");
                automaticStyles(part);
                part.close(1);
            }
            String styles = head.toString(StandardCharsets.UTF_8);
            out.write(styles.substring(0, styles.lastIndexOf("</" + CONTENT)).getBytes(StandardCharsets.UTF_8));
            try (InputStream waiting = Files.newInputStream(file)) {
                int before = new String(waiting.readNBytes(1 << 13), StandardCharsets.ISO_8859_1).indexOf(BODY);
                try (InputStream again = Files.newInputStream(file)) {
                    again.skipNBytes(before);
                    again.transferTo(out);
                }
            }
        } finally {
            Temporaries.remove(file);
        }
    }

    private static PartWriter content(OutputStream out, String root) {
        return new PartWriter(out, root, "style", "text", "table", "draw", "fo", "svg", "number", "xlink", "of");
    }

    private void body(PartWriter part) {
        part.open("office:body").open("office:spreadsheet");
        part.leaf("table:calculation-settings", "table:case-sensitive", "false", "table:search-criteria-must-apply-to-whole-cell", "true", "table:use-wildcards", "true", "table:use-regular-expressions", "false",
                "table:automatic-find-labels", "false");
        validations(part);
        shapes.forEach(shape -> table(part, shape));
        names(part);
    }

    private void automaticStyles(PartWriter part) {
        sizes.forEach((size, name) -> {
            String points = size.substring(size.indexOf(' ') + 1);
            boolean column = size.startsWith("column");
            part.open("style:style", "style:name", name, "style:family", column ? "table-column" : "table-row");
            part.leaf(column ? "style:table-column-properties" : "style:table-row-properties", column ? "style:column-width" : "style:row-height", points, "style:use-optimal-row-height", column ? null : "false");
            part.close(1);
        });
        for (Printed printed : Printed.values()) {
            part.open("style:style", "style:name", "ta" + printed.master(), "style:family", "table", "style:master-page-name", printed.master());
            part.leaf("style:table-properties", "table:display", "true").close(1);
        }
        looks.write(part);
        drawings.values().forEach(drawing -> drawing.styles(part));
    }

    private void validations(PartWriter part) {
        if (shapes.stream().allMatch(shape -> shape.lists().isEmpty())) {
            return;
        }
        part.open("table:content-validations");
        for (SheetShape shape : shapes) {
            for (SheetShape.NamedList list : shape.lists()) {
                Sheet.Picks picks = list.picks();
                part.open("table:content-validation", "table:name", list.name(), "table:condition", "of:cell-content-is-in-list(" + OpenFormula.expression(picks.from()) + ")", "table:allow-empty-cell", "true",
                        "table:base-cell-address", OpenFormula.quoted(shape.sheet().name()) + "." + new CellReference(picks.row(), picks.column(), true, true).formatAsString());
                part.open("table:error-message", "table:display", "true", "table:message-type", "stop", "table:title", picks.title()).paragraphs(picks.message()).close(2);
            }
        }
        part.close(1);
    }

    private void table(PartWriter part, SheetShape shape) {
        part.open("table:table", "table:name", shape.sheet().name(), "table:style-name", "ta" + Printed.of(shape.sheet().printing()).master());
        if (drawings.containsKey(shape)) {
            drawings.get(shape).write(part);
        }
        SheetTable table = new SheetTable(shape, looks, sizes, part);
        table.columns();
        table.rows();
        part.close(1);
    }

    private void names(PartWriter part) {
        if (book.names().isEmpty()) {
            return;
        }
        part.open("table:named-expressions");
        book.names().forEach((name, cells) -> part.leaf("table:named-range", "table:name", name, "table:base-cell-address", OpenFormula.quoted(book.sheets().get(0).name()) + ".$A$1",
                "table:cell-range-address", OpenFormula.address(cells)));
        part.close(1);
    }

    private void styles(OutputStream out) {
        try (PartWriter part = new PartWriter(out, "office:document-styles", "style", "fo")) {
            part.open("office:styles");
            looks.writeNamed(part);
            part.close(1).open("office:automatic-styles");
            Printed.layouts(part);
            part.close(1);
            Printed.masters(part);
        }
    }

    private void meta(OutputStream out) {
        try (PartWriter part = new PartWriter(out, "office:document-meta", "meta", "dc")) {
            part.open("office:meta").element("meta:generator", PROGRAM);
            if (!book.title().isEmpty()) {
                part.element("dc:title", book.title());
            }
            part.element("meta:initial-creator", book.author()).element("dc:creator", book.author());
            book.date().ifPresent(day -> part.element("meta:creation-date", day + "T00:00:00").element("dc:date", day + "T00:00:00"));
        }
    }
}
