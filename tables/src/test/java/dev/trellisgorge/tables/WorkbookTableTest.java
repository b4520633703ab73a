package dev.trellisgorge.tables;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.problem.BadInput;
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
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import java.util.zip.ZipOutputStream;
import org.apache.poi.ss.usermodel.Cell;
import org.apache.poi.ss.usermodel.CellStyle;
import org.apache.poi.ss.usermodel.Row;
import org.apache.poi.ss.usermodel.Sheet;
import org.apache.poi.ss.util.CellRangeAddress;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class WorkbookTableTest {
    private static final String CONTENT = """
            <?xml version="1.0" encoding="UTF-8"?>
            <office:document-content xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" \
            xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0" xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0">
            <office:body><office:spreadsheet>%s</office:spreadsheet></office:body></office:document-content>
            """;

    private Folder folder;

    @BeforeMethod
    void makeFolder() {
        folder = new Folder();
    }

    @AfterMethod
    void leave() {
        folder.close();
    }

    private static String written(Table table) {
        return table.columns().stream().map(column -> column.name() + ":" + column.kind().name().toLowerCase(Locale.ROOT) + "=" + cells(column))
                .collect(Collectors.joining(" "));
    }

    private static String cells(Column column) {
        return IntStream.range(0, column.size()).mapToObj(row -> column.isPresent(row) ? column.written(row) : ".").collect(Collectors.joining(","));
    }

    /** A title, an empty row, a header from the second column on, rows of each kind with gaps, and a note beside the table. */
    private Path workbook() {
        Path file = folder.path("network.xlsx");
        try (XSSFWorkbook book = new XSSFWorkbook(); OutputStream out = Files.newOutputStream(file)) {
            book.createSheet("Notes").createRow(0).createCell(0).setCellValue("none");
            Sheet sheet = book.createSheet("Stations");
            CellStyle date = book.createCellStyle();
            date.setDataFormat(book.createDataFormat().getFormat("yyyy-mm-dd"));
            sheet.createRow(0).createCell(1).setCellValue("The stations of the trust");
            sheet.addMergedRegion(new CellRangeAddress(0, 0, 1, 4));
            fill(sheet.createRow(2), "station", "since", "mwh", "open", "twice");
            fill(sheet.createRow(3), "Weir", LocalDate.of(2001, 2, 28), 520.5, true);
            fill(sheet.createRow(4), "Leat", null, null, false);
            fill(sheet.createRow(6), "12", LocalDate.of(1999, 12, 31), -3, null);
            for (int row : new int[] {3, 4, 6}) {
                sheet.getRow(row).getCell(2, Row.MissingCellPolicy.CREATE_NULL_AS_BLANK).setCellStyle(date);
                Cell formula = sheet.getRow(row).createCell(5);
                formula.setCellFormula("D" + (row + 1) + "*2");
            }
            sheet.getRow(3).getCell(5).setCellValue(1041);
            sheet.getRow(4).getCell(5).setCellErrorValue((byte) 42);
            sheet.getRow(6).getCell(5).setCellValue(-6);
            sheet.getRow(4).createCell(9).setCellValue("beside");
            book.write(out);
            return file;
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    private static void fill(Row row, Object... cells) {
        for (int i = 0; i < cells.length; i++) {
            if (cells[i] instanceof String text) {
                row.createCell(i + 1).setCellValue(text);
            } else if (cells[i] instanceof LocalDate day) {
                row.createCell(i + 1).setCellValue(day);
            } else if (cells[i] instanceof Boolean truth) {
                row.createCell(i + 1).setCellValue(truth);
            } else if (cells[i] instanceof Number number) {
                row.createCell(i + 1).setCellValue(number.doubleValue());
            }
        }
    }

    private static final String STATIONS = "station:text=Weir,Leat,12 since:date=2001-02-28,.,1999-12-31 mwh:number=520.5,.,-3 open:truth=true,false,."
            + " twice:number=1041,.,-6";

    @Test
    public void sheetIsReadWithItsKindsTheResultsOfFormulasAndTheHeaderThatIsFound() {
        Path file = workbook();
        Table table = TableFile.read("t", file, Layout.FOUND.sheet("Stations"));
        assertThat(written(table)).isEqualTo(STATIONS);
        assertThat(table.rowPlace(2).toString()).isEqualTo(file + ":7");
        assertThat(written(TableFile.read("t", file, Layout.FOUND.sheet("Stations").headerRow(3)))).isEqualTo(STATIONS);
    }

    private Path archive(String name, Map<String, byte[]> entries) {
        Path file = folder.path(name);
        try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(file))) {
            for (Map.Entry<String, byte[]> entry : entries.entrySet()) {
                zip.putNextEntry(new ZipEntry(entry.getKey()));
                zip.write(entry.getValue());
            }
            return file;
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    private Path spreadsheet(String sheets) {
        return archive("a.ods", Map.of("content.xml", CONTENT.formatted(sheets).getBytes(StandardCharsets.UTF_8)));
    }

    private static String row(String... cells) {
        return "<table:table-row>" + String.join("", cells) + "</table:table-row>";
    }

    private static String text(String text) {
        return "<table:table-cell office:value-type=\"string\"><text:p>" + text + "</text:p></table:table-cell>";
    }

    private static String value(String type, String attribute, String value) {
        return "<table:table-cell office:value-type=\"" + type + "\" office:" + attribute + "=\"" + value + "\"><text:p>shown</text:p></table:table-cell>";
    }

    @Test
    public void openDocumentSheetIsReadWithRepeatedCellsAndWithoutWhatWasNotedOnThem() {
        String blank = "<table:table-cell/>";
        String noted = "<table:table-cell office:value-type=\"string\"><office:annotation><text:p>a note</text:p></office:annotation>"
                + "<text:p>We<text:s text:c=\"2\"/>ir</text:p></table:table-cell>";
        Path file = spreadsheet("<table:table table:name=\"Notes\">" + row(text("none")) + "</table:table><table:table table:name=\"Stations\">"
                + row(blank, text("Title")) + "<table:table-row table:number-rows-repeated=\"3\">" + blank + "</table:table-row>"
                + row(blank, text("station"), text("since"), text("mwh"), text("open"))
                + row(blank, noted, value("date", "date-value", "2001-02-28T10:00:00"), value("float", "value", "520.5"), value("boolean", "boolean-value", "true"))
                + row("<table:table-cell table:number-columns-repeated=\"1\"/>", text("Leat"), blank, value("percentage", "value", "0.5"), blank)
                + "<table:table-row table:number-rows-repeated=\"2\">" + blank + text("Same") + "</table:table-row>"
                + "<table:table-row table:number-rows-repeated=\"1048000\"><table:table-cell table:number-columns-repeated=\"16384\"/></table:table-row></table:table>");
        Table table = TableFile.read("t", file, Layout.FOUND.sheet("Stations"));
        assertThat(written(table)).isEqualTo("station:text=We  ir,Leat,Same,Same since:date=2001-02-28,.,.,. mwh:number=520.5,0.5,.,. open:truth=true,.,.,.");
        assertThat(table.rowPlace(3).toString()).isEqualTo(file + ":9");
    }

    @DataProvider
    Object[][] mistakes() {
        return new Object[][] {{"there is no sheet 'Statoins'. Did you mean 'Stations'?", Layout.FOUND.sheet("Statoins")},
            {"row 2 is empty, and the header is to stand there", Layout.FOUND.sheet("Stations").headerRow(2)},
            {"has a header and no row below it", Layout.FOUND.sheet("Notes")}, {"has a header and no row below it", Layout.FOUND.sheet("Stations").headerRow(7)}};
    }

    @Test(dataProvider = "mistakes")
    public void mistakeIsToldWithItsPlace(String message, Layout layout) {
        Path file = workbook();
        assertThatThrownBy(() -> TableFile.read("t", file, layout)).isInstanceOf(BadInput.class).hasMessage(file + ": " + message);
    }

    @Test
    public void whatIsNoWorkbookIsRefusedInASentence() throws IOException {
        for (String ending : new String[] {"xlsx", "ods"}) {
            Path file = Files.writeString(folder.path("a." + ending), "station,mwh\nWeir,1\n");
            assertThatThrownBy(() -> TableFile.read("t", file)).isInstanceOf(BadInput.class).hasMessageContaining("that can be read: ");
            assertThatThrownBy(() -> TableFile.read("t", folder.path("no." + ending))).hasMessageEndingWith("there is no such file");
        }
        Path empty = archive("b.ods", Map.of("mimetype", new byte[0]));
        assertThatThrownBy(() -> TableFile.read("t", empty)).hasMessageContaining("it has no content");
    }

    @Test
    public void entitiesFromElsewhereAreNotRead() throws IOException {
        Path secret = folder.file("secret.txt", "secret");
        String content = CONTENT.formatted("<table:table table:name=\"A\">" + row(text("a")) + row(text("&x;")) + "</table:table>")
                .replace("?>\n", "?>\n<!DOCTYPE x [<!ENTITY x SYSTEM \"" + secret.toUri() + "\">]>\n");
        Path file = archive("a.ods", Map.of("content.xml", content.getBytes(StandardCharsets.UTF_8)));
        assertThatThrownBy(() -> written(TableFile.read("t", file))).isInstanceOf(BadInput.class).hasMessageNotContaining("secret\n");
    }

    /** What a workbook is made of, by the names of its parts. */
    private static Map<String, byte[]> parts(Path workbook) throws IOException {
        Map<String, byte[]> parts = new LinkedHashMap<>();
        try (ZipFile zip = new ZipFile(workbook.toFile())) {
            for (ZipEntry entry : Collections.list(zip.entries())) {
                parts.put(entry.getName(), zip.getInputStream(entry).readAllBytes());
            }
        }
        return parts;
    }

    private Path changed(String part, UnaryOperator<String> change) throws IOException {
        Map<String, byte[]> parts = parts(workbook());
        parts.computeIfPresent(part, (name, bytes) -> change.apply(new String(bytes, StandardCharsets.UTF_8)).getBytes(StandardCharsets.UTF_8));
        return archive("changed.xlsx", parts);
    }

    @Test
    public void archiveThatUnpacksToFarMoreThanItHoldsIsRefused() throws IOException {
        Path bomb = changed("xl/worksheets/sheet1.xml", sheet -> sheet.replace("<sheetData>", "<sheetData>" + " ".repeat(20_000_000)));
        assertThat(Files.size(bomb)).isLessThan(100_000);
        assertThatThrownBy(() -> TableFile.read("t", bomb)).isInstanceOf(BadInput.class).hasMessageStartingWith(bomb + ": is no workbook that can be read: ");
    }

    @Test
    public void damagedWorkbookIsToldWithTheCell() throws IOException {
        Layout stations = Layout.FOUND.sheet("Stations");
        Path negative = changed("xl/worksheets/sheet2.xml", sheet -> sheet.replaceFirst("<v>3[0-9]{4}([.0-9]*)</v>", "<v>-5</v>"));
        assertThatThrownBy(() -> TableFile.read("t", negative, stations)).isInstanceOf(BadInput.class)
                .hasMessage(negative + ": is no workbook that can be read: cell C4 is a date by its format and holds -5, which is none");
        Path texts = changed("xl/sharedStrings.xml", strings -> strings.replaceAll("<si>.*</si>", ""));
        assertThatThrownBy(() -> TableFile.read("t", texts, stations)).isInstanceOf(BadInput.class)
                .hasMessage(texts + ": is no workbook that can be read: cell B1 refers to a text that is not there");
        Path torn = changed("xl/worksheets/sheet2.xml", sheet -> sheet.substring(0, sheet.length() / 2));
        assertThatThrownBy(() -> TableFile.read("t", torn, stations)).isInstanceOf(BadInput.class).hasMessageStartingWith(torn + ": is no workbook that can be read: ");
    }

    /** Flows of two months under one merged cell each, a title over all, and a second table to the right. */
    private Path merged() {
        Path file = folder.path("flows.xlsx");
        try (XSSFWorkbook book = new XSSFWorkbook(); OutputStream out = Files.newOutputStream(file)) {
            Sheet sheet = book.createSheet("Flows");
            sheet.createRow(0).createCell(1).setCellValue("Flow of the trust, in megalitres");
            sheet.addMergedRegion(new CellRangeAddress(0, 0, 1, 12));
            fill(sheet.createRow(2), "station", "in", null, "out", null, "remark");
            fill(sheet.createRow(3), null, "April", "May", "April", "May");
            fill(sheet.createRow(4), "Weir", 5, "1,006", 7, 8, "text");
            fill(sheet.createRow(5), "Leat", 1, "2", 3, "n/a", null);
            sheet.addMergedRegion(new CellRangeAddress(2, 2, 2, 3));
            sheet.addMergedRegion(new CellRangeAddress(2, 2, 4, 5));
            sheet.addMergedRegion(new CellRangeAddress(2, 3, 1, 1));
            sheet.addMergedRegion(new CellRangeAddress(2, 3, 6, 6));
            fill(sheet.createRow(8), "month", "goal", null);
            fill(sheet.createRow(9), "April", 5, 6);
            sheet.addMergedRegion(new CellRangeAddress(8, 8, 2, 3));
            book.write(out);
            return file;
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    @Test
    public void mergedHeaderCellsNameEachColumnThatTheySpan() {
        Path file = merged();
        Table table = TableFile.read("t", file, Layout.FOUND.range("B3:G6"));
        assertThat(written(table)).isEqualTo("station:text=Weir,Leat in April:number=5,1 in May:number=1006,2 out April:number=7,3 out May:number=8,. remark:text=text,.");
        assertThat(table.notes()).extracting(Object::toString).containsExactly("2 cells of 'in May' are not plainly written as numbers: '1,006' is read as 1006 (" + file
                + ", cell D5), '2' is read as 2 (" + file + ", cell D6)", "1 cell of 'out May' is not plainly written as a number: 'n/a' is read as missing (" + file + ", cell F6)");
        assertThat(written(TableFile.read("t", file, Layout.FOUND.range("B:D").headerRow(9)))).isEqualTo("month:text=April goal:number=5 goal 2:number=6");
        assertThat(written(TableFile.read("t", file, Layout.FOUND.range("$B$9:$C$10")))).isEqualTo("month:text=April goal:number=5");
        assertThat(TableFile.read("t", file).columnNames()).as("found").containsExactly("station", "in April", "in May", "out April", "out May", "remark");
    }

    @Test
    public void openDocumentMergesAreReadAlike() {
        String wide = "<table:table-cell office:value-type=\"string\" table:number-columns-spanned=\"2\"><text:p>flow</text:p></table:table-cell><table:covered-table-cell/>";
        Path file = spreadsheet("<table:table table:name=\"Flows\">" + row(text("station"), wide) + row("<table:table-cell/>", text("April"), text("May"))
                + row(text("Weir"), value("float", "value", "1"), value("float", "value", "2")) + "</table:table>");
        assertThat(written(TableFile.read("t", file))).isEqualTo("station:text=Weir flow April:number=1 flow May:number=2");
        assertThat(written(TableFile.read("t", file, Layout.FOUND.headerRows(1).range("B1:C3")))).isEqualTo("flow:text=April,1 flow 2:text=May,2");
    }

    @DataProvider
    Object[][] refused() {
        return new Object[][] {{Layout.FOUND.range("B3-G6"), "there is no range 'B3-G6'; write cells such as B3:F40, whole columns such as B:F, or a name that the workbook has. Known here: none."},
            {Layout.FOUND.range("X1:Z9"), "no cell stands in X1:Z9; a table starts with a header row"}, {Layout.FOUND.range("B3:G6").kinds(Map.of("remark", Kind.NUMBER)), "cell G5, column 'remark': 'text' is no number"},
            {Layout.FOUND.within(new Limits(10, 100, 100)), "row 5: the sheet has more cells than the 10 that are read"},
            {Layout.FOUND.within(new Limits(100, 2, 100)), "the header has more than 2 columns"}};
    }

    @Test(dataProvider = "refused")
    public void sheetThatIsNotAsTheLayoutSaysIsRefused(Layout layout, String message) {
        Path file = merged();
        assertThatThrownBy(() -> TableFile.read("t", file, layout)).isInstanceOf(BadInput.class).hasMessageStartingWith(file.toString()).hasMessageEndingWith(message);
    }

    @Test
    public void rowThatIsRepeatedWithoutEndIsRefused() {
        Path file = spreadsheet("<table:table table:name=\"A\">" + row(text("a")) + "<table:table-row table:number-rows-repeated=\"1000000000\">"
                + "<table:table-cell table:number-columns-repeated=\"16384\" office:value-type=\"float\" office:value=\"1\"/></table:table-row></table:table>");
        assertThatThrownBy(() -> TableFile.read("t", file)).isInstanceOf(BadInput.class).hasMessageContaining("more cells than the 100000000 that are read");
        Path odd = spreadsheet("<table:table table:name=\"A\">" + row(text("a")) + row(value("float", "value", "many")) + "</table:table>");
        assertThatThrownBy(() -> TableFile.read("t", odd)).isInstanceOf(BadInput.class).hasMessageEndingWith(", row 2: a cell holds 'many', which is no number");
    }

    @Test
    public void rowAtTheLastLineThatIsReadCountsAndOneBelowItDoesNot() {
        String sheet = "<table:table table:name=\"A\">" + row(text("a"), text("b")) + "<table:table-row table:number-rows-repeated=\"%d\"><table:table-cell/></table:table-row>"
                + row(text("x"), value("float", "value", "1")) + "</table:table>";
        int last = dev.trellisgorge.problem.Bound.SHEET_ROWS.count();
        assertThat(TableFile.read("t", spreadsheet(sheet.formatted(last - 2))).column("b").number(0)).isEqualTo(1);
        Path below = spreadsheet(sheet.formatted(last - 1));
        assertThatThrownBy(() -> TableFile.read("t", below)).isInstanceOf(BadInput.class).hasMessageEndingWith("row " + (last + 1) + ": lies below the " + last + " rows that are read");
    }

    @Test
    public void countsThatAreNoneAreRefusedAtTheirRow() {
        for (String count : new String[] {"0", "-5", "x", "1.5", "99999999999"}) {
            Path odd = spreadsheet("<table:table table:name=\"A\">" + row(text("a")) + "<table:table-row table:number-rows-repeated=\"" + count + "\">"
                    + text("b") + "</table:table-row></table:table>");
            assertThatThrownBy(() -> TableFile.read("t", odd)).isInstanceOf(BadInput.class)
                    .hasMessageEndingWith(", row 2: 'number-rows-repeated' is '" + count + "', and must be a whole number from 1 to 2147483647");
        }
    }
}
