package dev.trellisgorge.tables;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Bound;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.test.Folder;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import java.util.zip.ZipOutputStream;
import org.apache.poi.hssf.usermodel.HSSFWorkbook;
import org.apache.poi.poifs.crypt.EncryptionInfo;
import org.apache.poi.poifs.crypt.EncryptionMode;
import org.apache.poi.poifs.crypt.Encryptor;
import org.apache.poi.poifs.filesystem.POIFSFileSystem;
import org.apache.poi.ss.usermodel.Cell;
import org.apache.poi.ss.usermodel.CellStyle;
import org.apache.poi.ss.usermodel.Row;
import org.apache.poi.ss.usermodel.SheetVisibility;
import org.apache.poi.ss.usermodel.Workbook;
import org.apache.poi.ss.util.AreaReference;
import org.apache.poi.xssf.usermodel.XSSFSheet;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What a sheet says besides its plain cells: each is read as what it is, told, or refused. */
public class SheetReadingTest {
    private Folder folder;

    @BeforeMethod
    void makeFolder() {
        folder = new Folder();
    }

    @AfterMethod
    void leave() {
        folder.close();
    }

    private Path file(String name, Consumer<XSSFWorkbook> fill) {
        try (XSSFWorkbook book = new XSSFWorkbook(); OutputStream out = Files.newOutputStream(folder.path(name))) {
            fill.accept(book);
            book.write(out);
            return folder.path(name);
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    /** A row of cells; a text that begins with = is a formula, and a pair is a cell with its number format. */
    private static Row row(XSSFSheet sheet, int at, Object... cells) {
        Row row = sheet.createRow(at);
        for (int i = 0; i < cells.length; i++) {
            Cell cell = row.createCell(i);
            Object value = cells[i] instanceof Map.Entry<?, ?> formatted ? formatted.getKey() : cells[i];
            if (cells[i] instanceof Map.Entry<?, ?> formatted) {
                Workbook book = sheet.getWorkbook();
                CellStyle style = book.createCellStyle();
                style.setDataFormat(formatted.getValue() instanceof Integer number ? number.shortValue() : book.createDataFormat().getFormat((String) formatted.getValue()));
                cell.setCellStyle(style);
            }
            if (value instanceof String text && text.startsWith("=")) {
                cell.setCellFormula(text.substring(1));
            } else if (value instanceof String text) {
                cell.setCellValue(text);
            } else if (value instanceof Double number) {
                cell.setCellValue(number);
            } else if (value instanceof LocalDate day) {
                cell.setCellValue(day);
            } else if (value instanceof LocalDateTime time) {
                cell.setCellValue(time);
            } else {
                row.removeCell(cell);
            }
        }
        return row;
    }

    private Path edited(Path file, String part, UnaryOperator<String> edit) throws IOException {
        Path edited = folder.path("edited " + file.getFileName());
        try (ZipFile from = new ZipFile(file.toFile()); ZipOutputStream to = new ZipOutputStream(Files.newOutputStream(edited))) {
            for (ZipEntry entry : from.stream().toList()) {
                byte[] bytes = from.getInputStream(entry).readAllBytes();
                to.putNextEntry(new ZipEntry(entry.getName()));
                to.write(entry.getName().equals(part) ? edit.apply(new String(bytes, StandardCharsets.UTF_8)).getBytes(StandardCharsets.UTF_8) : bytes);
            }
        }
        return edited;
    }

    private static String cells(Column column) {
        return column.kind().name().toLowerCase() + " " + IntStream.range(0, column.size()).mapToObj(row -> column.isPresent(row) ? column.written(row) : "·").collect(Collectors.joining(" "));
    }

    private static List<String> notes(Table table) {
        return table.notes().stream().map(Note::toString).toList();
    }

    @Test
    public void formulasWithoutResultsAreWorkedOutAndTold() throws IOException {
        Path file = file("program.xlsx", book -> {
            XSSFSheet sheet = book.createSheet("Plant");
            row(sheet, 0, "station", "mwh", "twice", "day", "odd");
            row(sheet, 1, "Weir", 5.0, "=B2*2", Map.entry("=DATE(2031,3,1)", "yyyy-mm-dd"), "=1/0");
            row(sheet, 2, "Leat", 7.0, "=SUM(C2,B3)", Map.entry("=D2+1", "yyyy-mm-dd"), "=NOSUCH(B2)");
        });
        Path bare = edited(file, "xl/worksheets/sheet1.xml", text -> text.replaceAll("(</f>)<v>[^<]*</v>", "$1"));
        Table table = TableFile.read("t", bare);
        assertThat(cells(table.column("twice"))).isEqualTo("number 10 17");
        assertThat(cells(table.column("day"))).isEqualTo("date 2031-03-01 2031-03-02");
        assertThat(cells(table.column("odd"))).isEqualTo("number · ·");
        assertThat(notes(table)).contains("formulas of 'twice' have no results in the file, or other ones, and were worked out here: C2, C3").anyMatch(note -> note.startsWith("cells of 'odd' can't be read, and are missing: #DIV/0! (E2)"));
    }

    @Test
    public void resultsThatAFileSaysAreStaleAreWorkedOut() {
        Path file = file("stale.xlsx", book -> {
            XSSFSheet sheet = book.createSheet("Plant");
            row(sheet, 0, "station", "mwh");
            row(sheet, 1, "Weir", "=2+3");
            row(sheet, 2, "Leat", 7.0);
            book.setForceFormulaRecalculation(true);
        });
        assertThat(cells(TableFile.read("t", file).column("mwh"))).isEqualTo("number 5 7");
    }

    @Test(groups = "nightly")
    public void asManyFormulasAsAreWorkedOutAreAndOneMoreIsMissing() throws IOException {
        Path file = file("many.xlsx", book -> row(book.createSheet("Plant"), 0, "mwh", "n"));
        for (int count = Bound.WORKED_OUT.count(); count <= Bound.WORKED_OUT.count() + 1; count++) {
            String rows = IntStream.range(2, count + 2).mapToObj(line -> "<row r=\"" + line + "\"><c r=\"A" + line + "\"><f>1+1</f></c><c r=\"B" + line + "\"><v>1</v></c></row>").collect(Collectors.joining());
            Table table = TableFile.read("t", edited(file, "xl/worksheets/sheet1.xml", text -> text.replace("</sheetData>", rows + "</sheetData>")));
            assertThat(table.column("mwh").isPresent(count - 1)).isEqualTo(count == Bound.WORKED_OUT.count());
            assertThat(notes(table)).anyMatch(note -> note.startsWith(table.column("mwh").isPresent(0) ? "formulas of 'mwh' have no results" : "cells of 'mwh' can't be read, and are missing: a formula without a result, of more than 100000"));
        }
    }

    @Test
    public void resultsThatTheFileCallsOldAndCantBeWorkedOutHereAreTold() throws IOException {
        Path file = edited(file("old.xlsx", book -> {
            row(book.createSheet("Plant"), 0, "station", "mwh");
            row(book.getSheet("Plant"), 1, "Weir", 5.0);
            book.setForceFormulaRecalculation(true);
        }), "xl/worksheets/sheet1.xml", text -> text.replaceAll("(<c r=\"B2\"[^>]*>)<v>", "$1<f>UNKNOWNFUNCTION(1)</f><v>"));
        Table table = TableFile.read("t", file);
        assertThat(table.column("mwh").number(0)).isEqualTo(5);
        assertThat(notes(table)).containsExactly("results of formulas of 'mwh' may be old: the file asks for them to be worked out anew, which can't be done here: B2");
    }

    @Test
    public void timesAreHoursAndDateTimesAreDays() {
        Path file = file("times.xlsx", book -> {
            XSSFSheet sheet = book.createSheet("Plant");
            row(sheet, 0, "station", "at", "for", "seen", "both");
            row(sheet, 1, "Weir", Map.entry(8.5 / 24, "h:mm"), Map.entry(26.0 / 24, "[h]:mm:ss"), Map.entry(LocalDateTime.of(2031, 3, 1, 8, 30), "yyyy-mm-dd hh:mm"), Map.entry(0.5, 20));
            row(sheet, 2, "Leat", Map.entry(0.0, "h:mm AM/PM"), Map.entry(0.25, 46), Map.entry(LocalDateTime.of(2031, 3, 2, 0, 0), 22), 4.0);
        });
        Table table = TableFile.read("t", file);
        assertThat(cells(table.column("at"))).isEqualTo("number 8.5 0");
        assertThat(cells(table.column("for"))).isEqualTo("number 26 6");
        assertThat(cells(table.column("seen"))).isEqualTo("date 2031-03-01 2031-03-02");
        assertThat(cells(table.column("both"))).as("times among others are as they are shown").isEqualTo("text 12:00 4");
        assertThat(notes(table)).contains("times of 'at' are read as hours; kinds: {at: days} has them as days", "dates of 'seen' have a time of day, which is left out; 'times-of-day' has it as hours: D2");
        assertThat(cells(TableFile.read("t", file, Layout.FOUND.kinds(Map.of("at", Kind.NUMBER)).times(Map.of("at", Layout.TimeUnit.DAYS))).column("at"))).startsWith("number 0.354166");
    }

    @DataProvider
    Object[][] formats() {
        return new Object[][] {{31, "", CellFormat.Kind.DATE, ""}, {57, "", CellFormat.Kind.DATE, ""}, {14, "", CellFormat.Kind.DATE, ""}, {20, "", CellFormat.Kind.TIME, ""}, {22, "", CellFormat.Kind.DATE_AND_TIME, ""}, {2, "", CellFormat.Kind.NUMBER, ""},
            {164, "[$-411]ggge\"\u5e74\"m\"\u6708\"d\"\u65e5\"", CellFormat.Kind.DATE, ""}, {164, "[$-1070000]d/mm/yyyy;@", CellFormat.Kind.DATE, ""}, {164, "[$-D07041E]d mmm bbbb", CellFormat.Kind.DATE, ""}, {164, "0.00E+00", CellFormat.Kind.NUMBER, ""},
            {164, "General", CellFormat.Kind.NUMBER, ""}, {164, "#,##0 \"hours\"", CellFormat.Kind.NUMBER, "hours"}, {164, "0%", CellFormat.Kind.NUMBER, "%"}, {164, "0\"%\"", CellFormat.Kind.NUMBER, "\"%\""}, {164, "[$\u20ac-407]#,##0", CellFormat.Kind.NUMBER, "\u20ac"},
            {164, "$#,##0;[Red]-$#,##0", CellFormat.Kind.NUMBER, "$"}, {164, "[h]:mm", CellFormat.Kind.TIME, ""}, {164, "mm:ss", CellFormat.Kind.TIME, ""}, {164, "mmm yy", CellFormat.Kind.DATE, ""}, {164, "0;-0;;@", CellFormat.Kind.NUMBER, ""},
            {164, "\\d0", CellFormat.Kind.NUMBER, "d"}, {164, "_-* #,##0.00_-", CellFormat.Kind.NUMBER, ""}};
    }

    @Test(dataProvider = "formats")
    public void formatSaysWhatANumberIs(int number, String code, CellFormat.Kind kind, String unit) {
        assertThat(CellFormat.of(number, code)).isEqualTo(new CellFormat(kind, unit));
    }

    @Test
    public void whatTheTableDoesNotShowIsTold() {
        Path file = file("more.xlsx", book -> {
            XSSFSheet sheet = book.createSheet("Plant");
            row(sheet, 0, "station", "cost", null, "other", "figures");
            row(sheet, 1, "Weir", Map.entry(5.0, "$0"), null, "a", 1.0);
            row(sheet, 2, "Leat", Map.entry(7.0, "[$\u20ac-407]0"), null, "b", 2.0).setZeroHeight(true);
            row(sheet, 3, "Pool", 9.0);
            row(sheet, 5, "line", "note");
            row(sheet, 6, "North", "fine");
            book.setSheetVisibility(book.getSheetIndex(sheet), SheetVisibility.HIDDEN);
            book.createSheet("Empty");
            book.setActiveSheet(1);
        });
        assertThat(notes(TableFile.read("t", file))).contains("figures of 'cost' are of several units, and are counted as if they were of one: $ (B2), \u20ac (B3)", "the sheet 'Plant' is hidden, and is read all the same",
                "1 of the rows are hidden or filtered out on the sheet, and are read all the same; 'rows: visible' takes the others alone: row 3",
                "another table seems to begin below, and its rows are read as rows of this one; 'range' says which cells of a sheet are meant: row 6", "another table stands beside this one, and is passed over; 'range' has it read: D1:E7");
        assertThat(cells(TableFile.read("t", file, Layout.FOUND.range("A1:B4").rows(Layout.Rows.VISIBLE)).column("station"))).isEqualTo("text Weir Pool");
    }

    @Test
    public void rangeMayBeANameOrAListObject() {
        Path file = file("named.xlsx", book -> {
            book.createSheet("First");
            XSSFSheet sheet = book.createSheet("The figures");
            row(sheet, 1, null, "station", "mwh");
            row(sheet, 2, null, "Weir", 5.0);
            row(sheet, 3, null, "Leat", 7.0);
            row(sheet, 8, "note", 3.0);
            sheet.createTable(new AreaReference("B2:C4", book.getSpreadsheetVersion())).setDisplayName("Listed");
            var name = book.createName();
            name.setNameName("Named");
            name.setRefersToFormula("'The figures'!$B$2:$C$3");
            var constant = book.createName();
            constant.setNameName("Rate");
            constant.setRefersToFormula("0.5");
        });
        assertThat(cells(TableFile.read("t", file, Layout.FOUND.range("listed")).column("mwh"))).isEqualTo("number 5 7");
        assertThat(cells(TableFile.read("t", file, Layout.FOUND.range("Named")).column("mwh"))).isEqualTo("number 5");
        assertThatThrownBy(() -> TableFile.read("t", file, Layout.FOUND.range("Nameed"))).isInstanceOf(BadInput.class).hasMessageEndingWith("Did you mean 'Named'?");
        assertThatThrownBy(() -> TableFile.read("t", file, Layout.FOUND.range("Rate"))).isInstanceOf(BadInput.class).hasMessageEndingWith("the name 'Rate' stands for no range of cells on one sheet");
        assertThatThrownBy(() -> TableFile.read("t", file, Layout.FOUND.range("Named").sheet("First"))).isInstanceOf(BadInput.class).hasMessageEndingWith("the range 'Named' is on the sheet 'The figures', not on 'First'");
    }

    @Test
    public void howATextIsSpokenIsNoPartOfIt() throws IOException {
        Path file = file("spoken.xlsx", book -> {
            XSSFSheet sheet = book.createSheet("Plant");
            row(sheet, 0, "station", "mwh");
            row(sheet, 1, "\u6771\u4eac", 5.0);
        });
        Path spoken = edited(file, "xl/sharedStrings.xml", text -> text.replace("<t>\u6771\u4eac</t>", "<t>\u6771\u4eac</t><rPh sb=\"0\" eb=\"2\"><t>\u30c8\u30a6\u30ad\u30e7\u30a6</t></rPh><phoneticPr fontId=\"1\"/>"));
        assertThat(cells(TableFile.read("t", spoken).column("station"))).isEqualTo("text \u6771\u4eac");
        Path inline = edited(file, "xl/worksheets/sheet1.xml", text -> text.replaceAll("<c r=\"A2\"[^/]*?<v>\\d+</v></c>", "<c r=\"A2\" t=\"inlineStr\"><is><t>\u6771</t><rPh sb=\"0\" eb=\"1\"><t>\u30c8</t></rPh><t>\u4eac</t></is></c>"));
        assertThat(cells(TableFile.read("t", inline).column("station"))).isEqualTo("text \u6771\u4eac");
    }

    private Path locked() throws Exception {
        Path plain = file("plain.xlsx", book -> row(book.createSheet("S"), 0, "a", 1.0));
        EncryptionInfo info = new EncryptionInfo(EncryptionMode.agile);
        Encryptor encryptor = info.getEncryptor();
        encryptor.confirmPassword("weir");
        try (POIFSFileSystem container = new POIFSFileSystem(); OutputStream out = Files.newOutputStream(folder.path("locked.xlsx"))) {
            try (OutputStream to = encryptor.getDataStream(container)) {
                Files.copy(plain, to);
            }
            container.writeFilesystem(out);
        }
        return folder.path("locked.xlsx");
    }

    @Test
    public void whatIsNoWorkbookIsRefusedByWhatItIs() throws Exception {
        Path older = folder.path("older.xls");
        try (HSSFWorkbook book = new HSSFWorkbook(); OutputStream out = Files.newOutputStream(older)) {
            book.createSheet("S").createRow(0).createCell(0).setCellValue(1);
            book.write(out);
        }
        Path whole = file("whole.xlsx", book -> row(book.createSheet("S"), 0, "a", "b"));
        Path cut = Files.write(folder.path("cut.xlsx"), Arrays.copyOf(Files.readAllBytes(whole), (int) Files.size(whole) / 2));
        Path binary = edited(whole, "[Content_Types].xml", text -> text.replace("application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml", "application/sheet.binary.macroEnabled.main"));
        Path strict = edited(file("strict.xlsx", book -> row(book.createSheet("S"), 0, "a", "b")), "_rels/.rels", text -> text.replace("http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument", "http://purl.oclc.org/ooxml/officeDocument/relationships/officeDocument"));
        Map<Path, String> refused = Map.of(strict, "is a workbook of the strict kind (ISO/IEC 29500, part 1), which is not read; save it as an ordinary .xlsx", locked(), "is locked by a password; save it without one", older, "is a workbook of the older kind (.xls); save it as .xlsx", cut, "it is damaged, or a part of it is missing",
                folder.file("text.xlsx", "station,mwh\nWeir,5\n"), "it is not packed as one; is it a text under the ending of a workbook?", folder.file("empty.xlsx", ""), "it is empty", binary, "holds its sheets in binary (.xlsb); save it as .xlsx");
        refused.forEach((file, why) -> {
            assertThatThrownBy(() -> TableFile.read("t", file)).as(file.toString()).isInstanceOf(BadInput.class).hasMessageStartingWith(file.toString()).hasMessageEndingWith(why);
            assertThatThrownBy(() -> TableFile.find("t", file, Progress.NONE)).as(file.toString()).isInstanceOf(BadInput.class).hasMessageEndingWith(why);
        });
        Path template = Files.copy(file("template.xlsx", book -> {
            row(book.createSheet("S"), 0, "a", "b");
            row(book.getSheetAt(0), 1, "x", 1.0);
        }), folder.path("template.xltx"));
        assertThat(cells(TableFile.read("t", template).column("b"))).isEqualTo("number 1");
    }

    @DataProvider
    Object[][] lastRows() {
        return new Object[][] {{"Summe", true}, {"\u0418\u0442\u043e\u0433\u043e:", true}, {"\u5408\u8a08", true}, {"Totaal", true}, {"Total g\u00e9n\u00e9ral", true}, {"", true}, {"Zeche", false}, {"Sumpf", false}, {"Allerheim", false}};
    }

    /** A real last row may be as large as all others together. */
    @Test(dataProvider = "lastRows")
    public void totalIsFoundByItsNameInOtherLanguagesAndNotByItsSumAlone(String name, boolean total) {
        String rows = "station,mwh,cost\nA,1,2\nB,2,4\nC,3,6\n" + name + ",6,12\n";
        Table told = TableFile.read("t", folder.file("a.csv", rows));
        assertThat(notes(told).stream().anyMatch(note -> note.startsWith("the last row is the sum of the rows above"))).isEqualTo(total);
        if (total) {
            assertThat(TableFile.read("t", folder.file("b.csv", rows + "Source: gauges,,\n"), Layout.FOUND.totalRow(Layout.TotalRow.DROP)).rowCount()).isEqualTo(3);
        }
    }

    @Test
    public void wholeNumbersThatNoDoubleIsAreCodes() {
        String[] keys = {"9007199254740993", "9007199254740992", "-9007199254740993", "5"};
        Path csv = folder.file("k.csv", "k,v\n" + Stream.of(keys).collect(Collectors.joining(",1\n")) + ",1\n");
        Path json = folder.file("k.json", Stream.of(keys).collect(Collectors.joining(", \"v\": 1}, {\"k\": ", "[{\"k\": ", ", \"v\": 1}]")));
        for (Path file : List.of(csv, json)) {
            assertThat(cells(TableFile.read("t", file).column("k"))).isEqualTo("text " + String.join(" ", keys));
            assertThat(notes(TableFile.read("t", file))).anyMatch(note -> note.startsWith("'k' is read as codes, as it holds whole numbers of more digits than a figure keeps"));
            assertThat(cells(TableFile.read("t", file, Layout.FOUND.kinds(Map.of("k", Kind.NUMBER))).column("k"))).isEqualTo("number 9007199254740992 9007199254740992 -9007199254740992 5");
        }
        assertThat(cells(TableFile.read("t", folder.file("e.csv", "k\n9007199254740994\n12345678901234567890123456789012345678901234567890.5\n")).column("k"))).startsWith("number 9007199254740994 1.2345");
    }
}
