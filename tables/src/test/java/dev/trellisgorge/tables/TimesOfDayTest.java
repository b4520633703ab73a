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
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.apache.poi.ss.usermodel.CellStyle;
import org.apache.poi.xssf.usermodel.XSSFSheet;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;
import org.testng.annotations.AfterClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Dates with a time of day, in each kind of file. */
public class TimesOfDayTest {
    private static final Layout HOURS = Layout.FOUND.timesOfDay(Map.of("seen", "hour"));

    private final Folder folder = new Folder();

    @AfterClass
    void leave() {
        folder.close();
    }

    private Path workbook() {
        Path file = folder.path("seen.xlsx");
        try (XSSFWorkbook book = new XSSFWorkbook(); OutputStream out = Files.newOutputStream(file)) {
            XSSFSheet sheet = book.createSheet();
            CellStyle style = book.createCellStyle();
            style.setDataFormat(book.createDataFormat().getFormat("yyyy-mm-dd hh:mm"));
            sheet.createRow(0).createCell(0).setCellValue("seen");
            sheet.getRow(0).createCell(1).setCellValue("mwh");
            LocalDateTime[] moments = {LocalDateTime.of(2031, 3, 1, 7, 30), LocalDateTime.of(2031, 3, 2, 0, 0), null, LocalDateTime.of(2031, 3, 3, 23, 59, 24)};
            for (int i = 0; i < moments.length; i++) {
                sheet.createRow(i + 1).createCell(1).setCellValue(i + 1);
                if (moments[i] != null) {
                    sheet.getRow(i + 1).createCell(0).setCellValue(moments[i]);
                    sheet.getRow(i + 1).getCell(0).setCellStyle(style);
                }
            }
            book.write(out);
            return file;
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    @DataProvider
    Object[][] files() {
        return new Object[][] {
            {workbook()},
            {folder.file("seen.csv", "seen,mwh\n2031-03-01T07:30,1\n2031-03-02,2\n,3\n2031-03-03 23:59:24,4\n")},
            {folder.file("zoned.csv", "seen,mwh\n2031-03-01T07:30+02:00,1\n2031-03-02T00:00Z,2\n,3\n\"2031-03-03T23:59:24,000Z\",4\n")},
            {folder.file("seen.json", "[{\"seen\":\"2031-03-01T07:30\",\"mwh\":1},{\"seen\":\"2031-03-02\",\"mwh\":2},{\"seen\":null,\"mwh\":3},{\"seen\":\"2031-03-03T23:59:24Z\",\"mwh\":4}]")},
            {folder.file("local.csv", "seen,mwh\n01.03.2031 07:30:00,1\n02.03.2031 00:00:00,2\n,3\n03.03.2031 23:59:24,4\n")},
        };
    }

    @Test(dataProvider = "files")
    public void hoursAreAColumnOfTheirOwn(Path file) {
        Layout layout = file.toString().contains("local") ? HOURS.dates(DateTimeFormatter.ofPattern("dd.MM.yyyy HH:mm:ss", Locale.ENGLISH)) : HOURS;
        Table table = TableFile.read("t", file, layout);
        assertThat(table.columns()).extracting(Column::name).containsExactly("seen", "mwh", "hour");
        assertThat(IntStream.range(0, 4).mapToObj(row -> table.column("seen").written(row) + " " + table.column("hour").written(row)).collect(Collectors.joining(", ")))
                .isEqualTo("2031-03-01 7.5, 2031-03-02 0,  , 2031-03-03 23.99");
        assertThat(table.notes()).noneMatch(note -> note.sentence().contains("left out"));
    }

    @Test
    public void datesAloneAreAtMidnight() {
        Table table = TableFile.read("t", folder.file("plain.csv", "seen,mwh\n2031-03-01,1\n2031-03-02,2\n"), HOURS);
        assertThat(table.column("hour").toNumbers()).containsExactly(0, 0);
    }

    @Test
    public void mistakesNameTheColumn() {
        Path file = folder.file("wrong.csv", "seen,mwh\n2031-03-01,1\n");
        assertThatThrownBy(() -> TableFile.read("t", file, Layout.FOUND.timesOfDay(Map.of("sen", "hour")))).isInstanceOf(BadInput.class).hasMessageContaining("there is no column 'sen', whose time of day is asked for. Did you mean 'seen'?");
        assertThatThrownBy(() -> TableFile.read("t", file, Layout.FOUND.timesOfDay(Map.of("mwh", "hour")))).isInstanceOf(BadInput.class).hasMessageContaining("column 'mwh': holds a number a row, and times of day are those of dates");
        assertThatThrownBy(() -> TableFile.read("t", file, Layout.FOUND.timesOfDay(Map.of("seen", "mwh")))).isInstanceOf(BadInput.class).hasMessageContaining("there is a column 'mwh' already");
        assertThat(TableFile.read("t", folder.file("none.csv", "seen,mwh\n2031-03-01T25:00,1\n")).column("seen").written(0)).isEqualTo("2031-03-01T25:00");
    }

    @DataProvider
    Object[][] seconds() {
        return new Object[][] {{"station,mwh\nWeir,520\nLeat,100\n\nriver,level\nOtter,3\n", 5}, {"station,mwh\nWeir,520\nLeat,100\n,\n,\nriver,level\nOtter,3\n", 6}};
    }

    @Test(dataProvider = "seconds")
    public void anotherTableBelowIsToldBesideTheCellThatItBreaks(String text, int line) {
        Path file = folder.file("second.csv", text);
        assertThat(TableFile.read("t", file).notes()).anyMatch(note -> note.toString().contains("another table seems to begin below") && note.toString().endsWith("line " + line));
        assertThatThrownBy(() -> TableFile.read("t", file, Layout.FOUND.kinds(Map.of("mwh", Kind.NUMBER)))).hasMessageContaining(line + ", column 'mwh': 'level' is no number; another table seems to begin there");
        assertThat(TableFile.read("t", folder.file("one.csv", text.replace("river,level", "Otter,12").replace("\n\n", "\n"))).notes()).isEmpty();
    }
}
