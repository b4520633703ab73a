package dev.trellisgorge.tables;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.table.Numbers;
import dev.trellisgorge.table.Table;
import java.io.IOException;
import java.io.InputStream;
import java.io.PushbackInputStream;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import javax.xml.parsers.ParserConfigurationException;
import org.apache.poi.ooxml.POIXMLException;
import org.apache.poi.openxml4j.exceptions.OpenXML4JException;
import org.apache.poi.openxml4j.opc.OPCPackage;
import org.apache.poi.openxml4j.opc.PackageRelationship;
import org.apache.poi.ss.usermodel.DateUtil;
import org.apache.poi.ss.util.CellAddress;
import org.apache.poi.ss.util.CellRangeAddress;
import org.apache.poi.ss.util.CellReference;
import org.apache.poi.util.XMLHelper;
import org.apache.poi.xssf.eventusermodel.ReadOnlySharedStringsTable;
import org.apache.poi.xssf.eventusermodel.XSSFReader;
import org.apache.poi.xssf.model.StylesTable;
import org.apache.poi.xssf.usermodel.XSSFCellStyle;
import org.apache.poi.xssf.usermodel.XSSFRelation;
import org.xml.sax.Attributes;
import org.xml.sax.InputSource;
import org.xml.sax.SAXException;
import org.xml.sax.XMLReader;
import org.xml.sax.helpers.DefaultHandler;

/**
 * Reads one sheet of a workbook ({@code .xlsx}), row by row. Formulas count by the results beside them, dates by their cells'
 * number format, times of day and durations too. Formulas without results are worked out; a cell with an error is missing, and reported.
 */
final class WorkbookTable {
    private WorkbookTable() {
    }

    static Table read(String name, InputFile source, Layout asked) {
        return WorkbookPackage.read(source, archive -> {
            XSSFReader reader = new XSSFReader(archive);
            Book book = book(reader); // first, as it tells damage in words of ours
            Layout layout = located(asked, book, reader, source.place());
            SheetRows rows = new SheetRows(source, layout);
            Cells cells = new Cells(reader.getStylesTable(), new SharedTexts(archive), book, rows);
            try (InputStream sheet = sheet(reader, layout.sheet(), source, rows)) {
                parse(sheet, cells);
            }
            cells.workOut(archive);
            if (book.hidden().contains(rows.sheet())) {
                rows.hiddenSheet();
            }
            return rows.table(name);
        });
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

    /**
     * What a workbook says of all of its sheets.
     *
     * @param from1904 whether dates count from 1904
     * @param hidden   the sheets that its readers don't see
     * @param ranges   that have names
     * @param stale    whether results of formulas are to be worked out anew, as programs say that have not worked them out
     */
    private record Book(boolean from1904, Set<String> hidden, NamedRanges ranges, boolean stale) {
    }

    private static boolean isTrue(String written) {
        return "1".equals(written) || "true".equals(written);
    }

    private static Layout located(Layout layout, Book book, XSSFReader reader, Place place) throws IOException, OpenXML4JException, SAXException {
        if (NamedRanges.isName(layout)) {
            XSSFReader.SheetIterator sheets = (XSSFReader.SheetIterator) reader.getSheetsData();
            while (sheets.hasNext()) {
                sheets.next().close();
                String sheet = sheets.getSheetName();
                for (PackageRelationship relation : sheets.getSheetPart().getRelationshipsByType(XSSFRelation.TABLE.getRelation())) {
                    try (InputStream list = sheets.getSheetPart().getRelatedPart(relation).getInputStream()) {
                        parse(list, new DefaultHandler() {
                            @Override
                            public void startElement(String space, String name, String qualified, Attributes given) {
                                if (name.equals("table") && given.getValue("ref") != null) {
                                    book.ranges().add(String.valueOf(given.getValue("displayName")), sheet, given.getValue("ref"));
                                }
                            }
                        });
                    }
                }
            }
        }
        return book.ranges().located(layout, place);
    }

    private static Book book(XSSFReader reader) throws IOException, OpenXML4JException, SAXException {
        boolean[] from1904 = {false};
        boolean[] stale = {false};
        Set<String> hidden = new LinkedHashSet<>();
        NamedRanges ranges = new NamedRanges();
        try (InputStream book = workbook(reader)) {
            parse(book, new DefaultHandler() {
                private final StringBuilder text = new StringBuilder();
                private String defined = "";

                @Override
                public void startElement(String space, String name, String qualified, Attributes given) {
                    text.setLength(0);
                    defined = name.equals("definedName") ? String.valueOf(given.getValue("name")) : "";
                    String stated = name.equals("workbookPr") ? given.getValue("date1904") : null;
                    from1904[0] |= isTrue(stated);
                    stale[0] |= name.equals("calcPr") && isTrue(given.getValue("fullCalcOnLoad"));
                    if (name.equals("sheet") && given.getValue("state") != null && !given.getValue("state").equals("visible")) {
                        hidden.add(given.getValue("name"));
                    }
                }

                @Override
                public void characters(char[] signs, int start, int length) {
                    text.append(signs, start, length);
                }

                @Override
                public void endElement(String space, String name, String qualified) {
                    if (name.equals("definedName")) {
                        ranges.add(defined, text.toString());
                    }
                }
            });
        }
        return new Book(from1904[0], hidden, ranges, stale[0]);
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
            super(archive, false); // how a text is spoken is no part of it
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
        return WorkbookPackage.read(source, archive -> {
            List<String> names = new ArrayList<>();
            XSSFReader reader = new XSSFReader(archive);
            book(reader); // tells damage in words of ours
            XSSFReader.SheetIterator sheets = (XSSFReader.SheetIterator) reader.getSheetsData();
            while (sheets.hasNext()) {
                sheets.next().close();
                names.add(sheets.getSheetName());
            }
            return names;
        });
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
        throw new BadInput(source.place(), ProblemKind.UNKNOWN_NAME, wanted.map(name -> "there is no sheet '" + name + "'. " + Nearest.hint(name, names)).orElse("has no sheet"));
    }

    /** Gathers the cells of each row (SpreadsheetML, ECMA-376 part 1, 18.3.1). */
    private static final class Cells extends DefaultHandler {
        private final StylesTable styles;
        private final ReadOnlySharedStringsTable texts;
        private final Book book;
        private final SheetRows rows;
        private final StringBuilder value = new StringBuilder();
        private Map<Integer, Object> cells = new HashMap<>();
        private int line;
        private int column;
        private String type;
        private String style;
        private boolean reading;
        private boolean spoken;
        private boolean formula;
        private boolean valued;
        /** Cells whose formula has no result. */
        private final Map<CellAddress, CellFormat> unworked = new LinkedHashMap<>();
        private final Map<String, CellFormat> formats = new HashMap<>();

        Cells(StylesTable styles, ReadOnlySharedStringsTable texts, Book book, SheetRows rows) {
            this.styles = styles;
            this.texts = texts;
            this.book = book;
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
                    if (isTrue(given.getValue("hidden"))) {
                        rows.hide(line, 1);
                    }
                }
                case "c" -> {
                    String reference = given.getValue("r");
                    column = reference == null ? column + 1 : new CellReference(reference).getCol();
                    type = given.getValue("t") == null ? "n" : given.getValue("t");
                    style = given.getValue("s");
                    formula = false;
                    valued = false;
                    value.setLength(0);
                }
                case "f" -> formula = true;
                case "v" -> {
                    reading = true;
                    valued = true;
                }
                case "t" -> reading = !spoken;
                case "mergeCell" -> {
                    CellRangeAddress block = block(given.getValue("ref"));
                    rows.merge(block.getFirstRow(), block.getLastRow(), block.getFirstColumn(), block.getLastColumn());
                }
                case "rPh" -> spoken = true; // no part of the text
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
                case "rPh" -> spoken = false;
                case "c" -> cell().ifPresent(cell -> cells.put(column, cell));
                case "row" -> rows.add(line, 1, cells);
                default -> {
                    // nothing that a table is made of
                }
            }
        }

        private Optional<Object> cell() {
            String written = value.toString();
            if (written.isBlank() && formula && !(type.equals("str") && valued)) {
                unworked.put(new CellAddress(line - 1, column), format());
                return Optional.of(new SheetCell.Unreadable("a formula without a result"));
            } else if (written.isBlank()) {
                return Optional.empty();
            } else if (formula && book.stale()) {
                unworked.put(new CellAddress(line - 1, column), format());
            }
            return switch (type) {
                case "s" -> text(shared(number(written, "the text of cell " + name())));
                case "str", "inlineStr" -> text(written);
                case "b" -> Optional.of(written.equals("1"));
                case "d" -> Optional.of(moment(written));
                case "e" -> Optional.of(new SheetCell.Unreadable(written));
                default -> Optional.of(Kinds.isInexact(written.strip()) ? written.strip() : typed(figure(written), format()));
            };
        }

        /** Puts the results of formulas that have none in the file in their places. */
        void workOut(OPCPackage archive) throws IOException {
            if (!unworked.isEmpty()) {
                FormulaResults.of(archive, rows.sheet(), unworked.keySet()).forEach((at, result) -> {
                    line = at.getRow() + 1;
                    column = at.getColumn();
                    rows.workedOut(line, column, result instanceof Double figure ? typed(figure, unworked.get(at)) : result);
                });
            }
        }

        private Object typed(double figure, CellFormat format) {
            if (!format.unit().isEmpty()) {
                rows.notes().unit(line, column, format.unit());
            }
            return switch (format.kind()) {
                case NUMBER -> figure;
                case TIME -> new SheetCell.Time(figure);
                case DATE, DATE_AND_TIME -> figure >= 0 && figure < 1 && format.kind() == CellFormat.Kind.DATE_AND_TIME ? new SheetCell.Time(figure) : date(figure);
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

        private LocalDate moment(String written) {
            CellReader.hours(List.of(), written).stream().filter(hours -> hours > 0).forEach(hours -> rows.notes().time(line, column, hours));
            return day(written);
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
            if (days != Math.rint(days)) {
                rows.notes().time(line, column, Layout.TimeUnit.HOURS.of(days - Math.floor(days)));
            }
            return DateUtil.getLocalDateTime(days, book.from1904()).toLocalDate();
        }

        private String name() {
            return CellReference.convertNumToColString(column) + line;
        }

        private static Optional<Object> text(String text) {
            return text.isBlank() ? Optional.empty() : Optional.of(text);
        }

        private CellFormat format() {
            return style == null || styles == null ? CellFormat.GENERAL : formats.computeIfAbsent(style, each -> {
                XSSFCellStyle looks = styles.getStyleAt(number(each, "the looks of cell " + name()));
                String own = looks == null ? null : styles.getNumberFormatAt(looks.getDataFormat());
                return looks == null ? CellFormat.GENERAL : CellFormat.of(looks.getDataFormat(), own == null ? "" : own);
            });
        }

    }
}
