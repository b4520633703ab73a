package dev.trellisgorge.tables;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.test.Folder;
import dev.trellisgorge.test.TestSize;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.function.Supplier;
import java.util.stream.Stream;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Large files of text, which are read in parts side by side: held to the reader of any text, cell for cell and note for note. */
public class PlainTextTest {
    private static final int ROWS = TestSize.of(20_000, 30_000);
    private static final String HEADER = "station,day,mwh,remark";

    private Folder folder;

    @BeforeClass
    void makeFolder() {
        folder = new Folder();
    }

    @AfterClass
    void deleteFolder() {
        folder.close();
    }

    private static String row(Random random) {
        String station = List.of("Fern Pool", "\"Mill, Race\"", "\"The \"\"Otter\"\" Bend\"", "Überlauf", "水門", "", " Weir ", "\"\"").get(random.nextInt(8));
        String day = random.nextInt(9) == 0 ? "" : String.format("20%02d-%02d-%02d", random.nextInt(100), 1 + random.nextInt(12), 1 + random.nextInt(28));
        String figure = switch (random.nextInt(6)) {
            case 0 -> "";
            case 1 -> String.valueOf(random.nextInt(1000));
            case 2 -> "-" + random.nextInt(1000) + "." + random.nextInt(1_000_000);
            case 3 -> "\"" + random.nextInt(99) + ".25\"";
            case 4 -> (1 + Math.abs(random.nextLong() % 1_000_000_000_000L)) + "." + (100_000_000_000_000L + Math.abs(random.nextLong() % 800_000_000_000_000L));
            default -> "0." + (1_000_000 + random.nextInt(8_000_000));
        };
        return station + "," + day + "," + figure + ",\"no. " + random.nextInt(20_000) + " \uD83D\uDC1F\"";
    }

    private static String text(String ends, boolean ended) {
        Random random = new Random(7);
        StringBuilder text = new StringBuilder(HEADER);
        text.append(ends).append("Fern Pool,2031-01-01,1.5,a").append(ends).append("Mill Race,2031-01-02,2.5,b");
        for (int i = 0; i < ROWS; i++) {
            text.append(ends).append(row(random));
        }
        return text + (ended ? ends : "");
    }

    private Path file(String text) {
        return folder.file("large.csv", text);
    }

    /** What comes of reading a file: a table, or why there is none. */
    private record Outcome(Optional<Table> table, String refusal) {
        static Outcome of(Supplier<Table> reading) {
            try {
                return new Outcome(Optional.of(reading.get()), "");
            } catch (BadInput refused) {
                return new Outcome(Optional.empty(), refused.getMessage());
            }
        }
    }

    /** @return what comes of it either way */
    private static Outcome compare(Path file) {
        Outcome fast = Outcome.of(() -> TableFile.read("t", file));
        Outcome each = Outcome.of(() -> DelimitedText.read("t", file));
        assertThat(fast.refusal()).isEqualTo(each.refusal());
        each.table().ifPresent(table -> compare(fast.table().orElseThrow(), table));
        return each;
    }

    private static void compare(Table fast, Table each) {
        assertThat(fast.notes()).isEqualTo(each.notes());
        assertThat(fast.schema()).hasToString(each.schema().toString());
        assertThat(fast.rowCount()).isEqualTo(each.rowCount()).isPositive();
        for (Column column : each.columns()) {
            Column other = fast.column(column.name());
            for (int row = 0; row < column.size(); row++) {
                if (!column.written(row).equals(other.written(row)) || column.isPresent(row) != other.isPresent(row)) {
                    assertThat(other.written(row)).as("%s, row %d", column.name(), row).isEqualTo(column.written(row));
                }
            }
        }
        assertThat(fast.source().lines()).isEqualTo(each.source().lines());
    }

    @DataProvider
    Object[][] lineEnds() {
        return new Object[][] {{"\n", true}, {"\r\n", true}, {"\n", false}, {"\r\n", false}};
    }

    @Test(dataProvider = "lineEnds")
    public void plainFilesAreReadInPartsAndGiveTheSameCells(String ends, boolean ended) {
        Path file = file(text(ends, ended));
        assertThat(TextHead.of(file, Layout.FOUND)).hasValueSatisfying(head -> assertThat(head.isOfAll(file)).isTrue());
        compare(file);
    }

    /** Lines that are not plain, as each is read otherwise than it is written, is no row or is refused. */
    @DataProvider
    Object[][] odd() {
        List<String> lines = new ArrayList<>();
        Stream.of("007", "+5", "1e5", "1_000", "\"1,200\"", " 5", "5 ", "12.", ".5", "-", "5%", "(5)", "inf", "NaN", "n/a", "0x1F", "1234567890123456789", "\u22125", "5\u00A0", "- 5", "--5", "1.2.3").forEach(figure -> lines.add("Weir,2031-01-01," + figure + ",x"));
        Stream.of("31.12.2031", "2031-02-30", "2031-13-01", "2031-1-1", "2031-01-01T00:00", " 2031-01-01", "20310101", "0000-00-00").forEach(day -> lines.add("Weir," + day + ",5,x"));
        Stream.of("a\tb", "a\u0000b", "\u0085", " ", "\u00A0", "a\uFEFFb", "a\u2028b", "\"a\nb\"", "\"a\rb\"", "a\"b", "\"a\"b", "\u2003").forEach(text -> lines.add(text + ",2031-01-01,5,x"));
        lines.addAll(List.of("", "Weir,2031-01-01", "Weir,2031-01-01,5,x,y", "\"Weir,2031-01-01,5,x", "Total,,5,x", ",,,", "Weir,2031-01-01,5,x\r"));
        return lines.stream().map(line -> new Object[] {line}).toArray(Object[][]::new);
    }

    @Test(dataProvider = "odd")
    public void aLineThatIsNotPlainIsReadAsEver(String line) {
        String text = text("\n", true);
        for (String where : List.of(text + line + "\n", text + line + "\n" + "Weir,2031-01-01,5,x\n").subList(0, TestSize.of(1, 2))) {
            compare(file(where));
        }
    }

    /** So large that a thread reads several parts, the last one shorter than those before: nothing of them is read into its last figure. */
    @Test
    public void figureAtTheVeryEndIsItself() {
        StringBuilder text = new StringBuilder("station,mwh\n");
        for (int i = 0; i < TestSize.of(100_000, 400_000); i++) {
            text.append("Weir ").append(i % 10).append(",").append(1_000_000 + i).append(".5\n");
        }
        for (String last : List.of("7", "12.25", "-3", "")) {
            compare(file(text + "Fern Pool," + last));
        }
    }

    @Test
    public void bytesThatAreNoTextAreReadAsEver() throws IOException {
        Path file = Files.write(folder.path("large.csv"), text("\n", true).getBytes(StandardCharsets.ISO_8859_1));
        assertThat(compare(file).refusal()).isNotEmpty();
    }

    @Test
    public void aLastRowThatIsTheSumOfAllOthersIsTold() {
        StringBuilder text = new StringBuilder("station,mwh\n");
        for (int i = 0; i < TestSize.of(25_000, 100_000); i++) {
            text.append("Weir ").append(i % 10).append(",5.25\n");
        }
        Path file = file(text + "All,525000\n");
        assertThat(compare(file).table().orElseThrow().notes()).isNotEmpty();
    }
}
