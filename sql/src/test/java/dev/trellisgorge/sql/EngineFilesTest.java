package dev.trellisgorge.sql;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.conformance.HardNames;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.FileHead;
import dev.trellisgorge.tables.Layout;
import dev.trellisgorge.tables.Login;
import dev.trellisgorge.tables.TableFile;
import dev.trellisgorge.test.Folder;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Files whose rows the embedded engine is given: held to the reader here, cell for cell, whoever reads them in the end. */
public class EngineFilesTest {
    private static final int ROWS = 3_000;
    private static final List<String> TEXTS = List.of("Fern Pool", "Mill \"Race\"", "Otter, Bend", "it's; --", " Weir ", "Überlauf", "水門 \uD83D\uDC1F", "\\u0041\\n", "{\"a\":[1]}", "null", "NaN", "'", "a/b\\c", "1e5");

    private Folder folder;

    @BeforeClass
    void makeFolder() {
        folder = new Folder();
    }

    @AfterClass
    void deleteFolder() {
        folder.close();
    }

    private static String json(String text) {
        return "\"" + text.replace("\\", "\\\\").replace("\"", "\\\"").replace("/", "\\/") + "\"";
    }

    private static String figure(Random random) {
        return switch (random.nextInt(6)) {
            case 0 -> String.valueOf(random.nextInt(1_000));
            case 1 -> String.valueOf(random.nextLong() >> 12);
            case 2 -> String.valueOf(random.nextGaussian() * 1e-200).replace("E", "e");
            case 3 -> Double.toString(Math.abs(Double.longBitsToDouble(random.nextLong() & 0x7fdfffffffffffffL)));
            case 4 -> random.nextInt(1_000_000) / 100.0 + "";
            default -> "123456789012345678901234567890." + random.nextInt(1_000);
        };
    }

    /** @param more columns that all rows have, whose names are hard */
    private static List<String> rows(List<String> more) {
        Random random = new Random(11);
        List<String> rows = new ArrayList<>();
        for (int row = 0; row < ROWS; row++) {
            List<String> cells = new ArrayList<>();
            cells.add("\"station\":" + (random.nextInt(9) == 0 ? random.nextBoolean() ? "null" : "\"\"" : json(TEXTS.get(random.nextInt(TEXTS.size())))));
            cells.add("\"day\":" + (random.nextInt(9) == 0 ? "null" : "\"20" + (10 + random.nextInt(80)) + "-02-" + (10 + random.nextInt(19)) + "\""));
            if (random.nextInt(5) > 0) {
                cells.add("\"mwh\":" + figure(random));
            }
            cells.add(random.nextInt(cells.size()), "\"open\":" + List.of("true", "false", "null").get(random.nextInt(3)));
            for (int i = 0; i < more.size(); i++) {
                cells.add(json(more.get(i)) + ":" + (row * 7 + i));
            }
            rows.add("{" + String.join(",", cells) + "}");
        }
        return rows;
    }

    /** Names of keys that a file with others in its place can have beside each other. */
    private static List<String> hardKeys() {
        List<String> keys = new ArrayList<>();
        HardNames.all().stream().filter(name -> !name.isBlank() && name.chars().noneMatch(character -> character < ' ') && keys.stream().noneMatch(name::equalsIgnoreCase)).limit(60).forEach(keys::add);
        return keys;
    }

    @DataProvider
    Object[][] files() {
        List<String> rows = rows(hardKeys());
        return new Object[][] {{"rows.ndjson", String.join("\n", rows)}, {"rows.json", rows.stream().collect(Collectors.joining(", ", "[", "]\n"))}};
    }

    private static Table read(Path file, Optional<Supplier<Table>> here) {
        FileHead head = FileHead.of(file, Layout.FOUND).orElseThrow();
        DatabaseTable table = new DatabaseTable("rows", new DatabaseTable.InFile(file, file.toString(), head, here), Optional.empty());
        try (Database database = Database.open(Login.to("jdbc:duckdb:"), Dialect.DUCKDB, List.of(table), Settings.NONE, false)) {
            return database.run(Pipeline.of("rows"));
        }
    }

    private static List<List<String>> cells(Table table) {
        return IntStream.range(0, table.rowCount()).mapToObj(row -> table.columns().stream().map(column -> cell(column, row)).toList()).toList();
    }

    private static String cell(Column column, int row) {
        return column.isPresent(row) ? column.kind() + " " + column.written(row) : "missing";
    }

    @Test(dataProvider = "files")
    public void jsonHasTheSameCellsWhoeverReadsIt(String name, String text) {
        Path file = folder.file(name, text);
        Table here = TableFile.read("rows", file);
        Table there = read(file, Optional.empty());
        assertThat(there.columnNames()).isEqualTo(here.columnNames());
        assertThat(cells(there)).isEqualTo(cells(here));
    }

    /** Rows that are no row to the engine, that it takes for something else, or that it would take as they are. */
    @DataProvider
    Object[][] odd() {
        return new Object[][] {{"{\"mwh\":\"1,5\"}"}, {"{\"station\":\"a\\tb\"}"}, {"{\"day\":\"2031-02-30\"}"}, {"{\"mwh\":-0}"}, {"{\"more\":1}"}, {"{\"station\":17}"}, {"{\"mwh\":9007199254740993}"}};
    }

    @Test(dataProvider = "odd")
    public void anOddRowIsReadHere(String row) {
        Path file = folder.file("odd.ndjson", String.join("\n", rows(List.of())) + "\n" + row + "\n");
        assertThatThrownBy(() -> read(file, Optional.empty())).isInstanceOf(ReadOtherwise.class);
        Table here = TableFile.read("rows", file);
        assertThat(cells(read(file, Optional.of(() -> here)))).isEqualTo(cells(here));
    }
}
