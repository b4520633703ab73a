package dev.trellisgorge.tables;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.table.Numbers;
import dev.trellisgorge.table.Table;
import java.io.IOException;
import java.io.InputStream;
import java.io.PushbackInputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javax.xml.parsers.ParserConfigurationException;
import org.apache.poi.ooxml.POIXMLException;
import org.apache.poi.openxml4j.exceptions.OpenXML4JException;
import org.apache.poi.openxml4j.exceptions.OpenXML4JRuntimeException;
import org.apache.poi.openxml4j.opc.OPCPackage;
import org.apache.poi.openxml4j.opc.PackageAccess;
import org.apache.poi.ss.usermodel.DateUtil;
import org.apache.poi.ss.util.CellRangeAddress;
import org.apache.poi.ss.util.CellReference;
import org.apache.poi.util.XMLHelper;
import org.apache.poi.xssf.eventusermodel.ReadOnlySharedStringsTable;
import org.apache.poi.xssf.eventusermodel.XSSFReader;
import org.apache.poi.xssf.model.StylesTable;
import org.apache.poi.xssf.usermodel.XSSFCellStyle;
import org.xml.sax.Attributes;
import org.xml.sax.InputSource;
import org.xml.sax.SAXException;
import org.xml.sax.XMLReader;
import org.xml.sax.helpers.DefaultHandler;

/**
 * Reads one sheet of a workbook ({@code .xlsx}), row by row. Formulas count by the results beside them, dates by their cells'
 * number format; a time of day is passed over. A cell with an error is missing.
 */
final class WorkbookTable {
    private WorkbookTable() {
    }

    static Table read(String name, InputFile source, Layout layout) {
        Place place = source.place();
        Path file = source.path();
        if (!Files.isRegularFile(file) || !Files.isReadable(file)) {
            throw new BadInput(place, Files.isDirectory(file) ? "is a folder; name a file" : Files.exists(file) ? "can't read: permission denied"
                    : "there is no such file");
        }
        try (OPCPackage archive = OPCPackage.open(file.toFile(), PackageAccess.READ)) {
            XSSFReader reader = new XSSFReader(archive);
            SheetRows rows = new SheetRows(place, layout);
            boolean from1904 = is1904(reader); // first, as it tells damage in words of ours
            try (InputStream sheet = sheet(reader, layout.sheet(), source, rows)) {
                parse(sheet, new Cells(reader.getStylesTable(), new SharedTexts(archive), from1904, rows));
            }
            return rows.table(name);
        } catch (NoClassDefFoundError e) { // of a library that unpacks what this format does not allow
            throw new BadInput(place, "is no workbook that can be read: it is packed in another way than SpreadsheetML allows; save it again");
        } catch (IOException | OpenXML4JException | SAXException | POIXMLException | OpenXML4JRuntimeException
                | IllegalArgumentException | IndexOutOfBoundsException | DateTimeException e) {
            throw new BadInput(place, "is no workbook that can be read: " + reason(e));
        }
    }

    /** What a library says, without the name that it has for it. */
    static String reason(Exception e) {
        List<String> lines = String.valueOf(e.getMessage()).lines().map(line -> line.replaceFirst("^([\\w.]+Exception[;:]|Message:) ", "")).toList();
        return lines.isEmpty() ? "" : lines.get(lines.get(0).startsWith("ParseError") ? lines.size() - 1 : 0);
    }

    /** Reads nothing from elsewhere, and prints nothing: what is wrong is thrown. */
    private static void parse(InputStream in, DefaultHandler handler) throws IOException, SAXException {
        try {
            XMLReader xml = XMLHelper.newXMLReader();
            xml.setContentHandler(handler);
            xml.setErrorHandler(handler);
            xml.parse(new InputSource(in));
        } catch (ParserConfigurationException e) {
            throw new IllegalStateException(e);
        }
    }

    private static boolean is1904(XSSFReader reader) throws IOException, OpenXML4JException, SAXException {
        boolean[] from1904 = {false};
        try (InputStream book = workbook(reader)) {
            parse(book, new DefaultHandler() {
                @Override
                public void startElement(String space, String name, String qualified, Attributes given) {
                    String stated = name.equals("workbookPr") ? given.getValue("date1904") : null;
                    from1904[0] |= "1".equals(stated) || "true".equals(stated);
                }
            });
        }
        return from1904[0];
    }

    private static InputStream workbook(XSSFReader reader) throws IOException, OpenXML4JException {
        try {
            return reader.getWorkbookData();
        } catch (NullPointerException e) { // the library's way of saying so
            throw new POIXMLException("it holds no workbook", e);
        }
    }

    /** The texts that sheets share. */
    private static final class SharedTexts extends ReadOnlySharedStringsTable {
        SharedTexts(OPCPackage archive) throws IOException, SAXException {
            super(archive);
        }

        @Override
        public void readFrom(InputStream in) throws IOException, SAXException {
            PushbackInputStream whole = new PushbackInputStream(in);
            int first = whole.read();
            if (first >= 0) { // a part without a byte has no texts
                whole.unread(first);
                parse(whole, this);
            }
        }
    }

    /** The names of the sheets, in their order. Errors as for reading one. */
    static List<String> sheets(InputFile source) {
        List<String> names = new ArrayList<>();
        try (OPCPackage archive = OPCPackage.open(source.path().toFile(), PackageAccess.READ)) {
            XSSFReader reader = new XSSFReader(archive);
            is1904(reader); // tells damage in words of ours
            XSSFReader.SheetIterator sheets = (XSSFReader.SheetIterator) reader.getSheetsData();
            while (sheets.hasNext()) {
                sheets.next().close();
                names.add(sheets.getSheetName());
            }
        } catch (IOException | OpenXML4JException | SAXException | POIXMLException | OpenXML4JRuntimeException | NoClassDefFoundError e) {
            return List.of(); // reading says what is wrong
        }
        return names;
    }

    /** The sheet of that name, or the first one; the rows are told what it is called. */
    private static InputStream sheet(XSSFReader reader, Optional<String> wanted, InputFile source, SheetRows rows) throws IOException, OpenXML4JException {
        List<String> names = new ArrayList<>();
        XSSFReader.SheetIterator sheets = (XSSFReader.SheetIterator) reader.getSheetsData();
        while (sheets.hasNext()) {
            InputStream sheet = sheets.next();
            if (wanted.isEmpty() || wanted.get().equals(sheets.getSheetName())) {
                rows.on(sheets.getSheetName());
                return source.watched(sheet, sheets.getSheetPart().getSize());
            }
            names.add(sheets.getSheetName());
            sheet.close();
        }
        throw new BadInput(source.place(), wanted.map(name -> "there is no sheet '" + name + "'. " + Nearest.hint(name, names)).orElse("has no sheet"));
    }

    /** Gathers the cells of each row (SpreadsheetML, ECMA-376 part 1, 18.3.1). */
    private static final class Cells extends DefaultHandler {
        private final StylesTable styles;
        private final ReadOnlySharedStringsTable texts;
        private final boolean from1904;
        private final SheetRows rows;
        private final StringBuilder value = new StringBuilder();
        private Map<Integer, Object> cells = new HashMap<>();
        private int line;
        private int column;
        private String type;
        private String style;
        private boolean reading;

        Cells(StylesTable styles, ReadOnlySharedStringsTable texts, boolean from1904, SheetRows rows) {
            this.styles = styles;
            this.texts = texts;
            this.from1904 = from1904;
            this.rows = rows;
        }

        @Override
        public void startElement(String space, String name, String qualified, Attributes given) {
            switch (name) {
                case "row" -> {
                    line = given.getValue("r") == null ? line + 1 : number(given.getValue("r"), "a row's number");
                    if (line < 1) {
                        throw new IllegalArgumentException("a row has the number " + line + ", and rows count from 1");
                    }
                    column = -1;
                    cells = new HashMap<>();
                }
                case "c" -> {
                    String reference = given.getValue("r");
                    column = reference == null ? column + 1 : new CellReference(reference).getCol();
                    type = given.getValue("t") == null ? "n" : given.getValue("t");
                    style = given.getValue("s");
                    value.setLength(0);
                }
                case "v", "t" -> reading = true;
                case "mergeCell" -> {
                    CellRangeAddress block = block(given.getValue("ref"));
                    rows.merge(block.getFirstRow(), block.getLastRow(), block.getFirstColumn(), block.getLastColumn());
                }
                case "rPh" -> reading = false; // how a text is spoken is no part of it
                default -> {
                    // nothing that a table is made of
                }
            }
        }

        @Override
        public void characters(char[] signs, int start, int length) {
            if (reading) {
                value.append(signs, start, length);
            }
        }

        @Override
        public void endElement(String space, String name, String qualified) {
            switch (name) {
                case "v", "t" -> reading = false;
                case "c" -> cell().ifPresent(cell -> cells.put(column, cell));
                case "row" -> rows.add(line, 1, cells);
                default -> {
                    // nothing that a table is made of
                }
            }
        }

        private Optional<Object> cell() {
            String written = value.toString();
            if (written.isBlank() || type.equals("e")) {
                return Optional.empty();
            }
            return switch (type) {
                case "s" -> text(shared(number(written, "the text of cell " + name())));
                case "str", "inlineStr" -> text(written);
                case "b" -> Optional.of(written.equals("1"));
                case "d" -> Optional.of(day(written));
                default -> Optional.of(isDate() ? date(figure(written)) : (Object) figure(written));
            };
        }

        /** Texts stand in a part of their own, by their number. */
        private String shared(int number) {
            try {
                return texts.getItemAt(number).getString();
            } catch (IllegalStateException | IndexOutOfBoundsException e) { // its own count of them may be wrong
                throw new IllegalArgumentException("cell " + name() + " refers to a text that is not there", e);
            }
        }

        private static CellRangeAddress block(String reference) {
            try {
                return CellRangeAddress.valueOf(reference);
            } catch (RuntimeException e) { // the library has no error of its own for it
                throw new IllegalArgumentException("merged cells are said to be '" + reference + "', which is no block of cells", e);
            }
        }

        private static int number(String written, String what) {
            if (!written.strip().matches("-?[0-9]{1,9}")) {
                throw new IllegalArgumentException(what + " is '" + written + "', which is no whole number");
            }
            return Integer.parseInt(written.strip());
        }

        private double figure(String written) {
            return Numbers.parse(written).orElseThrow(() -> new IllegalArgumentException("cell " + name() + " holds '" + written + "', which is no number"));
        }

        private LocalDate day(String written) {
            try {
                return LocalDate.parse(written.substring(0, Math.min(10, written.length())));
            } catch (DateTimeException e) {
                throw new IllegalArgumentException("cell " + name() + " is a date and holds '" + written + "', which is none", e);
            }
        }

        private LocalDate date(double days) {
            if (!DateUtil.isValidExcelDate(days)) {
                throw new IllegalArgumentException("cell " + name() + " is a date by its format and holds " + Numbers.shortest(days) + ", which is none");
            }
            return DateUtil.getLocalDateTime(days, from1904).toLocalDate();
        }

        private String name() {
            return CellReference.convertNumToColString(column) + line;
        }

        private static Optional<Object> text(String text) {
            return text.isBlank() ? Optional.empty() : Optional.of(text);
        }

        private boolean isDate() {
            if (style == null || styles == null) {
                return false;
            }
            XSSFCellStyle looks = styles.getStyleAt(number(style, "the looks of cell " + name()));
            return looks != null && DateUtil.isADateFormat(looks.getDataFormat(), looks.getDataFormatString());
        }
    }
}
