package dev.trellisgorge.bench;

import dev.trellisgorge.pattern.Bands;
import dev.trellisgorge.pattern.Columns;
import dev.trellisgorge.pattern.Split;
import dev.trellisgorge.pattern.ToTarget;
import dev.trellisgorge.pattern.Waterfall;
import dev.trellisgorge.plan.Plan;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Level;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.TearDown;
import org.openjdk.jmh.annotations.Warmup;

/** The series of four patterns by formula, and by SQL in an embedded column database that keeps them in a table of its own in memory. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(value = 1, jvmArgs = {"-Xms6g", "-Xmx6g", "-Xmn4g", "-XX:+UseParallelGC", "-XX:+AlwaysPreTouch"})
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 5, time = 2)
public class DatabaseBenchmark {
    private static final int ROWS = 1_000_000;
    private static final String MOVED = """
            WITH levels AS (SELECT n, value, sum(value) OVER (ORDER BY n ROWS UNBOUNDED PRECEDING) AS level FROM figures),
            steps AS (SELECT n, value, level, coalesce(lag(level) OVER (ORDER BY n), 0) AS before FROM levels),
            bars AS (SELECT *, CASE WHEN value < 0 THEN before + value ELSE before + value * 0 END AS low,
                CASE WHEN value < 0 THEN before + value * 0 ELSE before + value END AS high FROM steps),
            pieces AS (SELECT *, CASE WHEN high > 0 THEN high - greatest(low, 0) WHEN high <= 0 THEN low - high END AS piece,
                CASE WHEN low < 0 AND high > 0 THEN low END AS under FROM bars)
            SELECT CASE WHEN value IS NOT NULL THEN greatest(low, least(high, 0)) END AS spacer, CASE WHEN value >= 0 THEN piece END AS rise,
                CASE WHEN value < 0 THEN piece END AS fall, CAST(NULL AS DOUBLE) AS start, CAST(NULL AS DOUBLE) AS subtotal, CAST(NULL AS DOUBLE) AS total,
                CASE WHEN value >= 0 THEN under END AS rise_under, CASE WHEN value < 0 THEN under END AS fall_under, level FROM pieces ORDER BY n
            """;

    /** What is asked, by pattern. */
    public enum Pattern {
        split("SELECT CASE WHEN value < 400 THEN value END AS below, CASE WHEN value >= 400 THEN value END AS above FROM figures"),
        bands("""
                SELECT CASE WHEN value < 0 THEN value END AS b1, CASE WHEN value >= 0 AND value < 200 THEN value END AS b2,
                    CASE WHEN value >= 200 AND value < 400 THEN value END AS b3, CASE WHEN value >= 400 AND value < 600 THEN value END AS b4,
                    CASE WHEN value >= 600 AND value < 800 THEN value END AS b5, CASE WHEN value >= 800 THEN value END AS b6 FROM figures
                """),
        toTarget("""
                SELECT CASE WHEN value IS NOT NULL AND target IS NOT NULL THEN least(value, target) END AS met,
                    CASE WHEN value < target THEN target - greatest(value, 0) END AS remaining,
                    CASE WHEN value > target THEN value - target END AS above, CASE WHEN target IS NULL THEN value END AS unjudged FROM figures
                """),
        waterfall(MOVED);

        private final String query;

        Pattern(String query) {
            this.query = query;
        }
    }

    @Param
    private Pattern pattern;

    private Figures figures;
    private Plan plan;
    private Connection database;
    private Statement statement;

    @Setup
    public void make() throws SQLException {
        figures = new Figures(ROWS);
        plan = figures.plan(switch (pattern) {
            case split -> Columns.of("value").classify(Split.at(400));
            case bands -> Columns.of("value").classify(Bands.at(0, 200, 400, 600, 800));
            case toTarget -> ToTarget.of("value", "target");
            case waterfall -> Waterfall.of("value");
        });
        database = DriverManager.getConnection("jdbc:duckdb:");
        statement = database.createStatement();
        statement.execute("SET threads = " + Runtime.getRuntime().availableProcessors());
        statement.execute("CREATE TABLE figures AS SELECT n, CASE WHEN v <= 990 THEN v END AS value, random() * 1000 AS target"
                + " FROM (SELECT range AS n, random() * 1200 - 200 AS v FROM range(" + ROWS + "))");
    }

    @Benchmark
    public Object byFormula() {
        return figures.series(plan);
    }

    @Benchmark
    public boolean inTheDatabase() throws SQLException {
        return statement.execute("CREATE OR REPLACE TABLE series AS " + pattern.query);
    }

    @TearDown(Level.Trial)
    public void close() throws SQLException {
        database.close();
    }
}
