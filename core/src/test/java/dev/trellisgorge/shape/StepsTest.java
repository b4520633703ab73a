package dev.trellisgorge.shape;

import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.test.Steps.taken;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.shape.Total.Figure;
import dev.trellisgorge.shape.Total.Fold;
import dev.trellisgorge.table.CalendarUnit;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import java.time.LocalDate;
import java.time.temporal.IsoFields;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;
import java.util.stream.IntStream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Each step over random tables, held to loops over rows that are maps: the slow and obvious way. */
public class StepsTest {
    private static final int ROUNDS = 60;
    private static final Table GAUGES = Table.of("gauges", Column.texts("place", "b", null, "a", "b", "e"), Column.numbers("gauge", 1, 2, Double.NaN, 4, 5));

    /** A row: a missing cell is null, a number a double, a date a day. */
    private static final class Row extends LinkedHashMap<String, Object> {
        Row with(String column, Object cell) {
            Row row = new Row();
            row.putAll(this);
            row.put(column, cell);
            return row;
        }

        Row only(List<String> columns) {
            Row row = new Row();
            columns.forEach(column -> row.put(column, get(column)));
            return row;
        }

        boolean like(Row other, List<String> columns) {
            return columns.stream().allMatch(column -> Objects.equals(get(column), other.get(column)));
        }
    }

    private static List<Row> rows(Table table) {
        List<Row> rows = new ArrayList<>();
        for (int i = 0; i < table.rowCount(); i++) {
            Row row = new Row();
            for (Column column : table.columns()) {
                row.put(column.name(), !column.isPresent(i) ? null : column.kind() == Kind.TEXT ? (Object) column.written(i)
                        : column.kind() == Kind.DATE ? column.date(i).orElseThrow() : (Object) column.number(i));
            }
            rows.add(row);
        }
        return rows;
    }

    /** {@code t}, {@code g}: texts, {@code v}, {@code w}: numbers with ties, {@code d}: days; each with missing cells. */
    private static Table random(Random random) {
        int rows = random.nextInt(40);
        return Table.of("rows", texts("t", random, rows), texts("g", random, rows), numbers("v", random, rows), numbers("w", random, rows),
                Column.dates("d", random.ints(rows, 0, 500).mapToObj(i -> i < 40 ? null : LocalDate.of(2030, 11, 1).plusDays(i)).toArray(LocalDate[]::new)));
    }

    private static Column texts(String name, Random random, int rows) {
        return Column.texts(name, random.ints(rows, 0, 5).mapToObj(i -> i == 0 ? null : "abcd".substring(i - 1, i)).toArray(String[]::new));
    }

    private static Column numbers(String name, Random random, int rows) {
        return Column.numbers(name, random.ints(rows, -4, 5).mapToDouble(i -> i == 4 ? Double.NaN : i / 2.0).toArray());
    }

    private static Object[] step(Step step, UnaryOperator<List<Row>> naive) {
        return new Object[] {step, naive};
    }

    @DataProvider
    Object[][] steps() {
        List<Object[]> steps = new ArrayList<>(List.of(
                step(new Keep(column("v").above(column("w"))), rows -> kept(rows, row -> row.get("v") != null && row.get("w") != null && (Double) row.get("v") > (Double) row.get("w"))),
                step(new AddColumn("x", column("v").minus(column("w"))), rows -> rows.stream()
                        .map(row -> row.with("x", row.get("v") == null || row.get("w") == null ? null : (Object) ((Double) row.get("v") - (Double) row.get("w")))).toList()),
                step(new Order(column("v"), false), rows -> ordered(rows, "v", false)), step(new Order(column("v"), true), rows -> ordered(rows, "v", true)),
                step(new Order(column("t"), false), rows -> ordered(rows, "t", false)), step(new Order(column("d"), true), rows -> ordered(rows, "d", true)),
                step(new Top(7), rows -> rows.subList(0, Math.min(7, rows.size()))),
                step(new Rename(Map.of("v", "w", "w", "v")), rows -> rows.stream().map(row -> {
                    Row renamed = new Row();
                    row.forEach((name, cell) -> renamed.put(name.equals("v") ? "w" : name.equals("w") ? "v" : name, cell));
                    return renamed;
                }).toList()),
                step(new Choose(List.of("w", "t")), rows -> rows.stream().map(row -> row.only(List.of("w", "t"))).toList()),
                step(new Unpivot(List.of("w", "v"), "name", "cell"), StepsTest::unpivoted),
                step(new Previous("v", "before", Optional.empty(), Optional.empty(), List.of()), rows -> previous(rows, List.of())),
                step(new Previous("v", "before", Optional.empty(), Optional.empty(), List.of("t", "g")), rows -> previous(rows, List.of("t", "g")))));
        for (Join.Way way : Join.Way.values()) {
            steps.add(step(new Join(Pipeline.of("gauges"), Map.of("t", "place"), way, true), rows -> joined(rows, way)));
        }
        for (CalendarUnit unit : CalendarUnit.values()) {
            steps.add(step(PeriodOf.of("d", unit, "p"), rows -> rows.stream().map(row -> row.with("p", period((LocalDate) row.get("d"), unit))).toList()));
            steps.add(step(new PeriodOf("d", unit, "p", true, List.of("g")), rows -> filled(rows, unit)));
        }
        for (List<String> by : List.of(List.<String>of(), List.of("t"), List.of("w", "g"))) {
            List<Figure> figures = new ArrayList<>(Arrays.stream(Fold.values()).map(fold -> new Figure("v", fold, fold.toString())).toList());
            figures.add(new Figure("d", Fold.GREATEST, "latest"));
            figures.add(new Figure("t", Fold.LAST, "last t"));
            steps.add(step(new Total(by, figures), rows -> totalled(rows, by, figures)));
        }
        return steps.toArray(Object[][]::new);
    }

    @Test(dataProvider = "steps")
    public void stepMakesWhatAPlainLoopMakes(Step step, UnaryOperator<List<Row>> naive) {
        Random random = new Random(step.getClass().getName().hashCode());
        for (int round = 0; round < ROUNDS; round++) {
            Table table = random(random);
            assertThat(rows(taken(step, table, GAUGES))).as("%s, round %s: %s", step, round, rows(table)).isEqualTo(naive.apply(rows(table)));
        }
    }

    private static List<Row> kept(List<Row> rows, Predicate<Row> condition) {
        return rows.stream().filter(condition).toList();
    }

    /** Puts each row in before the first one that it must stand before. */
    private static List<Row> ordered(List<Row> rows, String by, boolean descending) {
        List<Row> ordered = new ArrayList<>();
        for (Row row : rows) {
            int at = 0;
            while (at < ordered.size() && !before(row.get(by), ordered.get(at).get(by), descending)) {
                at++;
            }
            ordered.add(at, row);
        }
        return ordered;
    }

    @SuppressWarnings("unchecked")
    private static boolean before(Object cell, Object other, boolean descending) {
        if (cell == null || other == null) {
            return cell != null;
        }
        int compared = ((Comparable<Object>) cell).compareTo(other);
        return descending ? compared > 0 : compared < 0;
    }

    private static List<Row> unpivoted(List<Row> rows) {
        List<Row> all = new ArrayList<>();
        for (Row row : rows) {
            for (String name : List.of("w", "v")) {
                all.add(row.only(List.of("t", "g", "d")).with("name", name).with("cell", row.get(name)));
            }
        }
        return all;
    }

    private static List<Row> previous(List<Row> rows, List<String> by) {
        List<Row> all = new ArrayList<>();
        for (int i = 0; i < rows.size(); i++) {
            Object before = null;
            for (int j = 0; j < i; j++) {
                before = rows.get(j).like(rows.get(i), by) ? rows.get(j).get("v") : before;
            }
            all.add(rows.get(i).with("before", before));
        }
        return all;
    }

    private static List<Row> joined(List<Row> rows, Join.Way way) {
        List<Row> all = new ArrayList<>();
        for (Row row : rows) {
            int found = 0;
            for (Row gauge : rows(GAUGES)) {
                if (row.get("t") != null && row.get("t").equals(gauge.get("place"))) {
                    all.add(row.with("gauge", gauge.get("gauge")));
                    found++;
                }
            }
            if (found == 0 && way == Join.Way.LEFT) {
                all.add(row.with("gauge", null));
            }
        }
        return all;
    }

    private static String period(LocalDate day, CalendarUnit unit) {
        return day == null ? null : switch (unit) {
            case DAY -> day.toString();
            case WEEK -> day.get(IsoFields.WEEK_BASED_YEAR) + "-W" + String.format("%02d", day.get(IsoFields.WEEK_OF_WEEK_BASED_YEAR));
            case MONTH -> day.toString().substring(0, 7);
            case QUARTER -> day.getYear() + "-Q" + (day.getMonthValue() + 2) / 3;
            case YEAR -> String.valueOf(day.getYear());
        };
    }

    /** Day by day from the first to the last: where a period begins, its rows, or one that was not there. */
    private static List<Row> filled(List<Row> rows, CalendarUnit unit) {
        List<Row> all = new ArrayList<>();
        LocalDate first = rows.stream().map(row -> (LocalDate) row.get("d")).filter(Objects::nonNull).min(LocalDate::compareTo).orElse(LocalDate.MAX);
        LocalDate last = rows.stream().map(row -> (LocalDate) row.get("d")).filter(Objects::nonNull).max(LocalDate::compareTo).orElse(LocalDate.MIN);
        Set<Object> groups = new LinkedHashSet<>();
        rows.forEach(row -> groups.add(row.get("g")));
        for (Object group : groups) {
            List<Row> own = kept(rows, row -> Objects.equals(row.get("g"), group));
            Set<String> seen = new HashSet<>();
            for (LocalDate day = first; !day.isAfter(last); day = day.plusDays(1)) {
                String period = period(day, unit);
                if (seen.add(period)) {
                    List<Row> there = kept(own, row -> period.equals(period((LocalDate) row.get("d"), unit)));
                    there.forEach(row -> all.add(row.with("p", period)));
                    if (there.isEmpty()) {
                        all.add(new Row().with("t", null).with("g", group).with("v", null).with("w", null).with("d", null).with("p", period));
                    }
                }
            }
            kept(own, row -> row.get("d") == null).forEach(row -> all.add(row.with("p", null)));
        }
        return all;
    }

    private static List<Row> totalled(List<Row> rows, List<String> by, List<Figure> figures) {
        List<Row> all = new ArrayList<>();
        List<Row> firsts = by.isEmpty() ? List.of(new Row()) : rows;
        for (Row first : firsts) {
            if (all.stream().noneMatch(row -> row.like(first, by))) {
                Row total = first.only(by);
                List<Row> own = kept(rows, row -> row.like(first, by));
                for (Figure figure : figures) {
                    total = total.with(figure.name(), folded(own.stream().map(row -> row.get(figure.column())).filter(Objects::nonNull).toList(), figure.fold()));
                }
                all.add(total);
            }
        }
        return all;
    }

    private static Object folded(List<Object> cells, Fold fold) {
        if (fold == Fold.COUNT) {
            return (double) cells.size();
        }
        if (cells.isEmpty()) {
            return null;
        }
        return switch (fold) {
            case SUM -> cells.stream().mapToDouble(cell -> (Double) cell).sum();
            case MEAN -> cells.stream().mapToDouble(cell -> (Double) cell).sum() / cells.size();
            case LEAST -> ordered(cells.stream().map(cell -> new Row().with("c", cell)).toList(), "c", false).get(0).get("c");
            case GREATEST -> ordered(cells.stream().map(cell -> new Row().with("c", cell)).toList(), "c", true).get(0).get("c");
            case FIRST -> cells.get(0);
            default -> cells.get(cells.size() - 1);
        };
    }

    @Test
    public void pivotMakesAColumnOfEachNameAndGoesBackWithUnpivot() {
        Random random = new Random(11);
        for (int round = 0; round < ROUNDS; round++) {
            Table table = taken(new Total(List.of("g", "t"), List.of(new Figure("v", Fold.SUM, "v"))), random(random));
            Table named = table.rows(IntStream.range(0, table.rowCount()).filter(row -> table.column("t").isPresent(row)).toArray());
            List<Row> pivoted = rows(taken(new Pivot(List.of("g"), "t", "v", Pivot.namesIn(named, "t")), named));
            List<Object> keys = rows(named).stream().map(row -> row.get("g")).distinct().toList();
            assertThat(pivoted).extracting(row -> row.get("g")).isEqualTo(keys);
            for (Row row : pivoted) {
                for (Object name : rows(named).stream().map(each -> each.get("t")).distinct().toList()) {
                    assertThat(row).containsKey((String) name);
                    List<Row> there = kept(rows(named), each -> Objects.equals(each.get("g"), row.get("g")) && each.get("t").equals(name));
                    assertThat(row.get((String) name)).isEqualTo(there.isEmpty() ? null : there.get(0).get("v"));
                }
            }
        }
    }

    @Test
    public void pivotRefusesAKeyThatHasANameTwiceAndTellsTheNamesWithoutAColumn() {
        Table table = Table.of("t", Column.texts("g", "x", "x", "y"), Column.texts("n", "a", "a", "b"), Column.numbers("v", 1, 2, 3));
        assertThatThrownBy(() -> taken(new Pivot(List.of("g"), "n", "v", List.of("a", "b")), table)).isInstanceOf(BadInput.class)
                .hasMessage("table 't', row 2: 'x' has 'a' twice (again at table 't', row 1); total the rows first");
        Table some = taken(new Pivot(List.of("g"), "n", "v", List.of("b", "c")), table.rows(new int[] {0, 2}));
        assertThat(some.columnNames()).containsExactly("g", "b", "c");
        assertThat(some.notes()).extracting(Object::toString).containsExactly("pivot: left out the names in 'n' that get no column: a");
    }

    @Test
    public void previousPeriodIsTheOneBeforeInTheCalendarAndNotOnTheSheet() {
        Random random = new Random(12);
        for (int round = 0; round < ROUNDS; round++) {
            Table months = taken(PeriodOf.of("d", CalendarUnit.MONTH, "m"), random(random));
            Table table = taken(new Total(List.of("g", "m"), List.of(new Figure("v", Fold.SUM, "v"))), months);
            List<Row> expected = new ArrayList<>();
            for (Row row : rows(table)) {
                List<Row> there = kept(rows(table), other -> row.get("m") != null && other.get("m") != null && Objects.equals(row.get("g"), other.get("g"))
                        && LocalDate.parse(other.get("m") + "-01").plusMonths(1).equals(LocalDate.parse(row.get("m") + "-01")));
                expected.add(row.with("before", there.isEmpty() ? null : there.get(0).get("v")));
            }
            assertThat(rows(taken(new Previous("v", "before", Optional.of("m"), Optional.empty(), List.of("g")), table))).isEqualTo(expected);
        }
    }

    @Test
    public void mistypedDateDoesNotFillAMillionRows() {
        Table table = Table.of("readings", Column.dates("d", LocalDate.of(231, 3, 1), LocalDate.of(2031, 3, 1)), Column.numbers("v", 1, 2));
        assertThatThrownBy(() -> taken(new PeriodOf("d", CalendarUnit.DAY, "p", true, List.of()), table)).isInstanceOf(BadInput.class)
                .hasMessageContaining("0231-03-01").hasMessageContaining("2031-03-01");
    }

    @Test
    public void textsStandInTheOrderOfTheirUnicodeSigns() {
        Table table = Table.of("t", Column.texts("t", "\uD83D\uDC1F", "\uFF5E", "ab", "a", "\uD83D\uDC1E", "Z"));
        assertThat(rows(taken(new Order(column("t"), false), table))).extracting(row -> row.get("t"))
                .containsExactly("Z", "a", "ab", "\uFF5E", "\uD83D\uDC1E", "\uD83D\uDC1F");
    }

    @Test
    public void stepsThatPipelinesShareAreTakenOnce() {
        Executor executor = Executor.over(GAUGES, Settings.NONE);
        Pipeline renamed = Pipeline.of("gauges").then(new Rename(Map.of("gauge", "g")));
        Step twice = new AddColumn("twice", column("g").times(number(2)));
        Pipeline shared = renamed.then(twice);
        assertThat(executor.run(shared).columnNames()).containsExactly("place", "g", "twice");
        assertThat(executor.run(renamed.then(twice))).isSameAs(executor.run(shared));
        assertThat(executor.run(renamed.then(new AddColumn("twice", column("g").times(number(3))))).column("twice").number(0)).isEqualTo(GAUGES.column("gauge").number(0) * 3);
        assertThat(shared.then(new Order(column("g"), true)).then(new Order(column("place"), false)).orderSentence())
                .isEqualTo("by place, then g DESC; equal ones in the order in which they first stand in gauges");
    }

    @Test
    public void joinKeepsWhatTheOtherTableHasToTellAndSaysItOnce() {
        Note told = new Note("something of the gauges", List.of());
        Table places = Table.of("places", Column.texts("place", "a", "b"));
        Table gauges = GAUGES.rows(new int[] {0, 2}).withNotes(told);
        assertThat(taken(Join.by("gauges", "place"), places, gauges).notes()).containsExactly(told);
        assertThat(taken(Join.by("gauges", "place"), places.withNotes(told), gauges).notes()).containsExactly(told);
    }

    @Test
    public void fewCellsThatAreNoNumbersAreNamedWhereTheColumnIsUsedAsNumbers() {
        Table table = Table.of("t", Column.texts("v", "1", "about 4", null, "5"), Column.texts("t", "x", "y", null, "z"), Column.numbers("w", 1, 2, 3, 4));
        String about = "table 't', row 2, column 'v': 'about 4' is text, and a figure must be a number";
        for (Step step : List.of(new Total(List.of(), List.of(new Figure("v", Fold.SUM, "v"))), new AddColumn("x", column("v").times(number(2))), new Keep(column("v").above(column("w"))),
                new Keep(column("w").above(column("v"))))) {
            assertThatThrownBy(() -> taken(step, table)).isInstanceOf(BadInput.class).hasMessage(about);
        }
        assertThatThrownBy(() -> taken(new AddColumn("x", column("t").times(number(2))), table)).hasMessageContaining("'t' is a text, not a number");
        assertThatThrownBy(() -> taken(new Total(List.of(), List.of(new Figure("t", Fold.SUM, "t"))), table)).hasMessage("table 't', column 't': holds a text a row; can't add up texts");
    }
}
