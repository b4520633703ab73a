package dev.trellisgorge.sql;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.conformance.HardNames;
import dev.trellisgorge.conformance.RandomPlan;
import dev.trellisgorge.conformance.RandomPlan.Within;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Columns;
import dev.trellisgorge.plan.Derived;
import dev.trellisgorge.plan.Plan;
import dev.trellisgorge.shape.Keep;
import dev.trellisgorge.shape.Catalog;
import dev.trellisgorge.shape.Order;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.test.DatabaseServer;
import dev.trellisgorge.test.TestSize;
import java.sql.Connection;
import java.sql.Date;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.IntStream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Statements held to the oracle on random plans: every column, cell for cell, in databases of several makes. */
public class SqlConformanceTest {
    private static final double CLOSE = 1e-9;
    private static final String NUMBERED = "line no.";
    /** So many hard names are columns of one table. */
    private static final int AT_ONCE = 20;

    /** What is said to the embedded engine so that it plans long statements in half the time; a part of the plans is run as it is used. */
    private static final String PLAINLY = "PRAGMA disable_optimizer";
    /** A server that compiles long expressions takes seconds for each. */
    private static final String UNCOMPILED = "SET jit = off";

    @DataProvider
    public Object[][] databases() {
        return new Object[][] {{Dialect.DUCKDB, Dialect.DUCKDB, 0, TestSize.of(30, 400), ""}, {Dialect.DUCKDB, Dialect.DUCKDB, 400, TestSize.of(100, 1600), PLAINLY}, {Dialect.H2, Dialect.H2, 0, TestSize.of(100, 500), ""},
            {Dialect.POSTGRESQL, Dialect.POSTGRESQL, 0, TestSize.of(100, 500), UNCOMPILED}, {Dialect.STANDARD, Dialect.POSTGRESQL, 500, TestSize.of(60, 200), UNCOMPILED}};
    }

    @DataProvider
    public Object[][] makes() {
        return new Object[][] {{Dialect.DUCKDB}, {Dialect.H2}, {Dialect.POSTGRESQL}};
    }

    /** What runs with a database that is there. */
    private interface Use {
        void with(Connection database) throws SQLException;
    }

    private static void in(Dialect dialect, Use use) throws SQLException {
        if (dialect != Dialect.POSTGRESQL) {
            try (Connection database = DriverManager.getConnection(dialect == Dialect.DUCKDB ? "jdbc:duckdb:" : "jdbc:h2:mem:")) {
                use.with(database);
            }
            return;
        }
        try (DatabaseServer server = DatabaseServer.start(); Connection database = DriverManager.getConnection(server.url(), DatabaseServer.USER, DatabaseServer.PASSWORD)) {
            use.with(database);
        }
    }

    @Test(dataProvider = "databases")
    public void statementsOfRandomPlansGiveTheOraclesCells(Dialect dialect, Dialect make, int from, int plans, String set) throws SQLException {
        in(make, database -> {
            if (!set.isEmpty()) {
                try (java.sql.Statement use = database.createStatement()) {
                    use.execute(set);
                }
            }
            int columns = 0;
            for (long seed = from; seed < from + plans; seed++) {
                RandomPlan random = RandomPlan.of(seed, Within.SHEET);
                List<String> names = random.plan().columns().stream().map(Derived::name).toList();
                Sql.Parametrised statement = Sql.of(random.plan(), Catalog.of(random.tables(), random.settings())).rowsBy(NUMBERED).columns(names).in(dialect);
                load(database, make, random.tables());
                columns += compare(database, random, names, statement);
            }
            assertThat(columns).isGreaterThan(3 * plans);
        });
    }

    @Test(dataProvider = "makes")
    public void namesAndTextsComeThroughAsThemselves(Dialect dialect) throws SQLException {
        List<String> hard = HardNames.all();
        assertThat(hard).hasSizeGreaterThanOrEqualTo(200);
        in(dialect, database -> {
            for (int from = 0; from < hard.size(); from += AT_ONCE) {
                namesAndTexts(database, dialect, hard.subList(from, Math.min(from + AT_ONCE, hard.size())));
            }
        });
    }

    /** A column of each name, and a row of each text: the figure where both are the same is asked for, by a parameter and by a value. */
    private static void namesAndTexts(Connection database, Dialect dialect, List<String> hard) throws SQLException {
        String category = hard.get(0) + " of";
        List<Column> columns = new ArrayList<>(List.of(Column.texts(category, hard.toArray(String[]::new))));
        hard.forEach(name -> columns.add(Column.numbers(name, IntStream.range(0, hard.size()).mapToDouble(row -> row).toArray())));
        Table table = Table.of("rows", columns.toArray(Column[]::new));
        load(database, dialect, Map.of("rows", table));
        for (String wanted : hard) {
            Catalog known = new Catalog(Map.of("rows", table.schema()), Settings.NONE.with(wanted, wanted));
            Formula there = Formulas.choose(Formulas.column(category).equalTo(Formulas.text(wanted)).and(Formulas.column(category).equalTo(Formulas.setting(wanted))), Formulas.column(wanted), Formulas.absent());
            Plan plan = Chart.of(category, Columns.of(there)).named("chart of " + wanted).plan(Pipeline.of("rows"), known);
            Sql.Parametrised statement = Sql.of(plan, known).rowsBy(NUMBERED).in(dialect);
            List<String> found = new ArrayList<>();
            for (String text : List.of(statement.text(), Sql.of(plan, known).rowsBy(NUMBERED).withValues(dialect))) {
                try (PreparedStatement query = database.prepareStatement(text)) {
                    if (text.equals(statement.text())) {
                        set(query, 1, statement.parameters().get(0), 0);
                    }
                    try (ResultSet rows = query.executeQuery()) {
                        while (rows.next()) {
                            rows.getDouble(2);
                            if (!rows.wasNull()) {
                                found.add(rows.getString(1) + " " + (int) rows.getDouble(2));
                            }
                        }
                    }
                } catch (SQLException e) {
                    throw new AssertionError(wanted + ": " + e.getMessage() + "\n" + text, e);
                }
            }
            assertThat(found).as(wanted).containsExactly(wanted + " " + hard.indexOf(wanted), wanted + " " + hard.indexOf(wanted));
        }
    }

    @Test
    public void nestedFormulasGrowWithTheirDepthAlone() {
        Table table = Table.of("rows", Column.texts("name", "a"), Column.numbers("v", 1));
        Catalog known = Catalog.of(Map.of("rows", table), Settings.NONE);
        Formula nested = Formulas.column("v");
        for (int i = 0; i < 40; i++) {
            nested = Formulas.round(Formulas.least(nested, Formulas.number(100 + i)));
        }
        Plan plan = Chart.of("name", Columns.of(nested)).named("deep").plan(Pipeline.of("rows").then(new Keep(nested.above(Formulas.number(0)))).then(new Order(nested, true)), known);
        assertThat(Sql.of(plan, known).in(Dialect.DUCKDB).text()).hasSizeLessThan(200_000);
    }

    private static void load(Connection database, Dialect dialect, Map<String, Table> tables) throws SQLException {
        try (java.sql.Statement make = database.createStatement()) {
            for (Map.Entry<String, Table> table : tables.entrySet()) {
                make.execute("DROP TABLE IF EXISTS " + dialect.quoted(table.getKey()));
                List<String> fields = new ArrayList<>(List.of(dialect.quoted(NUMBERED) + " INTEGER"));
                table.getValue().columns().forEach(column -> fields.add(dialect.quoted(column.name()) + " " + dialect.type(column.kind())));
                make.execute("CREATE TABLE " + dialect.quoted(table.getKey()) + " (" + String.join(", ", fields) + ")");
                try (PreparedStatement insert = database.prepareStatement("INSERT INTO " + dialect.quoted(table.getKey()) + " VALUES (?" + ", ?".repeat(fields.size() - 1) + ")")) {
                    for (int row = table.getValue().rowCount() - 1; row >= 0; row--) {
                        insert.setInt(1, row);
                        for (int i = 0; i + 1 < fields.size(); i++) {
                            set(insert, i + 2, table.getValue().columns().get(i), row);
                        }
                        insert.executeUpdate();
                    }
                }
            }
        }
    }

    private static void set(PreparedStatement statement, int at, Column column, int row) throws SQLException {
        Object cell = RandomPlan.cell(column, row);
        if (cell instanceof LocalDate day) {
            statement.setObject(at, Date.valueOf(day));
        } else {
            statement.setObject(at, cell);
        }
    }

    private static int compare(Connection database, RandomPlan random, List<String> names, Sql.Parametrised statement) throws SQLException {
        Map<String, List<Object>> wanted = random.naive();
        List<List<Object>> found = new ArrayList<>();
        try (PreparedStatement query = database.prepareStatement(statement.text())) {
            for (int i = 0; i < statement.parameters().size(); i++) {
                set(query, i + 1, statement.parameters().get(i), 0);
            }
            try (ResultSet rows = query.executeQuery()) {
                while (rows.next()) {
                    List<Object> row = new ArrayList<>();
                    for (int i = 0; i < names.size(); i++) {
                        row.add(cell(rows, i + 2, random.plan().kind(names.get(i))));
                    }
                    found.add(row);
                }
            }
        } catch (SQLException e) {
            throw new AssertionError(random.plan().name() + ": " + e.getMessage() + "\n" + statement.text(), e);
        }
        for (int i = 0; i < names.size(); i++) {
            List<Object> cells = wanted.get(names.get(i));
            assertThat(found).as("%s: rows%n%s", random.plan().name(), statement.text()).hasSize(cells.size());
            for (int row = 0; row < cells.size(); row++) {
                Object is = found.get(row).get(i);
                boolean same = cells.get(row) instanceof Double figure && is instanceof Double other ? Math.abs(figure - other) <= CLOSE * Math.max(1, Math.abs(figure)) : Objects.equals(cells.get(row), is);
                assertThat(same).as("%s, row %d: %s is %s, not %s%n%s%n%s", random.plan().name(), row, names.get(i), is, cells.get(row), random.plan().column(names.get(i)).formula(), statement.text()).isTrue();
            }
        }
        return names.size();
    }

    private static Object cell(ResultSet rows, int at, Kind kind) throws SQLException {
        Object cell = switch (kind) {
            case NUMBER -> (Object) rows.getDouble(at);
            case TEXT -> rows.getString(at);
            case DATE -> rows.getObject(at, LocalDate.class);
            case TRUTH -> rows.getBoolean(at);
        };
        return rows.wasNull() ? null : cell;
    }
}
