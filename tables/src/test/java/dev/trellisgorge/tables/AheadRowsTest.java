package dev.trellisgorge.tables;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.test.Folder;
import dev.trellisgorge.test.TestSize;
import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Rows of plain files, some of which are read before anybody asks for them: all of them come, each once, however many are asked for at a time and by however many readers. */
public class AheadRowsTest {
    /** Of several parts. */
    private static final int ROWS = TestSize.of(70_000, 120_000);

    private Folder folder;

    @BeforeClass
    void makeFolder() {
        folder = new Folder();
    }

    @AfterClass
    void deleteFolder() {
        folder.close();
    }

    private static String station(int row) {
        return List.of("Weir", "exactly 15 long", "exactly 16 bytes", "Überlauf", "The Otter Bend by the old Mill Race", "")
                .get(row % 6) + (row % 6 == 5 ? "" : row % 3 == 0 ? "" : " " + row % 5_000);
    }

    private static String text(String... more) {
        String rows = IntStream.range(0, ROWS).mapToObj(row -> station(row) + ",2031-01-" + (10 + row % 20) + "," + row + ".5").collect(Collectors.joining("\n"));
        return "station,day,mwh\n" + rows + "\n" + String.join("\n", more);
    }

    private static String json(boolean lines) {
        return IntStream.range(0, ROWS).mapToObj(row -> "{\"station\":\"" + station(row) + "\",\"day\":\"2031-01-" + (10 + row % 20) + "\",\"mwh\":" + row + ".5}")
                .collect(Collectors.joining(lines ? "\n" : ",\n", lines ? "" : "[", lines ? "" : "]"));
    }

    @DataProvider
    Object[][] files() {
        return new Object[][] {{"rows.csv", text()}, {"rows.ndjson", json(true)}, {"rows.json", json(false)}};
    }

    /** Reads by turns. @return the rows by their numbers */
    private static Map<Long, String> all(PlainRows rows, FileHead head, int readers, int most) throws NotPlain {
        Map<Long, String> all = new TreeMap<>();
        List<RowReader> open = new ArrayList<>();
        IntStream.range(0, readers).forEach(i -> open.add(rows.reader()));
        Cells<byte[]> cells = Cells.ofBytes(head.fields(), column -> column != 1, most);
        while (!open.isEmpty()) {
            RowReader reader = open.remove(0);
            int count = reader.read(cells, most);
            for (int row = 0; row < count; row++) {
                byte[] station = cells.texts()[0][row];
                String shown = (station == null ? "" : new String(station, StandardCharsets.UTF_8)) + " " + cells.figures()[2][row];
                assertThat(all.put(reader.first() + row, shown)).isNull();
            }
            if (count > 0) {
                open.add(reader);
            }
        }
        return all;
    }

    @Test(dataProvider = "files")
    public void allRowsComeInTheirOrder(String name, String text) throws IOException, NotPlain {
        Path file = folder.file(name, text);
        FileHead head = FileHead.of(file, Layout.FOUND).orElseThrow();
        List<String> expected = IntStream.range(0, ROWS).mapToObj(row -> station(row) + " " + (row + 0.5)).toList();
        for (int most : Arrays.copyOf(new int[] {100, 5_000, 2_048}, TestSize.of(2, 3))) {
            try (PlainRows rows = head.rowsAhead(file, Progress.NONE)) {
                assertThat(rows.isWhole()).as("before").isFalse();
                assertThat(all(rows, head, name.equals("rows.json") ? 1 : 3, most).values()).containsExactlyElementsOf(expected);
                assertThat(rows.isWhole()).as("after").isTrue();
            }
        }
    }

    @Test(dataProvider = "files")
    public void whatNobodyAsksForIsLeft(String name, String text) throws IOException {
        Path file = folder.file(name, text);
        PlainRows rows = FileHead.of(file, Layout.FOUND).orElseThrow().rowsAhead(file, Progress.NONE);
        rows.close();
        assertThat(rows.isWhole()).isFalse();
    }

    /** A few thousand rows of which are more than there is room for. */
    @Test
    public void veryWideRowsComeToo() throws IOException, NotPlain {
        int columns = 3_000;
        String row = "{" + IntStream.range(0, columns).mapToObj(i -> "\"c" + i + "\":" + i).collect(Collectors.joining(",")) + "}";
        Path file = folder.file("wide.json", "[" + (row + ",\n").repeat(99) + row + "]");
        FileHead head = FileHead.of(file, Layout.FOUND).orElseThrow();
        try (PlainRows rows = head.rowsAhead(file, Progress.NONE)) {
            Cells<byte[]> cells = Cells.ofBytes(head.fields(), column -> column == columns - 1, 2_048);
            RowReader reader = rows.reader();
            assertThat(reader.read(cells, 2_048)).isEqualTo(100);
            assertThat(cells.figures()[columns - 1][99]).isEqualTo(columns - 1);
            assertThat(reader.read(cells, 2_048)).isZero();
        }
    }

    @Test
    public void aRowThatIsNotPlainIsFoundWhereverItStands() throws IOException {
        String odd = "Weir,2031-01-10,1_000";
        String[] lines = text().split("\n");
        for (int at : new int[] {3_000, ROWS / 2, ROWS}) {
            String[] some = Arrays.copyOf(lines, lines.length);
            some[at] = odd;
            Path file = folder.file("rows.csv", String.join("\n", some));
            FileHead head = FileHead.of(file, Layout.FOUND).orElseThrow();
            try (PlainRows rows = head.rowsAhead(file, Progress.NONE)) {
                assertThatThrownBy(() -> all(rows, head, 2, 2_048)).isInstanceOf(NotPlain.class);
                assertThat(rows.isWhole()).isFalse();
            }
        }
    }

    @Test
    public void aFileThatBecomesShorterMeanwhileIsAnError() throws IOException {
        Path file = folder.file("rows.csv", text());
        FileHead head = FileHead.of(file, Layout.FOUND).orElseThrow();
        try (PlainRows rows = head.rows(file, Progress.NONE)) {
            try (RandomAccessFile bytes = new RandomAccessFile(file.toFile(), "rw")) {
                bytes.setLength(bytes.length() / 2);
            }
            assertThatThrownBy(() -> all(rows, head, 2, 2_048)).isInstanceOf(BadInput.class).hasMessageContaining("rows.csv: can't read: it has become shorter");
        }
    }
}
