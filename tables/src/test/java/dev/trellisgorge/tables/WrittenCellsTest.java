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
import java.util.Locale;
import java.util.Map;
import java.util.stream.IntStream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class WrittenCellsTest {
    private static final double NONE = Double.NaN;

    private static Table read(Layout layout, String... lines) {
        return TableFile.read("t", new ByteArrayInputStream((String.join("\n", lines) + "\n").getBytes(StandardCharsets.UTF_8)), layout, Progress.NONE);
    }

    private static Column column(Layout layout, String... cells) {
        return read(layout, ("a;b\n" + String.join("\n", Arrays.stream(cells).map(cell -> cell + ";x").toList())).split("\n")).column("a");
    }

    @DataProvider
    Object[][] written() {
        return new Object[][] {{"1,234", 1234}, {"1,234,567.5", 1_234_567.5}, {"1234.5", 1234.5}, {"1\u00A0234", 1234}, {"1\u202F234.5", 1234.5}, {"1 234", 1234},
            {"1'234", 1234}, {"\u20AC 12.50", 12.5}, {"12.50 \u20AC", 12.5}, {"\u20AC1,000", 1000}, {"EUR 1,000", 1000}, {"5.5 CHF", 5.5}, {"-$5", -5}, {"$-5", -5}, {"25%", 0.25}, {"-2.5 %", -0.025},
            {"(70)", -70}, {"(\u00A31,250.00)", -1250}, {"70-", -70}, {"\u221270", -70}, {"+5", 5}, {"-0%", 0}, {".5", 0.5}, {"1e3", 1000}};
    }

    @Test(dataProvider = "written")
    public void numberIsReadAsItIsWritten(String cell, double number) {
        Column column = column(Layout.FOUND, cell, cell.contains("%") ? "1,000.5%" : "1,000.5");
        assertThat(column.kind()).isEqualTo(Kind.NUMBER);
        assertThat(column.number(0)).isEqualTo(number);
    }

    @DataProvider
    Object[][] texts() {
        return new Object[][] {{"1,23,456"}, {"12,34.5"}, {"1.2.3"}, {"5 MWh"}, {"--5"}, {"(-5)"}, {"-5-"}, {"5%%"}, {"M-101"}, {"2031-03"}, {"1,2345"}, {"12:30"}, {"%"}, {"007"}, {"5 KWH"}, {"$5%"}};
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
        assertThat(table.notes()).extracting(Object::toString).containsExactly("3 cells of 'mwh' are not plainly written as numbers: '1,200' is read as 1200"
                + " (standard input:2), 'n/a' is read as missing (standard input:3), '(5)' is read as -5 (standard input:5)");
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
        assertThatThrownBy(() -> read(Layout.FOUND.totalRow(Layout.TotalRow.DROP), "station,mwh", "Weir,500", "Leat,300", "Total,802")).isInstanceOf(BadInput.class)
                .hasMessage("standard input: the last row is to be dropped as a total, and its figures are not the sums of the rows above: 'mwh' is 802 there, and the rows above"
                        + " make 800: 2 more");
        assertThat(read(Layout.FOUND.totalRow(Layout.TotalRow.DROP), "station,mwh", "Weir,500", "Leat,300", "Total,801").notes()).as("half a unit a row")
                .extracting(Object::toString).containsExactly("the total row that is dropped is off by rounding: 'mwh' is 801 there, and the rows above make 800: 1 more");
    }

    @DataProvider
    Object[][] left() {
        return new Object[][] {
            {"5\n6\nabout 7\n8", "'mwh' is read as texts, as most of its cells are numbers and not all: 'about 7' is no number (standard input:4)"},
            {"1001\n1002\n0003", "'mwh' is read as texts, as most of its cells are numbers and not all: '0003' begins with a zero, as codes do (standard input:4)"},
            {"\u20AC 5\n6\n$ 7", "'mwh' is read as texts, as most of its cells are numbers and not all: '$ 7' is in another currency than '\u20AC 5' (standard input:4)"},
            {"5%\n6%\n0\n7", "'mwh' is read as texts, as most of its cells are numbers and not all: '7' is not per cent and '6%' is (standard input:5)"},
            {"2031-03-01\n2031-02-30\n2031-03-02", "'mwh' is read as texts, as most of its cells are dates and not all: '2031-02-30' is no date (standard input:3)"},
            {"5\nx\ny", null}, {"007\n012", null}, {"M-1\nM-2", null}, {"-\nx", null}};
    }

    /** Nothing is lost, and a reader hears why most figures of a column can't be charted. */
    @Test(dataProvider = "left")
    public void columnThatMostlyHoldsFiguresIsTextsAndToldOf(String cells, String note) {
        Table table = read(Layout.FOUND, ("mwh\n" + cells).split("\n"));
        assertThat(table.column("mwh").kind()).isEqualTo(Kind.TEXT);
        assertThat(String.join("\n", IntStream.range(0, table.rowCount()).mapToObj(table.column("mwh")::written).toList())).isEqualTo(cells);
        assertThat(table.notes()).extracting(Object::toString).isEqualTo(note == null ? List.of() : List.of(note));
    }

    @Test
    public void cellThatIsNotOfTheKindThatIsSaidIsAnErrorWithItsLine() {
        Layout said = Layout.FOUND.kinds(Map.of("mwh", Kind.NUMBER, "day", Kind.DATE, "open", Kind.TRUTH, "meter", Kind.TEXT));
        String header = "mwh,day,open,meter";
        assertThatThrownBy(() -> read(said, header, "5,2031-03-01,true,1", "about 6,2031-03-32,no,2", "$7,,,", "\u20AC8,,,")).isInstanceOf(BadInput.class)
                .hasMessage(String.join(System.lineSeparator(), "standard input:3, column 'mwh': 'about 6' is no number",
                        "standard input:5, column 'mwh': '\u20AC8' is in another currency than '$7'", "standard input:3, column 'day': '2031-03-32' is no date; write 2031-03-31, or say how dates are written with 'dates'",
                        "standard input:3, column 'open': 'no' is neither true nor false"));
        Table table = read(said, header, "0005,2031-03-01,true,007", "-,n/a,-,-", "7,2031-03-02 12:30,FALSE,8");
        assertThat(table.columns()).extracting(Column::kind).containsExactly(Kind.NUMBER, Kind.DATE, Kind.TRUTH, Kind.TEXT);
        assertThat(table.columns()).extracting(column -> column.written(0)).containsExactly("5", "2031-03-01", "true", "007");
        assertThat(table.columns()).extracting(column -> column.written(1)).containsExactly("", "", "", "-");
        assertThat(read(said, header, ",,,", "-,-,-,-", ",,,x").columns()).extracting(Column::kind).containsExactly(Kind.NUMBER, Kind.DATE, Kind.TRUTH, Kind.TEXT);
        assertThatThrownBy(() -> read(said.kinds(Map.of("mhw", Kind.NUMBER)), header, "5,,,")).isInstanceOf(BadInput.class)
                .hasMessage("standard input:1: there is no column 'mhw', whose kind is said. Did you mean 'mwh'?");
        String[] many = new String[9];
        Arrays.fill(many, "x,,,");
        many[0] = header;
        assertThatThrownBy(() -> read(said, many)).hasMessageEndingWith("standard input, column 'mwh': the same on 3 more rows");
    }

    @DataProvider
    Object[][] periods() {
        return new Object[][] {{"MM/uuuu", "03/2031,11/2030,-,2031-02", "2031-03,2030-11,.,2031-02"}, {"MMM uu", "Mar 31,Nov 30", "2031-03,2030-11"},
            {"'Q'q uuuu", "Q1 2031,Q4 2030", "2031-Q1,2030-Q4"}, {"'FY'uuuu", "FY2031,FY2030", "2031,2030"}, {"dd.MM.uuuu", "28.02.2031,2031-03-01 00:00:00", "2031-02-28,2031-03-01"}};
    }

    @Test(dataProvider = "periods")
    public void datesAndPeriodsInAPatternAreWrittenAsTheStandardDoes(String pattern, String cells, String expected) {
        Layout layout = Layout.FOUND.dates(DateTimeFormatter.ofPattern("uuuu|MM|dd"), DateTimeFormatter.ofPattern(pattern, Locale.ENGLISH)
                .withResolverStyle(java.time.format.ResolverStyle.STRICT));
        Table table = read(layout, ("when,x\n" + cells.replace(",", ",1\n") + ",1").split("\n"));
        Column column = table.column("when");
        assertThat(column.kind()).isEqualTo(pattern.startsWith("dd") ? Kind.DATE : Kind.TEXT);
        assertThat(String.join(",", IntStream.range(0, table.rowCount()).mapToObj(row -> column.isPresent(row) ? column.written(row) : ".").toList())).isEqualTo(expected);
        assertThat(table.notes()).hasSize(1);
    }

    @Test
    public void manyCellsForMissingAreNoReasonToKeepACopyOfTheTexts() {
        Table table = read(Layout.FOUND, "mwh,day", "5,2031-03-01", "-,-", "n/a,-", "7,2031-03-02");
        assertThat(table.columns()).extracting(Column::kind).containsExactly(Kind.NUMBER, Kind.DATE);
        assertThat(table.notes()).extracting(Object::toString).containsExactly(
                "2 cells of 'mwh' are not plainly written as numbers: '-' is read as missing (standard input:3), 'n/a' is read as missing (standard input:4)",
                "2 cells of 'day' are not plainly written as dates: '-' is read as missing (standard input:3), '-' is read as missing (standard input:4)");
    }
}
