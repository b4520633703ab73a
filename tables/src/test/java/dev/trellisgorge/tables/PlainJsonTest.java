package dev.trellisgorge.tables;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.test.Folder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** JSON files that an engine may read by itself, and those that it may not. */
public class PlainJsonTest {
    /** More than the first rows that are looked at. */
    private static final int ROWS = 2_500;

    private Folder folder;

    @BeforeClass
    void makeFolder() {
        folder = new Folder();
    }

    @AfterClass
    void deleteFolder() {
        folder.close();
    }

    private static String row(int number) {
        String station = List.of("\"Fern Pool\"", "\"Mill \\\"Race\\\"\"", "\"\\u00dcberlauf\"", "\"水門 \uD83D\uDC1F\"", "\"\"", "null").get(number % 6);
        String mwh = List.of("1.5", "-0.25", "1e3", "0", "null", "123456789.125").get(number / 6 % 6);
        return "{\"station\": " + station + ", \"day\": \"2031-02-" + String.format("%02d", 1 + number % 28) + "\", " + (number % 5 == 0 ? "" : "\"mwh\":" + mwh + ", ") + "\"open\": " + (number % 3 == 0) + "}";
    }

    private static String lines() {
        return IntStream.range(0, ROWS).mapToObj(row -> row(row) + "\n").collect(Collectors.joining());
    }

    private static String array(String... more) {
        return Stream.concat(IntStream.range(0, ROWS).mapToObj(PlainJsonTest::row), Stream.of(more)).collect(Collectors.joining(",\n  ", "[", "]"));
    }

    private boolean isPlain(String name, String text) {
        Path file = folder.file(name, text);
        return FileHead.of(file, Layout.FOUND).filter(head -> head.isOfAll(file)).isPresent();
    }

    @DataProvider
    Object[][] plain() {
        return new Object[][] {
            {"lines.ndjson", lines()}, {"unended.jsonl", lines().stripTrailing()}, {"array.json", array()}, {"lines.json", lines()},
            {"keys.ndjson", lines() + "{\"open\":true,\"mwh\":5,\"day\":null}\n{\"station\":\"Weir\"}\n"}, {"spread.json", array().replace(",", " ,\n\n ")},
        };
    }

    @Test(dataProvider = "plain")
    public void plainRowsMayBeReadByAnEngine(String name, String text) {
        assertThat(isPlain(name, text)).isTrue();
    }

    @DataProvider
    Object[][] odd() {
        return Stream.of("{\"mwh\":\"5\"}", "{\"mwh\":-0}", "{\"mwh\":-0.0}", "{\"mwh\":1e999}", "{\"mwh\":true}", "{\"station\":5}", "{\"station\":true}", "{\"station\":\" \"}", "{\"station\":\"a\\u0000b\"}", "{\"station\":\"a\\tb\"}",
                "{\"station\":\"a\\u0085b\"}", "{\"station\":\"\\ufeffa\"}", "{\"station\":\"\\ud83d\"}", "{\"station\":\"\\udc1f\\ud83d\"}", "{\"station\":\"" + "x".repeat(Limits.STANDARD.characters() + 1) + "\"}", "{\"day\":\"31.12.2031\"}",
                "{\"day\":\"2031-02-29\"}", "{\"day\":\"2031-13-01\"}", "{\"day\":\"2031-1-1\"}", "{\"day\":\"2031-02-0x\"}", "{\"day\":\"\"}", "{\"day\":\"n/a\"}", "{\"day\":20310101}", "{\"open\":\"true\"}", "{\"open\":1}", "{\"other\":1}", "{\"mwh\":1,\"mwh\":1}",
                "{\"mwh\":[1]}", "{\"mwh\":{\"a\":1}}", "[1]", "5", "{\"mwh\":1", "{\"mwh\":nan}", "{\"station\":\"Total\"}").map(row -> new Object[] {row}).toArray(Object[][]::new);
    }

    @Test(dataProvider = "odd")
    public void anOddRowIsReadWithCare(String row) {
        assertThat(isPlain("odd.ndjson", lines() + row + "\n")).isFalse();
        assertThat(isPlain("odd.json", array(row))).isFalse();
        if (!row.contains("Total")) {
            assertThat(isPlain("odd.ndjson", lines() + row + "\n" + row(1) + "\n")).isFalse();
        }
    }

    @DataProvider
    Object[][] files() {
        return new Object[][] {
            {"columns.json", "{\"station\": [\"Weir\"], \"mwh\": [5]}"}, {"two.ndjson", lines() + row(1) + row(2) + "\n"}, {"blank.ndjson", lines() + "\n" + row(1) + "\n"}, {"broken.ndjson", lines() + row(1).replace(",", ",\n") + "\n"},
            {"more.json", array() + "\n[]"}, {"started.json", " " + array()}, {"marked.json", "\uFEFF" + array()}, {"cases.ndjson", "{\"mwh\":1,\"MWh\":2}\n"}, {"bare.ndjson", "{\"mwh\":null,\"a\":1}\n"}, {"texts.ndjson", "{\"mwh\":\"5\"}\n"},
            {"nothing.json", "[]"}, {"empty.json", ""}, {"nameless.ndjson", "{\"\":1}\n"}, {"wide.json", new String(array().getBytes(StandardCharsets.UTF_16BE), StandardCharsets.ISO_8859_1)},
        };
    }

    @Test(dataProvider = "files")
    public void anOddFileIsReadWithCare(String name, String text) {
        assertThat(isPlain(name, text)).isFalse();
    }

    @Test
    public void aLastRowThatIsTheSumOfTheOthersIsReadWithCare() {
        String rows = IntStream.range(0, ROWS).mapToObj(row -> "{\"station\":\"Weir " + row % 9 + "\",\"mwh\":2}\n").collect(Collectors.joining());
        assertThat(isPlain("sums.ndjson", rows)).isTrue();
        assertThat(isPlain("sums.ndjson", rows + "{\"station\":\"\",\"mwh\":" + 2 * ROWS + "}\n")).isFalse();
    }
}
