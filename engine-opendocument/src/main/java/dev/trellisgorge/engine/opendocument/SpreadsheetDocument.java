package dev.trellisgorge.engine.opendocument;

import dev.trellisgorge.engine.Options;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import javax.xml.stream.XMLStreamException;
import org.apache.poi.openxml4j.exceptions.InvalidFormatException;
import org.apache.poi.openxml4j.exceptions.OpenXML4JException;
import org.apache.poi.openxml4j.opc.OPCPackage;
import org.apache.poi.openxml4j.opc.PackagePart;
import org.apache.poi.ss.util.CellReference;
import org.apache.poi.xssf.eventusermodel.XSSFReader;
import org.apache.poi.xssf.model.SharedStrings;
import org.apache.xmlbeans.XmlException;
import org.openxmlformats.schemas.spreadsheetml.x2006.main.CTDefinedName;
import org.openxmlformats.schemas.spreadsheetml.x2006.main.CTSheet;
import org.openxmlformats.schemas.spreadsheetml.x2006.main.CTWorkbook;
import org.openxmlformats.schemas.spreadsheetml.x2006.main.WorkbookDocument;
import org.xml.sax.SAXException;

/** Writes the sheets of a workbook, cells, formulas, looks and charts, as an OpenDocument spreadsheet (ISO/IEC 26300). Used by one thread. */
final class SpreadsheetDocument {
    /** As the file names who wrote it. */
    static final String PROGRAM = "Trellis Gorge";
    private static final String PRINT_TITLES = "_xlnm.Print_Titles";

    private final OPCPackage workbook;
    private final Options options;
    private final Consumer<String> told;
    private final XSSFReader reader;
    private final CTWorkbook book;
    private final CellLooks looks;
    private final SharedStrings shared;
    private final List<SheetOutline> outlines = new ArrayList<>();
    private final Map<SheetOutline, SheetDrawing> drawings = new LinkedHashMap<>();
    private final Map<String, String> sizes = new LinkedHashMap<>();

    /**
     * @param workbook as the engine for workbooks writes it
     * @param told     given what is not as in the workbook
     */
    SpreadsheetDocument(OPCPackage workbook, Options options, Consumer<String> told) throws IOException, OpenXML4JException, SAXException, XmlException, XMLStreamException {
        this.workbook = workbook;
        this.options = options;
        this.told = told;
        this.reader = new XSSFReader(workbook);
        try (InputStream in = reader.getWorkbookData()) {
            this.book = WorkbookDocument.Factory.parse(in).getWorkbook();
        }
        this.shared = reader.getSharedStringsTable();
        this.looks = new CellLooks(reader.getStylesTable(), new NumberStyles());
        int charts = 0;
        for (CTSheet sheet : book.getSheets().getSheetArray()) {
            SheetOutline outline;
            try (InputStream in = reader.getSheet(sheet.getId())) {
                outline = SheetOutline.read(sheet.getName(), outlines.size(), in);
            }
            outlines.add(outline);
            if (outline.drawing().isPresent()) {
                SheetDrawing drawing = SheetDrawing.read(outline, related(part(sheet), outline.drawing().get()), charts);
                drawings.put(outline, drawing);
                charts += drawing.charts().size();
            }
        }
    }

    private PackagePart part(CTSheet sheet) throws InvalidFormatException {
        PackagePart main = workbook.getPartsByContentType("application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml").get(0);
        return related(main, sheet.getId());
    }

    private static PackagePart related(PackagePart part, String id) throws InvalidFormatException {
        return part.getRelatedPart(part.getRelationship(id));
    }

    void writeTo(OutputStream out) throws IOException, OpenXML4JException, XMLStreamException {
        try (DocumentPackage made = new DocumentPackage(out, DocumentPackage.SPREADSHEET)) {
            try (OutputStream part = made.part("content.xml", DocumentPackage.XML)) {
                content(part);
            }
            try (OutputStream part = made.part("styles.xml", DocumentPackage.XML)) {
                styles(part);
            }
            try (OutputStream part = made.part("settings.xml", DocumentPackage.XML)) {
                ViewSettings.write(part, outlines);
            }
            try (OutputStream part = made.part("meta.xml", DocumentPackage.XML)) {
                meta(part);
            }
            for (SheetDrawing drawing : drawings.values()) {
                for (SheetDrawing.Placed chart : drawing.charts()) {
                    chart(made, chart);
                }
                drawing.followed().forEach(box -> told.accept(box + " stays as it was drawn: a spreadsheet of this kind has no words over a chart that follow a cell"));
            }
        }
    }

    private void chart(DocumentPackage made, SheetDrawing.Placed placed) throws IOException, InvalidFormatException {
        made.folder(placed.object() + "/", DocumentPackage.CHART);
        try (OutputStream part = made.part(placed.object() + "/content.xml", DocumentPackage.XML)) {
            placed.chart().write(part);
        }
        try (OutputStream part = made.part(placed.object() + "/styles.xml", DocumentPackage.XML)) {
            placed.chart().writeStyles(part);
        }
        for (Map.Entry<String, String> picture : placed.chart().looks().pictures().entrySet()) {
            try (OutputStream part = made.part(placed.object() + "/Pictures/" + picture.getValue() + ".png", "image/png"); InputStream in = related(placed.part(), picture.getKey()).getInputStream()) {
                in.transferTo(part);
            }
        }
        if (placed.chart().hasFixedLabels()) {
            told.accept("'" + placed.name() + "': its labels that are not the length of a bar stay as they were drawn");
        }
    }

    private void content(OutputStream out) throws IOException, OpenXML4JException, XMLStreamException {
        outlines.forEach(outline -> {
            outline.columns().forEach(some -> sizes.computeIfAbsent(SheetTable.width(some.width()), each -> "co" + sizes.size()));
            outline.heights().values().forEach(height -> sizes.computeIfAbsent(SheetTable.height(height), each -> "ro" + sizes.size()));
            outline.ruledAreas().forEach(area -> outline.styles().forEach(style -> looks.name(style, area)));
        });
        sizes.computeIfAbsent(SheetTable.height(SheetOutline.ROW), each -> "ro" + sizes.size());
        try (PartWriter part = new PartWriter(out, "office:document-content", "style", "text", "table", "draw", "fo", "svg", "number", "xlink", "of")) {
            part.open("office:automatic-styles");
            automaticStyles(part);
            part.close(1).open("office:body").open("office:spreadsheet");
            part.leaf("table:calculation-settings", "table:case-sensitive", "false", "table:search-criteria-must-apply-to-whole-cell", "true", "table:use-wildcards", "true", "table:use-regular-expressions", "false",
                    "table:automatic-find-labels", "false");
            validations(part);
            for (int i = 0; i < outlines.size(); i++) {
                table(part, i);
            }
            names(part);
        }
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
        for (int i = 0; i < outlines.size(); i++) {
            if (drawings.containsKey(outlines.get(i))) {
                drawings.get(outlines.get(i)).styles(part, "s" + i);
            }
        }
    }

    private void validations(PartWriter part) {
        if (outlines.stream().allMatch(outline -> outline.picks().isEmpty())) {
            return;
        }
        part.open("table:content-validations");
        for (SheetOutline outline : outlines) {
            for (SheetOutline.Picks picks : outline.picks()) {
                part.open("table:content-validation", "table:name", picks.name(), "table:condition", "of:cell-content-is-in-list(" + OpenFormula.expression(picks.from()) + ")", "table:allow-empty-cell", "true",
                        "table:base-cell-address", OpenFormula.quoted(outline.name()) + "." + new CellReference(picks.cells().getFirstRow(), picks.cells().getFirstColumn(), true, true).formatAsString());
                part.open("table:error-message", "table:display", "true", "table:message-type", "stop", "table:title", picks.title()).paragraphs(picks.error()).close(2);
            }
        }
        part.close(1);
    }

    private void table(PartWriter part, int index) throws IOException, OpenXML4JException, XMLStreamException {
        SheetOutline outline = outlines.get(index);
        part.open("table:table", "table:name", outline.name(), "table:style-name", "ta" + outline.printed().master());
        if (drawings.containsKey(outline)) {
            drawings.get(outline).write(part, "s" + index);
        }
        SheetTable table = new SheetTable(outline, looks, at -> shared.getItemAt(at).getString(), sizes, heading(index), part);
        table.columns();
        try (InputStream in = reader.getSheet(book.getSheets().getSheetArray(index).getId())) {
            table.rows(in);
        }
        part.close(1);
    }

    /** The rows that stand over each printed page, the first and the one after the last; the same where there are none. */
    private int[] heading(int sheet) {
        for (CTDefinedName name : definedNames()) {
            if (name.getName().equals(PRINT_TITLES) && name.getLocalSheetId() == sheet) {
                String[] rows = name.getStringValue().substring(name.getStringValue().lastIndexOf('!') + 1).replace("$", "").split(":");
                return new int[] {Integer.parseInt(rows[0]) - 1, Integer.parseInt(rows[1])};
            }
        }
        return new int[2];
    }

    private List<CTDefinedName> definedNames() {
        return book.isSetDefinedNames() ? List.of(book.getDefinedNames().getDefinedNameArray()) : List.of();
    }

    private void names(PartWriter part) {
        List<CTDefinedName> names = definedNames().stream().filter(name -> !name.getName().startsWith("_xlnm.")).toList();
        if (names.isEmpty()) {
            return;
        }
        part.open("table:named-expressions");
        names.forEach(name -> part.leaf("table:named-range", "table:name", name.getName(), "table:base-cell-address", OpenFormula.quoted(outlines.get(0).name()) + ".$A$1",
                "table:cell-range-address", OpenFormula.address(name.getStringValue())));
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

    private void meta(OutputStream out) throws InvalidFormatException {
        try (PartWriter part = new PartWriter(out, "office:document-meta", "meta", "dc")) {
            part.open("office:meta").open("meta:generator").words(PROGRAM).close(1);
            workbook.getPackageProperties().getTitleProperty().ifPresent(title -> part.open("dc:title").words(title).close(1));
            part.open("meta:initial-creator").words(options.author().orElse(PROGRAM)).close(1).open("dc:creator").words(options.author().orElse(PROGRAM)).close(1);
            options.date().ifPresent(day -> part.open("meta:creation-date").words(day + "T00:00:00").close(1).open("dc:date").words(day + "T00:00:00").close(1));
        }
    }
}
