package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.sheet.Anchor;
import dev.trellisgorge.sheet.Book;
import dev.trellisgorge.sheet.Placed;
import dev.trellisgorge.sheet.Sheet;
import dev.trellisgorge.sheet.SheetChart;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.apache.poi.ss.formula.SheetNameFormatter;

/** Writes a book as a workbook ({@code .xlsx}, SpreadsheetML, ECMA-376). Used by one thread. */
final class BookWriter {
    private static final String SPREADSHEET = "application/vnd.openxmlformats-officedocument.spreadsheetml.";
    private static final String CHART = "http://schemas.openxmlformats.org/drawingml/2006/chart";
    private static final String RELATION = PackageWriter.RELATION;
    private static final String WORKBOOK = "xl/workbook.xml";
    private static final String STYLES = "xl/styles.xml";
    private static final String TEXTS = "xl/sharedStrings.xml";
    private static final String CORE = "docProps/core.xml";
    private static final String APPLICATION = "docProps/app.xml";

    private final Book book;
    private final PackageWriter file;
    private final StyleSheet styles = new StyleSheet();
    private final Map<String, Integer> texts = new LinkedHashMap<>();
    private int charts;
    private int drawings;
    private int pictures;

    private BookWriter(Book book, PackageWriter file) {
        this.book = book;
        this.file = file;
    }

    /** The stream stays open. */
    static void write(Book book, OutputStream out) throws IOException {
        try (PackageWriter file = new PackageWriter(out, types(book))) {
            new BookWriter(book, file).write();
        }
    }

    private static Map<String, String> types(Book book) {
        Map<String, String> types = new LinkedHashMap<>();
        types.put(WORKBOOK, SPREADSHEET + "sheet.main+xml");
        types.put(STYLES, SPREADSHEET + "styles+xml");
        types.put(TEXTS, SPREADSHEET + "sharedStrings+xml");
        types.put(CORE, "application/vnd.openxmlformats-package.core-properties+xml");
        types.put(APPLICATION, "application/vnd.openxmlformats-officedocument.extended-properties+xml");
        int charts = 0;
        int drawings = 0;
        for (int at = 0; at < book.sheets().size(); at++) {
            types.put(sheet(at), SPREADSHEET + "worksheet+xml");
            List<Placed> placed = book.sheets().get(at).placed();
            if (!placed.isEmpty()) {
                types.put(drawing(++drawings), "application/vnd.openxmlformats-officedocument.drawing+xml");
            }
            for (long chart = placed.stream().filter(Placed.OfChart.class::isInstance).count(); chart > 0; chart--) {
                types.put(chart(++charts), "application/vnd.openxmlformats-officedocument.drawingml.chart+xml");
            }
        }
        return types;
    }

    private static String sheet(int at) {
        return "xl/worksheets/sheet" + (at + 1) + ".xml";
    }

    private static String drawing(int number) {
        return "xl/drawings/drawing" + number + ".xml";
    }

    private static String chart(int number) {
        return "xl/charts/chart" + number + ".xml";
    }

    private void write() throws IOException {
        file.relate("", RELATION + "officeDocument", WORKBOOK);
        properties();
        List<String> ids = new ArrayList<>();
        for (int at = 0; at < book.sheets().size(); at++) {
            ids.add(sheet(book.sheets().get(at), sheet(at), at == book.shown()));
        }
        file.relate(WORKBOOK, RELATION + "styles", STYLES);
        try (OutputStream out = file.part(STYLES)) {
            styles.write(out);
        }
        file.relate(WORKBOOK, RELATION + "sharedStrings", TEXTS);
        try (OutputStream out = file.part(TEXTS); OfficeXml part = OfficeXml.of(out, OfficeXml.SHEETS, "sst")) {
            part.with("uniqueCount", String.valueOf(texts.size()));
            texts.keySet().forEach(words -> SheetWriter.text(part.open("si"), words).close(1));
        }
        try (OutputStream out = file.part(WORKBOOK); OfficeXml part = OfficeXml.of(out, OfficeXml.SHEETS, "workbook", "r")) {
            part.leaf("workbookPr").open("bookViews").leaf("workbookView", "activeTab", String.valueOf(book.shown())).close(1).open("sheets");
            for (int at = 0; at < ids.size(); at++) {
                part.leaf("sheet", "name", book.sheets().get(at).name(), "sheetId", String.valueOf(at + 1), "r:id", ids.get(at));
            }
            part.close(1);
            names(part);
            part.leaf("calcPr", "fullCalcOnLoad", "1"); // whatever program opens it works all out anew
        }
    }

    private void names(OfficeXml part) {
        List<Sheet> repeating = book.sheets().stream().filter(sheet -> sheet.repeated()[0] < sheet.repeated()[1]).toList();
        if (repeating.isEmpty() && book.names().isEmpty()) {
            return;
        }
        part.open("definedNames");
        for (Sheet sheet : repeating) {
            part.open("definedName", "name", "_xlnm.Print_Titles", "localSheetId", String.valueOf(book.sheets().indexOf(sheet)))
                    .words(SheetNameFormatter.format(sheet.name()) + "!$" + (sheet.repeated()[0] + 1) + ":$" + sheet.repeated()[1]).close(1);
        }
        for (Map.Entry<String, String> name : book.names().entrySet()) {
            part.open("definedName", "name", name.getKey()).words(name.getValue()).close(1);
        }
        part.close(1);
    }

    private void properties() throws IOException {
        file.relate("", "http://schemas.openxmlformats.org/package/2006/relationships/metadata/core-properties", CORE);
        try (OutputStream out = file.part(CORE); OfficeXml part = OfficeXml.properties(out)) {
            part.element("dc:creator", book.author());
            if (!book.title().isEmpty()) {
                part.element("dc:title", book.title());
            }
            book.date().ifPresent(day -> part.open("dcterms:created", "xsi:type", "dcterms:W3CDTF").words(day + "T00:00:00Z").close(1));
        }
        file.relate("", RELATION + "extended-properties", APPLICATION);
        try (OutputStream out = file.part(APPLICATION);
                OfficeXml part = OfficeXml.of(out, "http://schemas.openxmlformats.org/officeDocument/2006/extended-properties", "Properties")) {
            part.element("Application", LiveWorkbook.PROGRAM);
        }
    }

    /** @return the id of the relationship to it */
    private String sheet(Sheet sheet, String name, boolean shown) throws IOException {
        Optional<String> drawing = Optional.empty();
        if (!sheet.placed().isEmpty()) {
            String part = drawing(++drawings);
            drawing = Optional.of(file.relate(name, RELATION + "drawing", part));
            drawing(sheet, part);
        }
        try (OutputStream out = file.part(name)) {
            SheetWriter.write(out, sheet, styles, texts, shown, drawing);
        }
        return file.relate(WORKBOOK, RELATION + "worksheet", name);
    }

    private void drawing(Sheet sheet, String name) throws IOException {
        List<String> ids = new ArrayList<>();
        for (Placed placed : sheet.placed()) {
            Optional<SheetChart> chart = placed.match(each -> Optional.of(each.chart()), words -> Optional.empty());
            ids.add(chart.isPresent() ? chart(chart.get(), name) : "");
        }
        try (OutputStream out = file.part(name); OfficeXml part = OfficeXml.prefixed(out, "xdr:wsDr", "a", "c", "r")) {
            for (int at = 0; at < ids.size(); at++) {
                Placed placed = sheet.placed().get(at);
                part.open("xdr:twoCellAnchor", "editAs", "twoCell");
                corner(part, "xdr:from", placed.at().from());
                corner(part, "xdr:to", placed.at().to());
                String id = String.valueOf(at + 2);
                String chartId = ids.get(at);
                placed.match(chart -> chart(part, chart, id, chartId), words -> words(part, words, id)).leaf("xdr:clientData").close(1);
            }
        }
    }

    private static void corner(OfficeXml part, String element, Anchor.Corner at) {
        part.open(element).element("xdr:col", String.valueOf(at.column())).element("xdr:colOff", String.valueOf(at.x())).element("xdr:row", String.valueOf(at.row())).element("xdr:rowOff", String.valueOf(at.y())).close(1);
    }

    private static void size(OfficeXml part, String element, Anchor at) {
        part.open(element).leaf("a:off", "x", String.valueOf(at.from().x()), "y", String.valueOf(at.from().y())).leaf("a:ext", "cx", String.valueOf(at.width()), "cy", String.valueOf(at.height())).close(1);
    }

    private static OfficeXml chart(OfficeXml part, Placed.OfChart chart, String id, String chartId) {
        part.open("xdr:graphicFrame").open("xdr:nvGraphicFramePr").leaf("xdr:cNvPr", "id", id, "name", chart.name(), "descr", chart.description()).leaf("xdr:cNvGraphicFramePr").close(1);
        size(part, "xdr:xfrm", chart.at());
        return part.open("a:graphic").open("a:graphicData", "uri", CHART).leaf("c:chart", "r:id", chartId).close(3);
    }

    private static OfficeXml words(OfficeXml part, Placed.OfWords words, String id) {
        part.open("xdr:sp", "textlink", words.cell().orElse(null)).open("xdr:nvSpPr").leaf("xdr:cNvPr", "id", id, "name", words.name(), "descr", words.description()).leaf("xdr:cNvSpPr").close(1).open("xdr:spPr");
        size(part, "a:xfrm", words.at());
        part.open("a:prstGeom", "prst", "rect").leaf("a:avLst").close(1).leaf("a:noFill").open("a:ln").leaf("a:noFill").close(2);
        return part.open("xdr:txBody").leaf("a:bodyPr", "anchor", words.atTop() ? "t" : "ctr", "rtlCol", "false").leaf("a:lstStyle").lines(words.lines()).close(2);
    }

    private String chart(SheetChart chart, String drawing) throws IOException {
        String name = chart(++charts);
        List<byte[]> held = new ArrayList<>();
        ByteArrayOutputStream written = new ByteArrayOutputStream();
        ChartWriter.write(written, chart, png -> {
            held.add(png);
            return file.relate(name, RELATION + "image", "xl/media/image" + (pictures + held.size()) + ".png");
        }, Optional.empty());
        try (OutputStream out = file.part(name)) {
            written.writeTo(out);
        }
        for (byte[] png : held) {
            try (OutputStream out = file.part("xl/media/image" + ++pictures + ".png")) {
                out.write(png);
            }
        }
        return file.relate(drawing, RELATION + "chart", name);
    }
}
