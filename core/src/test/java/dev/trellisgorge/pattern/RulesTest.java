package dev.trellisgorge.pattern;

import static dev.trellisgorge.formula.Formulas.column;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Highlight.Tied;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import java.time.LocalDate;
import java.util.List;
import java.util.stream.IntStream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Bands, highlight and sign; split has its tests beside columns. */
public class RulesTest {
    private static final Table DAYS = Table.of("days", Column.texts("day", "Mon", "Tue", "Wed", "Thu", "Fri", "Sat"),
            Column.numbers("v", 400, 200, 500, 0, 500, Rows.MISSING), Column.numbers("base", 400, 0, Rows.MISSING, 100, 250, 1),
            Column.truths("open", true, false, null, true, false, true));

    /** The class that holds each row; {@code .} where none does. */
    private static String classes(Classifier rule) {
        PlainChart chart = Chart.of("day", Columns.of("v").classify(rule)).over(DAYS, Settings.NONE);
        assertThat(Rows.failures(chart)).isEmpty();
        return String.join(" ", IntStream.range(0, 6).mapToObj(row -> Rows.held(chart, row).stream().map(name -> name.replace(" ", ""))
                .reduce((a, b) -> a + "&" + b).orElse(".")).toList());
    }

    @DataProvider
    Object[][] rules() {
        return new Object[][] {
            {Bands.at(0.5, 1).of(column("base")), "band3 unjudged unjudged band1 band3 ."},
            {Bands.at(200, 500), "band2 band2 band3 band1 band3 ."},
            {Bands.at(200, 500).ties(Ties.BELOW), "band2 band1 band2 band1 band2 ."},
            {Bands.at(List.of(column("base"))).named("low", "high"), "high high unjudged low high ."},
            {Highlight.largest(1), "rest rest highlighted rest highlighted ."},
            {Highlight.largest(1).tied(Tied.FIRST), "rest rest highlighted rest rest ."},
            {Highlight.largest(3), "highlighted rest highlighted rest highlighted ."},
            {Highlight.largest(99), "highlighted highlighted highlighted highlighted highlighted ."},
            {Highlight.smallest(2), "rest highlighted rest highlighted rest ."},
            {Highlight.first(2), "highlighted highlighted rest rest rest ."},
            {Highlight.last(2), "rest rest rest rest highlighted ."},
            {Highlight.names("Tue", "Sat"), "rest highlighted rest rest rest ."},
            {Highlight.where(column("open")), "highlighted rest unjudged highlighted rest ."},
            {new Sign(), "positive positive positive positive positive ."}};
    }

    @Test(dataProvider = "rules")
    public void eachValueIsInItsClass(Classifier rule, String expected) {
        assertThat(classes(rule)).isEqualTo(expected);
    }

    @Test
    public void highlightedDatesAreNamedAsTheyAreWritten() {
        Table dates = Table.of("t", Column.dates("day", LocalDate.of(2031, 3, 1), LocalDate.of(2031, 3, 2)), Column.numbers("v", 1, 2));
        PlainChart chart = Chart.of("day", Columns.of("v").classify(Highlight.names("2031-03-02"))).over(dates, Settings.NONE);
        assertThat(chart.data().column("highlighted").isPresent(1)).isTrue();
    }

    private static String naiveBand(double v, double base, double low, double high) {
        double compared = v / base;
        if (Double.isNaN(v)) {
            return "";
        }
        if (Double.isNaN(base) || base == 0) {
            return "unjudged";
        }
        return compared < low ? "band 1" : compared < high ? "band 2" : "band 3";
    }

    @Test
    public void randomBandsAgreeWithTheOracle() {
        Rows.each(4, -7, 10_000, rows -> {
            PlainChart chart = rows.proved(Columns.of("a").classify(Bands.at(-0.5, 1).of(column("b"))));
            for (int row = 0; row < rows.count(); row++) {
                int at = row;
                List<String> held = Rows.held(chart, at);
                String expected = naiveBand(rows.a()[row], rows.b()[row], -0.5, 1);
                assertThat(held).isEqualTo(expected.isEmpty() ? List.of() : List.of(expected));
            }
        });
    }

    @Test
    public void randomHighlightsAgreeWithTheOracle() {
        Rows.each(5, -7, 1_000, rows -> {
            int k = 1 + rows.count() % 4;
            double[] all = Rows.cells(rows.count());
            double[] first = Rows.cells(rows.count());
            for (int row = 0; row < rows.count(); row++) {
                double v = rows.a()[row];
                int larger = 0;
                int before = 0;
                for (int other = 0; other < rows.count(); other++) {
                    larger += rows.a()[other] > v ? 1 : 0;
                    before += rows.a()[other] == v && other < row ? 1 : 0;
                }
                if (!Double.isNaN(v) && larger < k) {
                    all[row] = v;
                    first[row] = larger + before < k ? v : Rows.MISSING;
                }
            }
            Rows.same(rows.proved(Columns.of("a").classify(Highlight.largest(k))), "highlighted", all);
            Rows.same(rows.proved(Columns.of("a").classify(Highlight.largest(k).tied(Tied.FIRST))), "highlighted", first);
        });
    }

    @Test
    public void capsAreOfOneHeightAndTheBarsAddBack() {
        Rows.each(6, -7, 10_000, rows -> {
            double smallest = Double.POSITIVE_INFINITY;
            for (double v : rows.a()) {
                smallest = v > 0 ? Math.min(smallest, v) : smallest;
            }
            double[] body = Rows.cells(rows.count());
            double[] cap = Rows.cells(rows.count());
            for (int row = 0; row < rows.count(); row++) {
                double v = rows.a()[row];
                cap[row] = v > 0 ? Math.min(0.5 * smallest, v) : Rows.MISSING;
                body[row] = v > 0 ? v - cap[row] : v;
            }
            PlainChart chart = rows.proved(Columns.of("a").cap(0.5));
            Rows.same(chart, "body", body);
            Rows.same(chart, "cap", cap);
        });
    }

    @Test
    public void tiesAndTheUnjudgedAreNoted() {
        assertThat(Rows.notes(Chart.of("day", Columns.of("v").classify(Bands.at(0.5, 1).of(column("base")))).over(DAYS, Settings.NONE))).containsExactly(
                "equal to limit 2, counted in 'band 3': Mon (400)",
                "a limit or what it is a share of is missing or zero, so unjudged: Tue (200), Wed (500)");
        assertThat(Rows.notes(Chart.of("day", Columns.of("v").classify(Highlight.largest(1).tied(Tied.FIRST))).over(DAYS, Settings.NONE)))
                .containsExactly("equal to the last one highlighted, not highlighted: Fri (500)");
        assertThat(Rows.notes(Chart.of("day", Columns.of("v").classify(Highlight.where(column("open")))).over(DAYS, Settings.NONE)))
                .containsExactly("what chooses the rows is missing, so unjudged: Wed (500)");
    }

    @Test
    public void limitsThatDoNotRiseAreRefusedWithTheRow() {
        Bands falling = Bands.at(List.of(column("base"), dev.trellisgorge.formula.Formulas.number(250)));
        assertThatThrownBy(() -> Chart.of("day", Columns.of("v").classify(falling)).over(DAYS, Settings.NONE)).isInstanceOf(BadInput.class)
                .hasMessage("table 'days', row 1: 'Mon': limit 1 is 400, limit 2 is 250; limits must rise" + System.lineSeparator()
                        + "table 'days', row 5: 'Fri': limit 1 is 250, limit 2 is 250; limits must rise");
    }

    @Test
    public void nameThatIsNoCategoryIsRefusedWithTheNearest() {
        assertThatThrownBy(() -> Chart.of("day", Columns.of("v").classify(Highlight.names("Tues"))).over(DAYS, Settings.NONE))
                .isInstanceOf(BadInput.class).hasMessage("table 'days', column 'day': there is no 'Tues'. Did you mean 'Tue'?");
    }

    @Test
    public void wrongCountsAreRefused() {
        assertThatThrownBy(() -> Highlight.largest(0)).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> Bands.at(1, 2).named("a", "b")).isInstanceOf(IllegalArgumentException.class)
                .hasMessage("2 limits make 3 bands, and there are 2 names");
    }
}
