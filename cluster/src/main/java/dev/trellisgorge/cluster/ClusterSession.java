package dev.trellisgorge.cluster;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.sql.DatabaseTable;
import dev.trellisgorge.sql.Dialect;
import dev.trellisgorge.sql.Session;
import dev.trellisgorge.sql.Sql;
import dev.trellisgorge.sql.TableSource;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.tables.ColumnTypes;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.stream.IntStream;
import org.apache.spark.SparkStageInfo;
import org.apache.spark.api.java.JavaSparkContext;
import org.apache.spark.api.java.JavaSparkStatusTracker;
import org.apache.spark.sql.Row;
import org.apache.spark.sql.SparkSession;

/** Statements on a cluster: its workers do what they ask for, and only what they give comes over. */
final class ClusterSession implements Session {
    private final SparkSession spark;
    private final String shown;
    private final Runnable closing;
    private volatile boolean cancelled;
    private volatile boolean abandoned;

    /**
     * @param shown   how the cluster is called in messages
     * @param closing done when it is closed
     */
    ClusterSession(SparkSession spark, String shown, Runnable closing) {
        this.spark = spark;
        this.shown = shown;
        this.closing = closing;
    }

    @Override
    public Dialect dialect() {
        return Dialect.SPARK;
    }

    @Override
    public Map<String, TableSource> sources(List<DatabaseTable> tables) {
        return new ClusterTables(spark).sources(tables);
    }

    @Override
    public List<Column> rows(String name, Sql.Parametrised statement, List<Field> fields, boolean few) {
        cancelled = false;
        abandoned = false;
        WorkersWatch watch = new WorkersWatch(spark.sparkContext(), () -> abandoned = true);
        try {
            Object[] settings = statement.parameters().stream().map(setting -> setting.isPresent(0) ? cell(setting, 0) : null).toArray();
            return columns(name, spark.sql(statement.text(), settings).collectAsList(), fields);
        } catch (BadInput wrong) {
            throw wrong;
        } catch (Exception e) { // Scala's methods throw checked ones that they don't declare
            Place place = Place.of("table '" + name + "'");
            throw cancelled ? new BadInput(place, ProblemKind.CANCELLED, "the statement was cancelled", e)
                    : abandoned ? new BadInput(place, ProblemKind.CONNECTION, "the connection to '" + shown + "' failed: all its workers are gone", e)
                    : spark.sparkContext().isStopped() ? new BadInput(place, ProblemKind.CONNECTION, "the connection to '" + shown + "' failed: " + Said.of(e), e) : new BadInput(place, ProblemKind.DATABASE, "the cluster says: " + Said.of(e), e);
        } finally {
            watch.close();
        }
    }

    /** A cell as a row of the cluster has it. */
    static Object cell(Column column, int row) {
        return switch (column.kind()) {
            case NUMBER -> (Object) column.number(row);
            case TEXT -> column.written(row);
            case DATE -> column.date(row).orElseThrow();
            case TRUTH -> column.number(row) == 1;
        };
    }

    private static List<Column> columns(String table, List<Row> rows, List<Field> fields) {
        return IntStream.range(0, fields.size()).mapToObj(at -> column(table, rows, at, fields.get(at))).toList();
    }

    private static Column column(String table, List<Row> rows, int at, Field field) {
        String name = field.name();
        if (field.kind() == Kind.TEXT) {
            return Column.texts(name, rows.stream().map(row -> row.isNullAt(at) ? null : String.valueOf(row.get(at))).toArray(String[]::new));
        }
        if (field.kind() == Kind.NUMBER) {
            for (int row = 0; row < rows.size(); row++) {
                if (!rows.get(row).isNullAt(at) && isCode(rows.get(row).get(at))) {
                    throw ColumnTypes.unexpectedCode(Place.of("table '" + table + "'").within("row " + (row + 1)).within("column '" + name + "'"), name, rows.get(row).get(at).toString());
                }
            }
        }
        return Column.owning(name, field.kind(), rows.stream().mapToDouble(row -> row.isNullAt(at) ? Double.NaN : figure(row.get(at))).toArray());
    }

    private static boolean isCode(Object cell) {
        return (cell instanceof Long || cell instanceof BigDecimal) && ColumnTypes.isCode(cell.toString());
    }

    private static double figure(Object cell) {
        return cell instanceof LocalDate day ? day.toEpochDay() : cell instanceof Boolean truth ? truth ? 1 : 0 : ((Number) cell).doubleValue() + 0.0;
    }

    @Override
    public void make(List<String> statements) {
        if (!spark.conf().get(ClusterAddress.CATALOGUE, "in-memory").equals("hive")) {
            throw new BadInput(Place.of("the views"), ProblemKind.CONNECTION, "the cluster's catalogue is gone with the connection, and they with it; name one that lasts in the URL, '?" + ClusterAddress.CATALOGUE + "=hive&" + ClusterAddress.METASTORE + "=thrift://HOST:PORT', or print them with 'gorge sql --view --dialect spark'");
        }
        try {
            statements.forEach(spark::sql);
        } catch (Exception e) {
            throw new BadInput(Place.of("the views"), ProblemKind.DATABASE, "the cluster says: " + Said.of(e), e);
        }
    }

    /** Of the tasks that run together now; others may follow. */
    @Override
    public OptionalDouble share() {
        JavaSparkStatusTracker tracker = JavaSparkContext.fromSparkContext(spark.sparkContext()).statusTracker();
        long all = 0;
        long done = 0;
        for (int id : tracker.getActiveStageIds()) {
            SparkStageInfo stage = tracker.getStageInfo(id);
            all += stage == null ? 0 : stage.numTasks();
            done += stage == null ? 0 : stage.numCompletedTasks();
        }
        return all == 0 ? OptionalDouble.empty() : OptionalDouble.of((double) done / all);
    }

    @Override
    public void cancel() {
        cancelled = true;
        if (!spark.sparkContext().isStopped()) {
            spark.sparkContext().cancelAllJobs();
        }
    }

    @Override
    public void close() {
        closing.run();
    }

    @Override
    public String toString() {
        return shown;
    }
}
