package dev.trellisgorge.tables;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.problem.Note;
import dev.trellisgorge.table.Table;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** The same few sheets as programs of many makes write them, as workbooks and OpenDocument: each is the same table. */
public class WrittenBooksTest {
    private static final Path FOLDER = Path.of("src", "test", "resources", "written");
    private static final String PLANTS = "[station, day, mwh, note][[Fern Pool, 2031-01-31, 120.5, x], [Mill Race, 2031-02-28, -0.25, y], [Low Lock, 2032-02-29, 1000000, ö]";
    private static final String HOURS = "'at' are read as hours";
    /** What a sheet says, and what is told of it. */
    private static final Map<String, List<String>> SHEETS = Map.of("plain", List.of(PLANTS + "]", ""), "title", List.of(PLANTS + "]", ""), "total", List.of(PLANTS + ", [Total, -, 1000120.25, -]]", "the last row is the sum of the rows above"),
            "hidden", List.of(PLANTS + "]", "1 of the rows are hidden"), "formula", List.of("[station, a, b, sum][[Fern Pool, 1, 2, 5], [Mill Race, 3.5, 4, 11.5], [Low Lock, 0, -1, -2]]", ""),
            "error", List.of("[station, a, share][[Fern Pool, 1, 2], [Mill Race, 0, -], [Low Lock, 4, 0.5]]", "cells of 'share' can't be read, and are missing"), "times", List.of("[station, at, took][[Fern Pool, 8.5, 26], [Mill Race, 0, 6]]", HOURS),
            "percent", List.of("[station, share, meter][[Fern Pool, 0.12, 00123], [Mill Race, 0.5, 00456]]", ""), "merged", List.of("[station, mwh 2030, mwh 2031][[Fern Pool, 1, 2], [Mill Race, 3, 4]]", ""));

    @DataProvider
    Object[][] files() throws IOException {
        try (Stream<Path> files = Files.list(FOLDER)) {
            return files.sorted().map(file -> new Object[] {file}).toArray(Object[][]::new);
        }
    }

    @Test(dataProvider = "files")
    public void sheetIsTheSameWhoeverWroteIt(Path file) {
        List<String> expected = SHEETS.get(file.getFileName().toString().replaceAll("writer-\\d-|\\..*", ""));
        Table table = TableFile.read("t", file);
        assertThat(table.columnNames() + IntStream.range(0, table.rowCount()).mapToObj(row -> table.columns().stream().map(column -> column.isPresent(row) ? column.written(row) : "-").toList().toString()).toList().toString())
                .isEqualTo(expected.get(0));
        assertThat(table.notes().stream().map(Note::sentence).collect(Collectors.joining("\n"))).contains(expected.get(1));
    }

    @Test
    public void manyProgramsAreAmongThem() throws IOException {
        assertThat(files().length).isGreaterThanOrEqualTo(60);
    }
}
