package dev.trellisgorge.tables;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class DelimitedTextTest {
    private Path file;

    @BeforeMethod
    void makeFile() throws IOException {
        file = Files.createTempFile("gorge", ".csv");
    }

    @AfterMethod
    void deleteFile() throws IOException {
        Files.delete(file);
    }

    private Table read(String text) {
        try {
            Files.write(file, text.getBytes(StandardCharsets.UTF_8));
        } catch (IOException e) {
            throw new AssertionError(e);
        }
        return DelimitedText.read("t", file);
    }

    private static String rows(Table table) {
        return IntStream.range(0, table.rowCount()).mapToObj(row -> table.columns().stream()
                .map(column -> column.written(row)).collect(Collectors.joining("|"))).collect(Collectors.joining("/"));
    }

    @DataProvider
    Object[][] texts() {
        return new Object[][] {
            {"comma", "a,b\n1,2\n", "1|2"},
            {"semicolon", "a;b\n1;2\n", "1|2"},
            {"tab", "a\tb\n1\t2\n", "1|2"},
            {"semicolon with commas inside", "a;b\nx, y;2\nz, w;3", "x, y|2/z, w|3"},
            {"comma with a quoted semicolon", "a,b\n\"x;y;z\",2\n", "x;y;z|2"},
            {"one column", "a\n1\n2\n", "1/2"},
            {"byte-order mark", "\uFEFFa,b\n1,2\n", "1|2"},
            {"byte-order mark before a quote", "\uFEFF\"a\",b\n1,2\n", "1|2"},
            {"a first line that says the delimiter", "sep=;\r\na;b\r\nx, y, z;2\r\n", "x, y, z|2"},
            {"the same after a byte-order mark", "\uFEFFsep=~\na~b\n1~2\n", "1|2"},
            {"a header that only looks like it", "sep=b,c\n1,2\n", "1|2"},
            {"quotes, doubled quotes and line breaks", "a,b\r\n\"say \"\"weir\"\"\",\"two\r\nlines\"\r\n", "say \"weir\"|two\r\nlines"},
            {"empty last field", "a,b\n1,\n2,3\n", "1|/2|3"},
            {"empty lines are passed over", "a,b\n\n1,2\n\n\n3,4\n\n", "1|2/3|4"},
            {"carriage returns alone", "a,b\r1,2\r3,4\r", "1|2/3|4"},
            {"mixed line ends, none at the end", "a,b\r\n1,2\n3,4", "1|2/3|4"},
            {"blank cells are missing", "a,b\n  ,2\n1, \n", "|2/1|"},
            {"blanks round figures", "a,b\n 1 , 2\n", "1|2"},
            {"signs and exponents", "a,b\n-1.50,+2e3\n-0,.5\n", "-1.5|2000/0|0.5"}};
    }

    @Test(dataProvider = "texts")
    public void cellsComeOutAsTheyStand(String what, String text, String expected) {
        assertThat(rows(read(text))).as(what).isEqualTo(expected);
    }

    @Test
    public void kindIsFoundForEachColumn() {
        Table table = read("number,date,truth,text,mixed,none,almost\n1,2031-03-01,true,x,1,,2031-02-28\n,,,,x7,,2031-02-30\n");
        assertThat(table.columns()).extracting(Column::kind).containsExactly(Kind.NUMBER, Kind.DATE, Kind.TRUTH, Kind.TEXT,
                Kind.TEXT, Kind.NUMBER, Kind.TEXT);
    }

    @Test
    public void longFieldsAndManyRowsAreRead() {
        String field = "x".repeat(100_000);
        Table table = read("a,b\n" + field + ",1\n" + "y,2\n".repeat(50_000));
        assertThat(table.rowCount()).isEqualTo(50_001);
        assertThat(table.column("a").written(0)).hasSize(100_000);
    }

    @Test
    public void rowsRememberTheirLines() {
        Table table = read("a,b\n1,\"x\ny\"\n\n2,z\n");
        assertThat(table.rowPlace(0)).hasToString(file + ":2");
        assertThat(table.rowPlace(1)).hasToString(file + ":5");
    }

    @DataProvider
    Object[][] mistakes() {
        return new Object[][] {
            {"", ": is empty; a table starts with a header row"},
            {"a,b\n", ": has a header and no row below it"},
            {"a,b\n1,2\n3\n4,5,6\n", ":3: the row has 1 cell, the header has 2\nFILE:4: the row has 3 cells, the header has 2"},
            {"a,a\n1,2\n", ":1: columns 1 and 2 are both named 'a'"},
            {"a,\n1,2\n", ":1: column 2 has no name in the header"}};
    }

    @Test(dataProvider = "mistakes")
    public void mistakesAreNamedWithTheirLines(String text, String message) {
        assertThatThrownBy(() -> read(text)).isInstanceOf(BadInput.class)
                .hasMessage((file + message.replace("FILE", file.toString())).replace("\n", System.lineSeparator()));
    }

    @Test
    public void quoteThatIsNeverClosedIsRefused() {
        assertThatThrownBy(() -> read("a,b\n1,\"never closed\n2,3\n")).isInstanceOf(BadInput.class)
                .hasMessageStartingWith(file + ":2: ").hasMessageContaining("quote");
    }

    @Test
    public void otherCharsetsAreRefusedAndNotMangled() throws IOException {
        Files.write(file, "station,mwh\nMühle,1\n".getBytes(StandardCharsets.ISO_8859_1));
        assertThatThrownBy(() -> DelimitedText.read("t", file)).isInstanceOf(BadInput.class)
                .hasMessage(file + ":2: has bytes that are no text in UTF-8; save the file as UTF-8, or say its 'charset'");
    }

    @Test
    public void missingFileAndFolderAreNamed() {
        Path folder = file.getParent();
        assertThatThrownBy(() -> DelimitedText.read("t", folder.resolve("no-such.csv"))).isInstanceOf(BadInput.class)
                .hasMessage(folder.resolve("no-such.csv") + ": there is no such file");
        assertThatThrownBy(() -> DelimitedText.read("t", folder)).isInstanceOf(BadInput.class)
                .hasMessage(folder + ": is a folder; name a file");
    }
}
