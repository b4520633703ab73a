package dev.trellisgorge.sql;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Columns;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.plan.Plan;
import dev.trellisgorge.shape.AddColumn;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.Login;
import dev.trellisgorge.test.DatabaseServer;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Random;
import java.util.stream.DoubleStream;
import java.util.stream.IntStream;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Figures of all sizes as texts, held to the evaluator in databases of several makes. */
public class WrittenDigitsTest {
    private static final double[] EDGES = {0, -0.0, 1, -1, 10, 0.1, -0.25, 0.285, 2.675, 9.5, 99.5, 999.5, 0.95, 0.0995, 1234.5678, 1e5, 1e6, 12345678, 1e7, 123456789012.0, 1e15, 9007199254740992.0, 9007199254740993.0,
        123456789012345680.0, 1e16, 1.5e17, 1e20, 999999999999999900000.0, 1e21, 1.0000000000000001e21, -1e22, 9.9999999e22, 1e23, 4.35e30, 1.7976931348623157e308, -1e300, 1e-3, 1.5e-4, 9.99e-5, 1e-5, 1e-6, 1.25e-6,
        1e-7, 9.9999e-8, -1e-8, 5.684341886080802e-14, 2e-44, 2.2250738585072014e-308, 4.9e-324, 1.0 / 3, 2.0 / 3, Math.PI * 1e10, Math.E * 1e-10, 0.1 + 0.2, 5e-5, 4.999999e-5, 0.05, 0.045, Double.NaN};
    private static final List<String> PATTERNS = List.of("0E0", "0.#E0", "0.##E0", "0.00E0", "0.0#E00", "0.000000000000E000", "+0.0E0;-0.0E0", "0.0E0 'MWh'", "'E0 'then' '0.0E0", "(0.0E0)");

    private DatabaseServer server;

    @BeforeClass
    void start() {
        server = DatabaseServer.start();
    }

    @AfterClass(alwaysRun = true)
    void stop() {
        if (server != null) {
            server.close();
        }
    }

    @DataProvider
    Object[][] databases() {
        Login postgresql = new Login(server.url(), Optional.of(DatabaseServer.USER), Optional.of(DatabaseServer.PASSWORD));
        return new Object[][] {{Dialect.DUCKDB, Login.to("jdbc:duckdb:")}, {Dialect.H2, Login.to("jdbc:h2:mem:")}, {Dialect.POSTGRESQL, postgresql}};
    }

    /** The edges, and figures whose bits are drawn by chance. */
    private static Table figures() {
        Random chance = new Random(20310301);
        double[] any = DoubleStream.generate(() -> Double.longBitsToDouble(chance.nextLong())).filter(Double::isFinite).limit(300).toArray();
        double[] usual = DoubleStream.generate(() -> Math.scalb(chance.nextDouble() - 0.5, chance.nextInt(60) - 30)).limit(300).toArray();
        double[] all = DoubleStream.concat(DoubleStream.of(EDGES), DoubleStream.concat(DoubleStream.of(any), DoubleStream.of(usual))).toArray();
        return Table.of("figures", Column.texts("row", IntStream.range(0, all.length).mapToObj(row -> "row " + row).toArray(String[]::new)), Column.numbers("figure", all));
    }

    private static List<String> texts(Executor executor, Pipeline pipeline, Formula... said) {
        Pipeline written = pipeline;
        for (int i = 0; i < said.length; i++) {
            written = written.then(new AddColumn("text " + i, said[i]));
        }
        Table rows = executor.run(written);
        List<String> texts = new ArrayList<>();
        for (int row = 0; row < rows.rowCount(); row++) {
            for (int i = 0; i < said.length; i++) {
                Column column = rows.column("text " + i);
                texts.add(rows.column("figure").written(row) + " " + i + ": " + (column.isPresent(row) ? column.written(row) : "none"));
            }
        }
        return texts;
    }

    private static List<String> differing(List<String> here, List<String> there) {
        assertThat(there).hasSameSizeAs(here);
        return IntStream.range(0, here.size()).filter(i -> !here.get(i).equals(there.get(i))).mapToObj(i -> here.get(i) + " | " + there.get(i)).toList();
    }

    private static Database open(Dialect dialect, Login login, Table table) {
        return Database.open(login, dialect, List.of(DatabaseTable.of(table)), Settings.NONE, false);
    }

    @Test(dataProvider = "databases")
    public void figuresAreWrittenInTheirShortestForm(Dialect dialect, Login login) {
        Table table = figures();
        Formula shortest = Formulas.written(Formulas.column("figure"));
        Formula large = Formulas.choose(Formulas.abs(Formulas.column("figure")).above(Formulas.number(1e-300)), Formulas.column("figure").over(Formulas.number(8)), Formulas.absent());
        Formula within = Formulas.concat(Formulas.text("about "), Formulas.written(large)); // some servers take what is too small for an error
        List<String> here = texts(Executor.over(table, Settings.NONE), Pipeline.of("figures"), shortest, within);
        try (Database database = open(dialect, login, table)) {
            assertThat(differing(here, texts(database, Pipeline.of("figures"), shortest, within))).isEmpty();
        }
    }

    @Test(dataProvider = "databases")
    public void exponentsAreThoseOfThePattern(Dialect dialect, Login login) {
        Table table = figures();
        Formula[] said = PATTERNS.stream().map(pattern -> Formulas.formatted(Formulas.column("figure"), pattern, Locale.ROOT)).toArray(Formula[]::new);
        List<String> here = texts(Executor.over(table, Settings.NONE), Pipeline.of("figures"), said);
        try (Database database = open(dialect, login, table)) {
            assertThat(differing(here, texts(database, Pipeline.of("figures"), said))).isEmpty();
        }
    }

    @Test(dataProvider = "databases")
    public void signsOfALocaleStandInThem(Dialect dialect, Login login) {
        Table table = figures();
        Formula german = Formulas.formatted(Formulas.column("figure"), "0.00E0", Locale.GERMANY);
        Formula swedish = Formulas.formatted(Formulas.column("figure"), "0.0E0", Locale.forLanguageTag("sv-SE"));
        List<String> here = texts(Executor.over(table, Settings.NONE), Pipeline.of("figures"), german, swedish);
        assertThat(here).anyMatch(text -> text.contains(","));
        try (Database database = open(dialect, login, table)) {
            assertThat(differing(here, texts(database, Pipeline.of("figures"), german, swedish))).isEmpty();
        }
    }

    /** A label that fits its figures is written with an exponent where all are tiny. */
    @Test(dataProvider = "databases")
    public void labelsOfTinyFiguresAreColumnsToo(Dialect dialect, Login login) {
        Table tiny = Table.of("figures", Column.texts("row", "a", "b", "c", "d"), Column.numbers("figure", 1.5e-6, -2e-9, Double.NaN, 9.995e-3));
        try (Database database = open(dialect, login, tiny)) {
            Plan plan = Chart.of("row", Columns.of("figure")).plan(Pipeline.of("figures"), database.known());
            assertThat(database.withoutLabels(plan)).isEmpty();
            PlainChart chart = plan.over(database);
            assertThat(IntStream.range(0, 4).mapToObj(row -> chart.labelText(chart.series().get(0), row))).containsExactly("1.5E-6", "-2E-9", "", "1E-2");
        }
    }

    @Test(dataProvider = "databases")
    public void severalFiguresAndConditionsReadTheirOwnDigits(Dialect dialect, Login login) {
        Table table = Table.of("figures", Column.texts("row", "a", "b", "c"), Column.numbers("figure", 0.5, 1e-9, Double.NaN), Column.numbers("other", 1e22, 3, 7));
        Formula figure = Formulas.column("figure");
        Formula other = Formulas.column("other");
        Formula both = Formulas.concat(Formulas.concat(Formulas.written(figure), Formulas.text(" of ")), Formulas.written(other));
        Formula chosen = Formulas.choose(figure.above(Formulas.number(0.1)), Formulas.formatted(other, "0.0E0", Locale.ROOT), Formulas.written(other.plus(figure)));
        Formula matched = Formulas.choose(Formulas.written(other).equalTo(Formulas.text("3")), Formulas.text("three"), Formulas.text("another"));
        List<String> here = texts(Executor.over(table, Settings.NONE), Pipeline.of("figures"), both, chosen, matched);
        assertThat(here).contains("0.5 0: 0.5 of 1e22", "1e-9 0: 1e-9 of 3", "0.5 1: 1.0E22", "1e-9 1: 3.000000001", "1e-9 2: three", "0.5 2: another");
        try (Database database = open(dialect, login, table)) {
            assertThat(differing(here, texts(database, Pipeline.of("figures"), both, chosen, matched))).isEmpty();
        }
    }
}
