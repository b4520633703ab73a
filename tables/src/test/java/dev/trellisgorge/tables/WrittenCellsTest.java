package dev.trellisgorge.tables;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.time.format.DateTimeFormatter;
import java.util.Arrays;
import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class WrittenCellsTest {
    private static final double NONE = Double.NaN;

    private static Table read(Layout layout, String... lines) {
        return TableFile.read("t", new ByteArrayInputStream((String.join("\n", lines) + "\n").getBytes(StandardCharsets.UTF_8)), layout);
    }

    private static Column column(Layout layout, String... cells) {
        return read(layout, ("a;b\n" + String.join("\n", Arrays.stream(cells).map(cell -> cell + ";x").toList())).split("\n")).column("a");
    }

    @DataProvider
    Object[][] written() {
        return new Object[][] {{"1,234", 1234}, {"1,234,567.5", 1_234_567.5}, {"1234.5", 1234.5}, {"1\u00A0234", 1234}, {"1\u202F234.5", 1234.5}, {"1 234", 1234},
            {"1'234", 1234}, {"\u20AC 12.50", 12.5}, {"12.50 \u20AC", 12.5}, {"\u00A31,000", 1000}, {"-$5", -5}, {"$-5", -5}, {"25%", 0.25}, {"-2.5 %", -0.025},
            {"(70)", -70}, {"(\u00A31,250.00)", -1250}, {"70-", -70}, {"\u221270", -70}, {"+5", 5}, {"-0%", 0}, {".5", 0.5}, {"1e3", 1000}};
    }

    @Test(dataProvider = "written")
    public void numberIsReadAsItIsWritten(String cell, double number) {
        Column column = column(Layout.FOUND, cell, "1,000.5");
        assertThat(column.kind()).isEqualTo(Kind.NUMBER);
        assertThat(column.number(0)).isEqualTo(number);
    }

    @DataProvider
    Object[][] texts() {
        return new Object[][] {{"1,23,456"}, {"12,34.5"}, {"1.2.3"}, {"5 MWh"}, {"--5"}, {"(-5)"}, {"-5-"}, {"5%%"}, {"M-101"}, {"2031-03"}, {"1,2345"}, {"12:30"}, {"%"}};
    }

    @Test(dataProvider = "texts")
    public void whatIsNoNumberLeavesTheColumnAsTexts(String cell) {
        Column column = column(Layout.FOUND, "1,000.5", cell);
        assertThat(column.kind()).isEqualTo(Kind.TEXT);
        assertThat(column.written(1)).isEqualTo(cell);
    }

    @Test
    public void decimalSignIsTheOneThatAllCellsTakeOrTheOneThatIsSaid() {
        assertThat(column(Layout.FOUND, "1.234,5", "0,25").number(1)).isEqualTo(0.25);
        assertThat(column(Layout.FOUND, "1,234", "5").number(0)).as("it may group").isEqualTo(1234);
        assertThat(column(Layout.FOUND.decimal(','), "1,234", "5").number(0)).isEqualTo(1.234);
        assertThat(column(Layout.FOUND.decimal('.'), "1.234,5", "5").kind()).isEqualTo(Kind.TEXT);
    }

    @Test
    public void dashesAndWordsForMissingAreMissingAmongFiguresAndTextsAmongTexts() {
        Column column = column(Layout.FOUND, "5", "-", "n/a", "", "7");
        assertThat(new double[] {column.number(0), column.number(1), column.number(2), column.number(3), column.number(4)}).containsExactly(5, NONE, NONE, NONE, 7);
        assertThat(column(Layout.FOUND, "Weir", "-").written(1)).isEqualTo("-");
        assertThat(column(Layout.FOUND.missing(List.of("?")), "5", "?").isPresent(1)).isFalse();
        assertThat(column(Layout.FOUND.missing(List.of("?")), "5", "-").kind()).as("only what is said").isEqualTo(Kind.TEXT);
    }

    @Test
    public void datesAreReadByTheirPatternBesideIso() {
        Layout german = Layout.FOUND.dates(DateTimeFormatter.ofPattern("dd.MM.uuuu").withResolverStyle(java.time.format.ResolverStyle.STRICT));
        Column column = column(german, "28.02.2031", "2031-03-01", "-");
        assertThat(column.kind()).isEqualTo(Kind.DATE);
        assertThat(column.written(0)).isEqualTo("2031-02-28");
        assertThat(column.isPresent(2)).isFalse();
        assertThat(column(german, "30.02.2031").kind()).isEqualTo(Kind.TEXT);
    }

    @Test
    public void whatWasReadOtherwiseThanItStandsIsToldWithItsLine() {
        Table table = read(Layout.FOUND, "station,mwh,plain", "Weir,\"1,200\",1", "Leat,n/a,2", "Pool,300,4", "Gate,(5),4");
        assertThat(table.notes()).extracting(Object::toString).containsExactly("3 cells of 'mwh' not written as a number stands there, and read so: '1,200' as 1200"
                + " (standard input:2), 'n/a' as missing (standard input:3), '(5)' as -5 (standard input:5)");
    }

    @Test
    public void lastRowThatIsATotalIsToldDroppedOrKept() {
        String[] lines = {"station,mwh", "Weir,500", "Leat,300", "Total,800"};
        assertThat(read(Layout.FOUND, lines).notes()).extracting(Object::toString).containsExactly("the last row is the sum of the rows above, and would be counted"
                + " twice; drop it with 'total-row: drop', or keep it with 'total-row: keep': standard input:4");
        Table dropped = read(Layout.FOUND.totalRow(Layout.TotalRow.DROP), lines);
        assertThat(dropped.rowCount()).isEqualTo(2);
        assertThat(dropped.notes()).isEmpty();
        assertThat(read(Layout.FOUND.totalRow(Layout.TotalRow.KEEP), lines).notes()).isEmpty();
        assertThat(read(Layout.FOUND, "station,mwh", "Weir,500", "Leat,300", "Pool,800").notes()).as("a sum by chance is no total").isEmpty();
        assertThat(read(Layout.FOUND, "station,mwh,goal", "Weir,500,1", "Leat,300,2", ",800,3").notes()).hasSize(1);
        assertThatThrownBy(() -> read(Layout.FOUND.totalRow(Layout.TotalRow.DROP), "station,mwh", "Weir,500", "Leat,300", "Total,801")).isInstanceOf(BadInput.class)
                .hasMessage("standard input: the last row is to be dropped as a total, and its figures are not the sums of the rows above");
    }
}
