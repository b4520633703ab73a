package dev.trellisgorge.tables;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.test.Folder;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class TableFileTest {
    private Folder folder;

    @BeforeMethod
    void makeFolder() {
        folder = new Folder();
    }

    @AfterMethod
    void leave() {
        folder.close();
    }

    private Path file(String name, String text, Charset charset) {
        try {
            return Files.write(folder.path(name), text.getBytes(charset));
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    private Table read(String name, String text) {
        return TableFile.read("t", file(name, text, StandardCharsets.UTF_8));
    }

    /** {@code station:text=Weir,.} for each column. */
    private static String written(Table table) {
        return table.columns().stream().map(column -> column.name() + ":" + column.kind().name().toLowerCase(Locale.ROOT) + "=" + cells(column))
                .collect(Collectors.joining(" "));
    }

    private static String cells(Column column) {
        return IntStream.range(0, column.size()).mapToObj(row -> column.isPresent(row) ? column.written(row) : ".").collect(Collectors.joining(","));
    }

    @DataProvider
    Object[][] texts() {
        String table = "station:text=Weir,Leat mwh:number=520,.";
        return new Object[][] {
            {"a.json", "[{\"station\": \"Weir\", \"mwh\": 520}, {\"station\": \"Leat\", \"mwh\": null}]", table},
            {"a.json", "[{\"station\": \"Weir\", \"mwh\": 520.0}, {\"station\": \"Leat\"}]", table},
            {"a.json", "{\"station\": [\"Weir\", \"Leat\"], \"mwh\": [520, null]}", table},
            {"a.ndjson", "{\"station\": \"Weir\", \"mwh\": 520}\n\n{\"station\": \"Leat\"}\n", table},
            {"a.jsonl", "{\"station\": \"Weir\"}\n{\"mwh\": 520, \"station\": \"Leat\"}", "station:text=Weir,Leat mwh:number=.,520"},
            {"a.json", "{\"station\": \"Weir\", \"mwh\": 520}", "station:text=Weir mwh:number=520"},
            {"a.json", "[{\"d\": \"2031-03-01\", \"t\": true, \"n\": -1.5e3}, {\"d\": null, \"t\": false, \"n\": 0.1}]",
                "d:date=2031-03-01,. t:truth=true,false n:number=-1500,0.1"},
            {"a.json", "[{\"a\": 1, \"b\": \"12\"}, {\"a\": \"n/a\", \"b\": \"x\"}]", "a:number=1,. b:text=12,x"},
            {"a.json", "[{\"a\": 1, \"b\": true}, {\"a\": \"1,200\", \"b\": 0}]", "a:number=1,1200 b:text=true,0"}, {"a.json", "[{\"a\": \"007\"}]", "a:text=007"},
            {"a.json", "{\"a\": [1.50, \"x\"], \"b\": [null, \"(5)\"]}", "a:text=1.50,x b:number=.,-5"}, {"a.csv", "a,b,,\n1,2,,\n", "a:number=1 b:number=2"},
            {"a.json", "[{\"a\": \"\\u00e9\\n\\\"\\ud83d\\udca7\"}]", "a:text=\u00e9\n\"\uD83D\uDCA7"},
            {"a.json", "[{\"a\": 12345678901234567890123456789}]", "a:text=12345678901234567890123456789"}, {"b.json", "[{\"a\": 12345678901234567000}]", "a:number=12345678901234567000"},
            {"a.json", "[{\"a\": null}]", "a:number=."}, {"a.json", "[{}, {\"a\": 1}]", "a:number=.,1"},
            {"a.csv", "a|b\n1|2\n", "a:number=1 b:number=2"}, {"a.txt", "a;b\r\n1;x\r\n", "a:number=1 b:text=x"},
            {"a.csv", "a,b\n\"x\ny\",\"say \"\"so\"\"\"\n", "a:text=x\ny b:text=say \"so\""}, {"a.csv", "a,b\n1,\n", "a:number=1 b:number=."},
            {"a.csv", "a,b\r1,2\r3,4\r", "a:number=1,3 b:number=2,4"}, {"a.csv", "a,b\n1,2\r\n3,4\r5,6", "a:number=1,3,5 b:number=2,4,6"},
            {"a.csv", "a\n" + "x".repeat(100_000) + "\n", "a:text=" + "x".repeat(100_000)}};
    }

    @Test(dataProvider = "texts")
    public void fileIsReadAsItsEndingSays(String name, String text, String expected) {
        assertThat(written(read(name, text))).isEqualTo(expected);
    }

    @DataProvider
    Object[][] mistakes() {
        return new Object[][] {
            {"", ": is empty; a table is an array of objects"}, {"[]", ": has no row"}, {"{}", ": has no row"}, {"12", ":1:1: a table is an array of objects"},
            {"[1]", ":1:2: an item of the array must be an object, a row"}, {"[{\"a\": 1}\n{", ":2:"}, {"[{\"a\": 1", "is no JSON: "},
            {"[\n {\"a\": {\"b\": 1}, \"a.b\": 2}]", ":2:25: the column 'a.b' stands in this row a second time"},
            {"[\n {\"a\": {\"b\": [1]}}]", ":2:14: 'a.b' holds an array, and a cell holds one value; take it apart first"},
            {"[{\"a\": [1]}]", "'a' holds an array"}, {"[{\"a\": 1,\n\"a\": 2}]", ":2:4: the key 'a' stands here a second time"},
            {"{\"a\": [1, 2], \"b\": [1]}", "'b' has 1 cell, and 'a' 2"}, {"{\"a\": [1], \"b\": 2}", "'b' must be an array, a column, as 'a' is"},
            {"[{\"a\": 1}] []", "something stands after the end of the table"}, {"{\"a\": 1}\n2", ":2:1: a line must be an object, a row"},
            {"[{\"a\": NaN}]", "is no JSON: "}, {"[{\"a\": 'x'}]", "is no JSON: "}, {"{\"a\": [[1]]}", "'a' holds an array"}};
    }

    @Test(dataProvider = "mistakes")
    public void mistakeInJsonIsToldWithLineAndColumn(String text, String message) {
        Path file = file("a.json", text, StandardCharsets.UTF_8);
        assertThatThrownBy(() -> TableFile.read("t", file)).isInstanceOf(BadInput.class).hasMessageStartingWith(file.toString()).hasMessageContaining(message);
    }

    @Test
    public void nestingWithoutEndIsRefusedAtOnce() {
        Path file = file("a.json", "[".repeat(100_000), StandardCharsets.UTF_8);
        assertThatThrownBy(() -> TableFile.read("t", file)).isInstanceOf(BadInput.class);
        Path deep = file("b.json", "[{\"a\":" + "[".repeat(100_000), StandardCharsets.UTF_8);
        assertThatThrownBy(() -> TableFile.read("t", deep)).isInstanceOf(BadInput.class).hasMessageContaining("'a' holds an array");
    }

    @Test
    public void layoutSaysWhatCantBeFound() {
        assertThat(written(TableFile.read("t", folder.file("said.csv", "sep=,\na;b\n1;2\n"), Layout.FOUND.delimiter(';')))).isEqualTo("a:number=1 b:number=2");
        Path titled = file("a.csv", "Generation, made by hand\n\nstation;mwh\nWeir;520\n", StandardCharsets.UTF_8);
        Table below = TableFile.read("t", titled, Layout.FOUND.headerRow(3));
        assertThat(written(below)).isEqualTo("station:text=Weir mwh:number=520");
        assertThat(below.rowPlace(0).toString()).isEqualTo(titled + ":4");
        Path odd = file("b.csv", "a:b\n1:2\n", StandardCharsets.UTF_8);
        assertThat(written(TableFile.read("t", odd, Layout.FOUND.delimiter(':')))).isEqualTo("a:number=1 b:number=2");
        Path latin = file("c.csv", "na\u00efve,b\n\u00e9,1\n", StandardCharsets.ISO_8859_1);
        assertThat(written(TableFile.read("t", latin, Layout.FOUND.charset(StandardCharsets.ISO_8859_1)))).isEqualTo("na\u00efve:text=\u00e9 b:number=1");
        assertThatThrownBy(() -> TableFile.read("t", latin)).hasMessageContaining("has bytes that are no text in UTF-8");
    }

    @DataProvider
    Object[][] marked() {
        return new Object[][] {{StandardCharsets.UTF_8}, {StandardCharsets.UTF_16LE}, {StandardCharsets.UTF_16BE}};
    }

    @Test(dataProvider = "marked")
    public void byteOrderMarkSaysTheCharset(Charset charset) {
        assertThat(written(TableFile.read("t", file("a.csv", "\uFEFFstation,b\n\u6C34,1\n", charset)))).isEqualTo("station:text=\u6C34 b:number=1");
    }

    @Test
    public void standardInputIsReadAsWhatItIs() {
        assertThat(written(TableFile.read("t", stream("a,b\n1,2\n"), Layout.FOUND, Progress.NONE))).isEqualTo("a:number=1 b:number=2");
        assertThat(written(TableFile.read("t", stream(" \n[{\"a\": 1}]"), Layout.FOUND, Progress.NONE))).isEqualTo("a:number=1");
        assertThatThrownBy(() -> TableFile.read("t", stream("a,b\n1\n"), Layout.FOUND, Progress.NONE)).hasMessage("standard input:2: the row has 1 cell, the header has 2");
    }

    private static ByteArrayInputStream stream(String text) {
        return new ByteArrayInputStream(text.getBytes(StandardCharsets.UTF_8));
    }

    @DataProvider
    Object[][] tooMuch() {
        Limits few = new Limits(6, 3, 5);
        return new Object[][] {
            {few, "a.csv", "a,b\n1,2\n3,4\n5,6\n7,8\n", "a.csv:5: the file has more cells than the 6 that are read"},
            {few, "a.csv", "a,b,c,d\n1,2,3,4\n", "a.csv:1: a row has more than the 3 cells that are read"},
            {few, "a.csv", "a,b\n1,2\nlonger,2\n", "a.csv:3: a cell has more than the 5 characters that are read"},
            {few, "a.json", "[{\"a\": 1, \"b\": 2, \"c\": 3, \"d\": 4}]", "'d' is a column more than the 3 that are read"},
            {few, "a.json", "{\"a\": [1, 2, 3, 4, 5, 6, 7, 8]}", "the file has more cells than the 6 that are read"},
            {few, "a.json", "[{\"a\": \"" + "x".repeat(5000) + "\"}]", "the limit of the reader"},
            {Limits.STANDARD, "a.csv", "a\n" + "x".repeat(1_100_000) + "\n", "a.csv:2: a cell has more than the 1000000 characters that are read"}};
    }

    @Test(dataProvider = "tooMuch")
    public void fileThatHoldsMoreThanTheLimitsIsRefused(Limits limits, String name, String text, String message) {
        Path file = file(name, text, StandardCharsets.UTF_8);
        assertThatThrownBy(() -> TableFile.read("t", file, Layout.FOUND.within(limits))).isInstanceOf(BadInput.class).hasMessageContaining(message);
    }

    @DataProvider
    Object[][] longFiles() {
        return new Object[][] {{"long.csv", "station,mwh\n" + "Weir,520.25\n".repeat(400_000)}, {"long.ndjson", "{\"station\": \"Weir\", \"mwh\": 5.25}\n".repeat(150_000)}};
    }

    @Test(dataProvider = "longFiles")
    public void longReadingTellsHowFarItIs(String name, String text) {
        List<Double> shares = new ArrayList<>();
        Path file = folder.file(name, text);
        TableFile.read("t", file, Layout.FOUND, (shown, share) -> {
            assertThat(shown).isEqualTo(file.toString());
            shares.add(share);
        });
        assertThat(shares).hasSizeGreaterThan(3).isSorted().allMatch(share -> share > 0 && share <= 1);
        assertThat(shares.get(shares.size() - 1)).isGreaterThan(0.7);
    }
}
