package dev.trellisgorge.tables;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.test.Folder;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** A thread that is interrupted reads no further, says so, and stays interrupted. */
public class InterruptTest {
    private static final int ROWS = 50_000;

    private Folder folder;

    @BeforeMethod
    public void make() {
        folder = new Folder();
    }

    @AfterMethod
    public void clean() {
        folder.close();
    }

    private Path file(String name) throws IOException {
        if (name.endsWith(".xlsx")) {
            Path file = folder.path(name);
            try (XSSFWorkbook book = new XSSFWorkbook(); OutputStream out = Files.newOutputStream(file)) {
                book.createSheet("Plant").createRow(0).createCell(0).setCellValue("station");
                book.getSheet("Plant").createRow(1).createCell(0).setCellValue("Weir");
                book.write(out);
            }
            return file;
        }
        String row = name.endsWith("json") ? "{\"station\": \"Weir %d\", \"mwh\": %d.5}" : name.startsWith("quoted") ? "\"Weir, %d\",%d.5" : "Weir %d,%d.5";
        String rows = IntStream.range(0, ROWS).mapToObj(i -> row.formatted(i % 7, i)).collect(Collectors.joining(name.equals("array.json") ? ",\n" : "\n"));
        return folder.file(name, name.equals("array.json") ? "[" + rows + "]" : name.endsWith("json") ? rows : "station,mwh\n" + rows + "\n");
    }

    @DataProvider
    Object[][] files() {
        return new Object[][] {{"plain.csv"}, {"quoted.csv"}, {"array.json"}, {"lines.ndjson"}, {"sheet.xlsx"}};
    }

    @Test(dataProvider = "files")
    public void interruptEndsAReading(String name) throws IOException {
        Path file = file(name);
        Thread.currentThread().interrupt();
        try {
            assertThatThrownBy(() -> TableFile.read("t", file)).isInstanceOf(BadInput.class).hasMessageContaining(name + ": the reading was interrupted");
            assertThat(Thread.currentThread().isInterrupted()).isTrue();
        } finally {
            Thread.interrupted();
        }
        assertThat(TableFile.read("t", file).rowCount()).isPositive();
    }
}
