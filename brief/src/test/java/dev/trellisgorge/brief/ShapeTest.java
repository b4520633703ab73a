package dev.trellisgorge.brief;

import static dev.trellisgorge.test.Steps.taken;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.offset;

import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.shape.AddColumn;
import dev.trellisgorge.shape.Join;
import dev.trellisgorge.shape.Total;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Numbers;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.test.Folder;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Steps and expressions, held to what they say and to what a database makes of the same. */
public class ShapeTest {
    private static final String READINGS = """
            day,meter,kwh,order
            2031-01-31,M1,1000,3
            2031-02-28,M1,1180,1
            2031-05-31,M1,,2
            2031-01-31,M2,50.5,3
            2031-02-28,M2,-90,1
            2031-01-31,M9,7,
            """;
    private static final String METERS = "meter,station,factor\nM1,North Sluice,1\nM2,Mill Race,10\nM3,Fern Pool,1\n";

    private Folder folder;

    @BeforeMethod
    void makeFolder() {
        folder = new Folder();
        folder.file("readings.csv", READINGS);
        folder.file("meters.csv", METERS);
    }

    @AfterMethod
    void leave() {
        folder.close();
    }

    private Table shaped(String... steps) {
        String brief = "brief: 1\ndata: {readings: readings.csv, meters: meters.csv}\nsettings: {goal: 100}\nshape:\n"
                + String.join("", Arrays.stream(steps).map(step -> "  - " + step + "\n").toList())
                + "charts: {c: {pattern: text-bar, category: c, value: 1}}\n";
        return Brief.read(folder.file("b.yaml", brief)).table();
    }

    private static String text(Table table) {
        return Database.rows(table).stream().map(row -> row.stream().map(cell -> cell == null ? "." : cell instanceof Double d
                ? Numbers.shortest(d) : cell.toString()).collect(Collectors.joining(" "))).collect(Collectors.joining("; "));
    }

    @DataProvider
    Object[][] steps() {
        return new Object[][] {
            {"choose: [c]", "c: 1 1 1 1 1 1"},
            {"keep: \"kwh > 100 OR meter = 'M2'\"", "kwh: 1000 1180 50.5 -90"},
            {"keep: kwh IS NULL", "day: 2031-05-31"},
            {"keep: NOT (kwh > 100)", "kwh: 50.5 -90 7"},
            {"order: {by: order}", "order: 1 1 2 3 3 ."},
            {"order: {by: order, order: descending}", "kwh: 1000 50.5 . 1180 -90 7"},
            {"order: {by: meter, order: descending}", "meter: M9 M2 M2 M1 M1 M1"},
            {"top: 2", "kwh: 1000 1180"},
            {"rename: {order: meter, meter: order}", "order: M1 M1 M1 M2 M2 M9"},
            {"total: {by: [meter], sum: [kwh], count: order}", "kwh: 2180 -39.5 7", "order: 3 2 0"},
            {"total: {by: [], sum: [kwh], mean: [kwh], first: [day], last: [kwh]}", "kwh sum: 2147.5", "kwh mean: 429.5", "day: 2031-01-31", "kwh last: 7"},
            {"total: {by: [order], least: [kwh, day], greatest: [order]}", "two columns"},
            {"join: {table: meters, on: meter}", "station: North Sluice North Sluice North Sluice Mill Race Mill Race ."},
            {"join: {table: meters, on: meter, rename: {station: at, factor: kwh before}}", "at: North Sluice North Sluice North Sluice Mill Race Mill Race .", "kwh before: 1 1 1 10 10 ."},
            {"join: {table: meters, on: {meter: id}, rename: {meter: id, station: at}}", "at: North Sluice North Sluice North Sluice Mill Race Mill Race ."},
            {"join: {table: meters, on: {meter: meter}, way: inner}", "factor: 1 1 1 10 10"},
            {"period: {of: day, unit: quarter}", "quarter: 2031-Q1 2031-Q1 2031-Q2 2031-Q1 2031-Q1 2031-Q1"},
            {"period: {of: day, unit: week, as: w}", "w: 2031-W05 2031-W09 2031-W22 2031-W05 2031-W09 2031-W05"},
            {"period: {of: day, unit: month, fill: true, by: [meter]}", "month: " + "2031-01 2031-02 2031-03 2031-04 2031-05 ".repeat(3).strip(),
                "kwh: 1000 1180 . . . 50.5 -90 . . . 7 . . . .", "meter: M1 M1 M1 M1 M1 M2 M2 M2 M2 M2 M9 M9 M9 M9 M9"},
            {"previous: {of: kwh, as: b}", "b: . 1000 1180 . 50.5 -90"},
            {"previous: {of: kwh, by: [meter]}", "previous kwh: . 1000 1180 . 50.5 ."},
            {"previous: {of: kwh, as: b, period: day, by: [meter]}", "b: . 1000 . . 50.5 ."},
            {"pivot: {by: [day], names: meter, values: kwh}", "M1: 1000 1180 .", "M2: 50.5 -90 .", "M9: 7 . ."},
            {"unpivot: {columns: [kwh, order], names: what, values: v}", "v: 1000 3 1180 1 . 2 50.5 3 -90 1 7 ."},
            {"add: {x: kwh / order, y: x * 2}", "y: " + "666.6666666666666 2360 . 33.666666666666664 -180 ."}};
    }

    @Test(dataProvider = "steps")
    public void stepDoesWhatItSays(String step, String... columns) {
        if (columns[0].equals("two columns")) {
            assertThatThrownBy(() -> shaped("add: {c: '1'}", step)).isInstanceOf(BadInput.class).hasMessageContaining("would be named 'order'");
            return;
        }
        Table table = shaped("add: {c: '1'}", step, step.startsWith("total") || step.startsWith("pivot") ? "add: {c: '1'}" : "top: 99");
        for (String column : columns) {
            String name = column.substring(0, column.indexOf(':'));
            assertThat(name + ": " + text(table.withColumns(List.of(table.column(name)))).replace(";", "")).isEqualTo(column);
        }
    }

    @Test
    public void readerIsToldOfRowsWithoutAMatchAndOfMonthsThatWereMissing() {
        assertThat(shaped("add: {c: '1'}", "join: {table: meters, on: meter}", "period: {of: day, unit: month, fill: true}").notes()).extracting(Object::toString)
                .containsExactly("no row of 'meters' for the meter: M9", "in 'meters' and on no row here: M3", "no row in a month, so one was added: 2031-03, 2031-04");
    }

    @Test
    public void joinThatWouldDoubleRowsIsRefusedUnlessItIsAskedFor() {
        folder.file("meters.csv", METERS + "M2,Heron Weir,5\n");
        assertThatThrownBy(() -> shaped("join: {table: meters, on: meter}", "add: {c: '1'}")).isInstanceOf(BadInput.class).hasMessageContaining("b.yaml:5:5: ")
                .hasMessageContaining("readings.csv:5: 'M2' stands on 2 rows of 'meters'").hasMessageContaining("meters.csv:3 and ").hasMessageContaining("with 'many'");
        assertThat(text(shaped("add: {c: '1'}", "join: {table: meters, on: meter, many: true}", "choose: [c, kwh, station]")))
                .contains("1 50.5 Mill Race; 1 50.5 Heron Weir; 1 -90 Mill Race");
    }

    @DataProvider
    Object[][] expressions() {
        return IntStream.range(0, EXPRESSIONS.length).mapToObj(i -> new Object[] {EXPRESSIONS[i]}).toArray(Object[][]::new);
    }

    private static final String[] EXPRESSIONS = {"a + b * 2 - 1", "(a + b) * -2", "a / NULLIF(b, 0)", "a = b", "a <> b", "a <= b AND NOT b < 0", "a IS NULL OR b > 1",
        "a IN (1, 2, -3)", "a NOT IN (1, b)", "a BETWEEN b AND 3", "a NOT BETWEEN -1 AND 1", "CASE WHEN a > b THEN 'more' WHEN a = b THEN 'same' ELSE t END",
        "CASE a WHEN 1 THEN 10 WHEN 2 THEN 20 END", "COALESCE(a, b, 0)", "NULLIF(a, b)", "ABS(a - b)", "FLOOR(a / 2)", "ROUND(a / 4, 1)", "ROUND(a * 2.5)",
        "t || '-' || t", "t = 'x' OR t = 'X'", "EXTRACT(YEAR FROM d) * 100 + EXTRACT(MONTH FROM d)", "EXTRACT(QUARTER FROM d)", "EXTRACT(DAY FROM d)",
        "d >= DATE '2031-02-28'", "\"month\" + 1", "(a > 0) IS TRUE", "(a > 0) IS NOT TRUE", "(a > 0) IS FALSE", "NOT (a > 0 OR b > 0) AND t IS NOT NULL",
        "CASE WHEN a > 0 AND b > 0 THEN a ELSE b END", "GREATEST(COALESCE(a, 0), COALESCE(b, 0))", "LEAST(COALESCE(a, 0), 1)", "TRUE", "1.5e1"};

    @Test(dataProvider = "expressions")
    public void databaseGivesTheSameCells(String expression) {
        Random random = new Random(expression.hashCode());
        int rows = 300;
        Table table = Table.of("rows", numbers("a", random, rows), numbers("b", random, rows), numbers("month", random, rows),
                Column.texts("t", random.ints(rows, 0, 4).mapToObj(i -> i == 0 ? null : i == 1 ? "x" : i == 2 ? "X" : "it's").toArray(String[]::new)),
                Column.dates("d", random.ints(rows, 0, 2000).mapToObj(i -> i < 100 ? null : LocalDate.of(2027, 12, 25).plusDays(i)).toArray(LocalDate[]::new)));
        var problems = new Problems();
        var formula = new Expressions(Optional.of(table.schema()), Settings.NONE, problems)
                .read(new Mapping.Text(expression, Place.of("here")));
        problems.throwIfAny();
        Table derived = taken(new AddColumn("e", formula.orElseThrow()), table);
        try (Database database = Database.embedded()) {
            database.hold(table);
            List<List<Object>> theirs = database.ask("SELECT " + expression + " FROM (SELECT \"a\" AS a, \"b\" AS b, \"t\" AS t, \"d\" AS d, \"month\", \"row\" FROM \"rows\") ORDER BY \"row\"");
            List<List<Object>> ours = Database.rows(derived.withColumns(List.of(derived.column("e"))));
            for (int row = 0; row < rows; row++) {
                Object expected = theirs.get(row).get(0);
                Object found = ours.get(row).get(0);
                if (expected instanceof Double figure && found instanceof Double cell) {
                    assertThat(cell).as("row %s: %s", row, Database.rows(table).get(row)).isCloseTo(figure, offset(1e-9));
                } else {
                    assertThat(found).as("row %s: %s", row, Database.rows(table).get(row)).isEqualTo(expected);
                }
            }
        }
    }

    private static Column numbers(String name, Random random, int rows) {
        return Column.numbers(name, random.ints(rows, -4, 5).mapToDouble(i -> i == 4 ? Double.NaN : i).toArray());
    }

    @Test
    public void databaseJoinsAndTotalsTheSameRows() {
        Random random = new Random(7);
        for (int i = 0; i < 40; i++) {
            int rows = random.nextInt(60);
            Table facts = Table.of("facts", keys("k", random, rows), keys("g", random, rows), numbers("v", random, rows));
            Table others = Table.of("others", keys("k", random, 12), numbers("w", random, 12));
            try (Database database = Database.embedded()) {
                database.hold(facts);
                database.hold(others);
                for (var way : Join.Way.values()) {
                    Table joined = taken(Join.by("others", "k").way(way).doubling(), facts, others);
                    assertThat(Database.rows(joined)).isEqualTo(database.ask("SELECT f.\"k\", f.\"g\", f.\"v\", o.\"w\" FROM \"facts\" f " + way
                            + " JOIN \"others\" o ON f.\"k\" = o.\"k\" ORDER BY f.\"row\", o.\"row\""));
                }
                var folds = Total.Fold.values();
                List<Total.Figure> figures = Arrays.stream(folds).limit(5)
                        .map(fold -> new Total.Figure("v", fold, fold.toString())).toList();
                Table total = taken(new Total(List.of("g"), figures), facts);
                List<List<Object>> theirs = database.ask("SELECT \"g\", SUM(\"v\"), AVG(\"v\"), COUNT(\"v\"), MIN(\"v\"), MAX(\"v\") FROM \"facts\" GROUP BY \"g\" ORDER BY MIN(\"row\")");
                Database.assertSame("totals", Database.rows(total), theirs);
            }
        }
    }

    private static Column keys(String name, Random random, int rows) {
        return Column.texts(name, random.ints(rows, 0, 6).mapToObj(i -> i == 0 ? null : "k" + i).toArray(String[]::new));
    }

    @DataProvider
    Object[][] mistakes() {
        return new Object[][] {
            {"keep: meter = M1", "has no column 'M1'. Known here: 'day', 'meter', 'kwh', 'order'. A text stands in single quotes."},
            {"keep: kwh", "a condition is needed, and 'kwh' is a number"}, {"keep: meter = NULL", "write IS NULL or IS NOT NULL"},
            {"keep: \"meter LIKE 'M%'\"", "is not taken here. An expression takes columns"}, {"keep: kwh > (", "is not complete"},
            {"keep: kwh > > 1", "'>' is not expected at character 7 of 'kwh > > 1'"}, {"keep: order > * 1", "'1' is not expected at character 11 of 'order > * 1'"},
            {"add: {x: SUM(kwh)}", "there is no function 'SUM' here."}, {"add: {x: kwh + 'a'}", "is a text"},
            {"add: {kwh: '1'}", "there is a column 'kwh' already"}, {"add: {x: ':gaol + 1'}", "there is no setting ':gaol'. Did you mean 'goal'?"},
            {"add: {x: \"DATE '2031-13-01'\"}", "'2031-13-01' is no date"}, {"add: {x: readings.kwh + 1}", "names a table"},
            {"add: {x: EXTRACT(HOUR FROM day)}", "EXTRACT takes YEAR, QUARTER, MONTH or DAY, not HOUR"},
            {"join: {table: metres, on: meter}", "there is no table 'metres' in 'data'. Did you mean 'meters'?"},
            {"join: {table: meters, on: statoin}", "has no column 'statoin'"}, {"join: {table: meters, on: {meter: factor}}", "the key 'meter' is a text here"},
            {"join: {table: meters}", "the key 'on' is missing"}, {"total: {by: [meter], sum: [day]}", "holds a date a row; can't add up dates"},
            {"total: {by: [meter], add: [kwh]}", "unknown key 'add'"}, {"period: {of: meter, unit: month}", "readings.csv:2, column 'meter': 'M1' doesn't identify one month"},
            {"period: {of: day, unit: fortnight}", "'unit' can't be 'fortnight'"}, {"period: {of: day, unit: day, as: kwh}", "there is a column 'kwh' already"},
            {"period: {of: day, unit: day, by: [meter]}", "nothing is filled"}, {"previous: {of: kwh, period: day}", "'2031-01-31' stands on two rows (again at "},
            {"previous: {of: kwh, period: meter}", "is no date or period"}, {"pivot: {by: [meter], names: order, values: kwh}", "the name is missing"},
            {"add: {}", "b.yaml:5:10: 'add': names no column"}, {"total: {}", "b.yaml:5:12: 'total': names no column, neither in 'by' nor to make a total of"},
            {"join: {table: meters, on: []}", "b.yaml:5:31: 'on': names no key"}, {"join: {table: meters, on: {}}", "b.yaml:5:31: 'on': names no key"},
            {"rename: {kwh: ''}", "a column has no name"}, {"keep", "'each of shape' must be a mapping of keys to values, not 'keep'"},
            {"join: {table: meters, on: meter, rename: {station: factor}}", "two columns are named 'factor'"},
            {"join: {table: meters, on: meter, rename: {station: day}}", "which the join's 'rename' does"},
            {"pivot: {by: [order], names: meter, values: kwh}", "pivot"}, {"unpivot: {columns: [kwh, meter]}", "columns that become one are of one kind"},
            {"unpivot: {columns: []}", "names no column"}, {"top: 0", "must be a whole number from 1 up"}, {"top: two", "must be a number, not 'two'"},
            {"rename: {kwh: day}", "two columns are named 'day'"}, {"rename: {kwhh: x}", "has no column 'kwhh'. Did you mean 'kwh'?"},
            {"choose: [kwh, kwh]", "two columns are named 'kwh'"}, {"order: {by: kwh, order: down}", "'order' can't be 'down'"},
            {"sort: {by: kwh}", "there is no step 'sort'."}, {"{keep: kwh > 1, top: 2}", "a step is one of keep, add"}};
    }

    @Test(dataProvider = "mistakes")
    public void mistakeIsToldWithItsPlaceAndNothingAfterItIsLookedAt(String step, String message) {
        if (message.equals("pivot")) {
            assertThat(shaped("add: {c: '1'}", "keep: kwh IS NOT NULL", step, "add: {c: '1'}").columnNames()).containsExactly("order", "M1", "M2", "M9", "c");
            return;
        }
        assertThatThrownBy(() -> shaped(step, "top: 1", "add: {c: '1'}")).isInstanceOfSatisfying(BadInput.class, bad -> {
            assertThat(bad.problems().get(0).toString()).startsWith("b.yaml:5:").contains(message);
            assertThat(bad.problems()).filteredOn(problem -> problem.toString().contains("b.yaml:6:")).isEmpty();
        });
    }

    @Test
    public void expressionsStandWhereverAFigureDoes() {
        folder.file("b.yaml", """
                brief: 1
                data: {readings: readings.csv}
                settings: {goal: 100}
                charts:
                  c:
                    pattern: columns
                    category: meter
                    value: kwh * 2
                    slice: {day: 2031-01-31}
                    classify: {highlight: {where: kwh > :goal AND meter <> 'M9'}}
                    rank: {by: 0 - kwh}
                """);
        Brief brief = Brief.read(folder.path("b.yaml"));
        Table printed = brief.compute(brief.charts()).get(0).printed();
        assertThat(text(printed)).isEqualTo("M9 14 . .; M2 101 . .; M1 . 2000 .");
        assertThat(printed.columns()).extracting(Column::kind).containsExactly(Kind.TEXT, Kind.NUMBER, Kind.NUMBER, Kind.NUMBER);
    }
}
