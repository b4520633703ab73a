package dev.trellisgorge.pattern;

import static dev.trellisgorge.formula.Formulas.choose;
import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.formula.Formulas.text;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.audit.Audit;
import dev.trellisgorge.chart.Color;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.Problem;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Numbers;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.test.TestSize;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.stream.IntStream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class ColumnsTest {
    private static final double MISSING = Double.NaN;
    private static final Table MARCH = Table.of("march",
            Column.texts("station", "North Sluice", "Heron Weir", "Mill Race", "Alder Gate", "Stone Leat", "Fern Pool", "Low Lock"),
            Column.numbers("mwh", 520, 400, 150, 200, MISSING, 0, -30),
            Column.numbers("own_goal", 520, 500, MISSING, 100, 100, 0, -30));
    private static final Settings GOAL = Settings.of("goal", 400);

    private static Table series(Classifier rule) {
        return Chart.of("station", Columns.of("mwh").classify(rule)).over(MARCH, GOAL).data().printed();
    }

    private static String cells(Table table, String column) {
        Column cells = table.column(column);
        return String.join(" ", IntStream.range(0, cells.size()).mapToObj(row -> cells.isPresent(row) ? cells.written(row) : ".").toList());
    }

    @DataProvider
    Object[][] splits() {
        String below = ". . 150 200 . 0 -30";
        String above = "520 400 . . . . .";
        return new Object[][] {
            {Split.at(400), below, above},
            {Split.atSetting("goal"), below, above},
            {Split.at(400).ties(Ties.BELOW), ". 400 150 200 . 0 -30", "520 . . . . . ."},
            {Split.at(0), ". . . . . . -30", "520 400 150 200 . 0 ."},
            {Split.at(0).ties(Ties.BELOW), ". . . . . 0 -30", "520 400 150 200 . . ."},
            {Split.at(column("own_goal")), ". 400 . . . . .", "520 . . 200 . 0 -30"},
            {Split.at(column("own_goal")).ties(Ties.BELOW), "520 400 . . . 0 -30", ". . . 200 . . ."}};
    }

    @Test(dataProvider = "splits")
    public void eachValueFallsOnOneSideOfTheLimit(Split rule, String below, String above) {
        Table series = series(rule);
        assertThat(cells(series, "below")).isEqualTo(below);
        assertThat(cells(series, "above")).isEqualTo(above);
    }

    @Test
    public void valueWithoutALimitIsUnjudgedAndReported() {
        PlainChart chart = Chart.of("station", Columns.of("mwh").classify(Split.at(column("own_goal")))).over(MARCH, GOAL);
        assertThat(chart.plan().series()).containsExactly("below", "above", "unjudged");
        assertThat(cells(chart.data().printed(), "unjudged")).isEqualTo(". . 150 . . . .");
        assertThat(Audit.of(chart).notes()).extracting(Object::toString)
                .contains("no limit to compare with, so unjudged: Mill Race (150)");
    }

    @Test
    public void unjudgedIsAColumnWhateverTheCellsAreUnlessTheLimitIsStated() {
        assertThat(series(Split.at(400)).columnNames()).containsExactly("station", "below", "above");
        assertThat(series(Split.atSetting("goal")).columnNames()).containsExactly("station", "below", "above", "unjudged");
        assertThat(series(Split.at(column("own_goal"))).columnNames()).containsExactly("station", "below", "above", "unjudged");
    }

    @Test
    public void plainColumnsAreTheValueItself() {
        Table series = Chart.of("station", Columns.of("mwh")).over(MARCH, Settings.NONE).data().printed();
        assertThat(series.columnNames()).containsExactly("station", "value");
        assertThat(cells(series, "value")).isEqualTo("520 400 150 200 . 0 -30");
    }

    @Test
    public void labelsAreTheFiguresAndAbsentHasNone() {
        PlainChart chart = Chart.of("station", Columns.of("mwh").classify(Split.at(400))).over(MARCH, GOAL);
        Series below = chart.series().get(0);
        assertThat(IntStream.range(0, 7).mapToObj(row -> chart.labelText(below, row)).toList())
                .containsExactly("", "", "150", "200", "", "0", "-30");
        assertThat(chart.alternative()).startsWith("Chart: North Sluice 520 (above); Heron Weir 400 (above)")
                .contains("Stone Leat no figure; Fern Pool 0 (below)");
    }

    @Test
    public void namesAndColoursCanBeChanged() {
        PlainChart chart = Chart.of("station", Columns.of("mwh").classify(Split.at(400))).name("below", "Missed")
                .color("below", Color.parse("#123456")).over(MARCH, GOAL);
        assertThat(chart.series().get(0).name()).isEqualTo("Missed");
        assertThat(chart.series().get(0).fill().orElseThrow()).hasToString("#123456");
        assertThat(chart.plan().series()).startsWith("below");
    }

    private static final Table FLAWED = Table.of("flawed", Column.texts("station", "Weir", "Weir", null),
            Column.texts("mwh", "12", "about 3", null), Column.numbers("other", 1, Double.POSITIVE_INFINITY, 2));

    private static List<String> mistakes(Chart chart) {
        try {
            chart.over(FLAWED, GOAL);
            return List.of();
        } catch (BadInput bad) {
            return bad.problems().stream().map(Object::toString).toList();
        }
    }

    @Test
    public void everyMistakeThatTheColumnsShowIsToldAtOnce() {
        assertThat(mistakes(Chart.of("station", Columns.of("mwh").classify(Split.at(column("other").plus(column("gaol"))))).name("abov", "x"))).containsExactlyInAnyOrder(
                "chart 'chart': there is no series 'abov'. Did you mean 'above'?",
                "table 'flawed', row 2, column 'mwh': 'about 3' is text, and a figure must be a number",
                "table 'flawed': there is no column 'gaol'. Known here: 'station', 'mwh', 'other'.");
    }

    @Test
    public void everyMistakeInTheRowsIsToldAtOnce() {
        assertThat(mistakes(Chart.of("station", Columns.of("other")))).containsExactlyInAnyOrder(
                "table 'flawed', row 3, column 'station': the category is missing; every row needs one",
                "table 'flawed', row 1, column 'station': 'Weir' stands on 2 rows (again at table 'flawed', row 2);"
                        + " a chart takes one row a category. Keep one with 'slice', or total the rows first.",
                "table 'flawed', row 2, column 'other': the figure is too large to be a number (infinite)");
    }

    @Test
    public void mistakesAndTheirCauseOutliveSerialisation() throws Exception {
        BadInput before = new BadInput(List.of(new Problem(Place.inFile("march.csv", 3, 2), ProblemKind.DATA, "no number"), new Problem(Place.of("x"), ProblemKind.MISSING, "no name")), new java.io.IOException("disk"));
        java.io.ByteArrayOutputStream bytes = new java.io.ByteArrayOutputStream();
        new java.io.ObjectOutputStream(bytes).writeObject(before);
        BadInput after = (BadInput) new java.io.ObjectInputStream(new java.io.ByteArrayInputStream(bytes.toByteArray())).readObject();
        assertThat(after.problems()).isEqualTo(before.problems());
        assertThat(after).hasMessage(before.getMessage()).hasRootCauseMessage("disk");
    }

    @Test
    public void figureMayReadTextsAndDatesAndMustComeToANumber() {
        Table table = Table.of("t", Column.texts("station", "Weir", "Leat"), Column.numbers("mwh", 5, 7), Column.dates("day", LocalDate.of(2031, 3, 1), null),
                Column.texts("typed", "1", "x"));
        Formula weir = column("station").equalTo(text("Weir"));
        PlainChart chart = Chart.of("station", Columns.of(choose(weir, column("mwh"), number(1)))).over(table, Settings.NONE);
        assertThat(chart.data().column("value").number(0)).isEqualTo(5);
        assertThat(chart.data().column("value").number(1)).isEqualTo(1);
        Map<Formula, String> refused = Map.of(weir, "table 't': station = 'Weir' is true or false, and a figure must be a number",
                column("day"), "table 't', column 'day': holds a date a row, and a figure must be a number",
                column("station").plus(number(1)), "table 't': 'station' is a text, not a number (in: station + 1)",
                column("typed").plus(number(1)), "table 't', row 2, column 'typed': 'x' is text, and a figure must be a number");
        refused.forEach((figure, message) -> assertThatThrownBy(() -> Chart.of("station", Columns.of(figure)).over(table, Settings.NONE)).isInstanceOf(BadInput.class)
                .hasMessage(message));
        assertThatThrownBy(() -> Chart.of("station", Columns.of("typed")).slice("station", "Weir").over(table, Settings.NONE)).as("on a row that was left out")
                .hasMessage("table 't', row 2, column 'typed': 'x' is text, and a figure must be a number");
    }

    /** The oracle: for each row, the naive way. */
    private static Optional<String> naiveClass(double value, double limit, Ties ties) {
        if (Double.isNaN(value)) {
            return Optional.empty();
        }
        if (Double.isNaN(limit)) {
            return Optional.of("unjudged");
        }
        if (value == limit) {
            return Optional.of(ties.toString());
        }
        return Optional.of(value > limit ? "above" : "below");
    }

    @Test
    public void randomTablesAgreeWithTheOracleAndProveTheirIdentities() {
        Random random = new Random(400);
        for (int i = 0; i < TestSize.of(120, 1_200); i++) {
            int rows = i % 100 == 0 ? 2_000 : i % 7 == 0 ? i % 2 : random.nextInt(30);
            double scale = Math.pow(10, random.nextInt(600) - 300);
            double[] values = random.ints(rows, -3, 4).mapToDouble(v -> v == 3 ? MISSING : v * scale).toArray();
            double[] limits = random.ints(rows, -3, 4).mapToDouble(v -> v == 3 ? MISSING : v * scale).toArray();
            Ties ties = random.nextBoolean() ? Ties.ABOVE : Ties.BELOW;
            Table table = Table.of("random", Column.texts("c", IntStream.range(0, rows).mapToObj(r -> "r" + r).toArray(String[]::new)),
                    Column.numbers("v", values), Column.numbers("limit", limits));
            PlainChart chart = Chart.of("c", Columns.of("v").classify(Split.at(column("limit")).ties(ties))).over(table, Settings.NONE);
            assertThat(Audit.of(chart).holds()).isTrue();
            for (int row = 0; row < rows; row++) {
                String figure = Numbers.shortest(values[row]);
                assertThat(held(chart, row)).isEqualTo(naiveClass(values[row], limits[row], ties)
                        .map(of -> List.of(of + "=" + figure)).orElse(List.of()));
            }
        }
    }

    private static List<String> held(PlainChart chart, int row) {
        return chart.data().series().stream().filter(cells -> cells.isPresent(row)).map(cells -> cells.name() + "=" + cells.written(row)).toList();
    }
}
