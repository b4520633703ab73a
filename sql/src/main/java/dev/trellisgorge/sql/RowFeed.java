package dev.trellisgorge.sql;

import dev.trellisgorge.file.AtomicFiles;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Memory;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.Cells;
import dev.trellisgorge.tables.FileHead;
import dev.trellisgorge.tables.NotPlain;
import dev.trellisgorge.tables.PlainRows;
import dev.trellisgorge.tables.Progress;
import dev.trellisgorge.tables.RowReader;
import java.io.IOException;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Function;
import java.util.stream.IntStream;
import org.duckdb.DuckDBColumnType;
import org.duckdb.DuckDBDataChunkWriter;
import org.duckdb.DuckDBFunctions;
import org.duckdb.DuckDBTableFunction;
import org.duckdb.DuckDBTableFunctionBindInfo;
import org.duckdb.DuckDBTableFunctionBuilder;
import org.duckdb.DuckDBTableFunctionCallInfo;
import org.duckdb.DuckDBTableFunctionInitInfo;
import org.duckdb.DuckDBTableFunctionState;
import org.duckdb.DuckDBWritableVector;

/**
 * Gives the embedded engine rows as it asks for them, by threads of its own: those of a table at hand, or of a plain file, whose cells are those of the
 * reader here. That a row is not plain may show only while a statement runs, or where that does not need all rows, after it. Thread-safe.
 */
final class RowFeed implements DuckDBTableFunction<RowFeed, RowFeed.Scan, RowFeed.Reader>, AutoCloseable {
    private final Place place;
    private final List<Field> fields;
    private final Function<Progress, PlainRows> rows;
    /** What has begun to be read, for the first statement. */
    private final AtomicReference<PlainRows> begun = new AtomicReference<>();
    private volatile boolean whole;
    private volatile Optional<RuntimeException> failed = Optional.empty();
    private volatile OptionalDouble share = OptionalDouble.empty();

    private RowFeed(Place place, List<Field> fields, Function<Progress, PlainRows> rows, boolean whole) {
        this.place = place;
        this.fields = fields;
        this.rows = rows;
        this.whole = whole;
    }

    /** @param whole whether all of it is known to be plain */
    static RowFeed of(DatabaseTable.InFile rows, boolean whole) {
        Path file = rows.file();
        FileHead head = rows.head();
        RowFeed feed = new RowFeed(Place.inFile(rows.shown()), head.fields(), progress -> head.rows(file, progress), whole);
        if (!whole) {
            feed.begun.set(head.rowsAhead(file, feed::told));
        }
        return feed;
    }

    static RowFeed of(Table table) {
        return new RowFeed(table.place(), table.schema().fields(), progress -> new TableRows(table), true);
    }

    /** A reading of all rows for one statement. @param columns that are wanted, by their places @param end told when it ends */
    record Scan(PlainRows rows, int[] columns, Runnable end) implements DuckDBTableFunctionState {
        @Override
        public void close() throws IOException {
            end.run();
            rows.close();
        }
    }

    /** What a thread reads rows by, and where they are before they are handed on. */
    static final class Reader {
        private RowReader rows;
        private Cells<byte[]> cells;
    }

    /** The engine calls the rows so from now on; each has its columns, called c0, c1 and so on, and its number. */
    void register(Connection connection, String name) throws SQLException {
        try (DuckDBTableFunctionBuilder builder = DuckDBFunctions.tableFunction()) {
            builder.withName(name).withProjectionPushdown().withFunction(this).register(connection);
        }
    }

    /** What made a statement fail, or would make what it gave untrue. @throws ReadOtherwise where there is a row that is to be read with care */
    void check() {
        if (failed.isPresent()) {
            throw failed.get();
        } else if (!whole) {
            refuseOthers();
            whole = true;
        }
    }

    private void refuseOthers() {
        PlainRows all = rows.apply(Progress.NONE);
        try {
            if (!all.areReadToTheEnd(fields)) {
                throw new ReadOtherwise(place);
            }
        } catch (IOException e) {
            throw new BadInput(place, ProblemKind.UNREADABLE, "can't be read: " + AtomicFiles.reason(e));
        } finally {
            closed(all);
        }
    }

    /** How far the statement is that reads it, from 0 to 1; empty where none does. */
    OptionalDouble share() {
        return share;
    }

    private void told(String shown, double part) {
        share = OptionalDouble.of(part);
    }

    /** Ends what was begun and nobody asked for. */
    @Override
    public void close() {
        PlainRows unread = begun.getAndSet(null);
        if (unread != null) {
            closed(unread);
        }
    }

    private void closed(PlainRows read) {
        try {
            read.close();
        } catch (IOException e) {
            throw new BadInput(place, ProblemKind.UNREADABLE, "can't be closed: " + AtomicFiles.reason(e));
        }
    }

    /** What a column is called. */
    static String column(int at) {
        return "c" + at;
    }

    /** What the number of a row is called. */
    String number() {
        return column(fields.size());
    }

    @Override
    public RowFeed bind(DuckDBTableFunctionBindInfo table) {
        IntStream.range(0, fields.size()).forEach(i -> table.addResultColumn(column(i), switch (fields.get(i).kind()) {
            case NUMBER -> DuckDBColumnType.DOUBLE;
            case TEXT -> DuckDBColumnType.VARCHAR;
            case DATE -> DuckDBColumnType.DATE;
            case TRUTH -> DuckDBColumnType.BOOLEAN;
        }));
        table.addResultColumn(number(), DuckDBColumnType.BIGINT);
        return this;
    }

    @Override
    public Scan init(DuckDBTableFunctionInitInfo asked) {
        PlainRows scanned;
        try {
            scanned = Optional.ofNullable(begun.getAndSet(null)).orElseGet(() -> rows.apply(this::told));
        } catch (BadInput e) {
            failed = Optional.of(e);
            throw e;
        }
        asked.setMaxThreads(scanned.mostReaders());
        return new Scan(scanned, IntStream.range(0, (int) asked.getColumnCount()).map(i -> (int) asked.getColumnIndex(i)).toArray(), () -> share = OptionalDouble.empty());
    }

    @Override
    public Reader localInit(DuckDBTableFunctionInitInfo asked) {
        return new Reader();
    }

    @Override
    public long apply(DuckDBTableFunctionCallInfo call, DuckDBDataChunkWriter into) throws NotPlain {
        try {
            return given(call.getInitData(), call.getLocalInitData(), into);
        } catch (NotPlain e) {
            failed = Optional.of(new ReadOtherwise(place));
            throw e;
        } catch (BadInput e) {
            failed = Optional.of(e);
            throw e;
        } catch (OutOfMemoryError e) {
            failed = Optional.of(Memory.ended(place, "a part of the file", "run fewer things at a time"));
            throw e;
        }
    }

    private long given(Scan scan, Reader reader, DuckDBDataChunkWriter into) throws NotPlain {
        if (reader.rows == null) {
            reader.rows = scan.rows().reader();
            reader.cells = Cells.ofBytes(fields, column -> IntStream.of(scan.columns()).anyMatch(wanted -> wanted == column), (int) into.capacity());
        }
        int count = reader.rows.read(reader.cells, (int) into.capacity());
        for (int i = 0; i < scan.columns().length && count > 0; i++) {
            give(scan.columns()[i], reader, count, into.vector(i));
        }
        if (count == 0 && scan.rows().isWhole()) {
            whole = true;
        }
        return count;
    }

    private void give(int column, Reader reader, int count, DuckDBWritableVector into) {
        if (column == fields.size()) {
            for (int row = 0; row < count; row++) {
                into.setLong(row, reader.rows.first() + row);
            }
        } else if (fields.get(column).kind() == Kind.TEXT) {
            byte[][] texts = reader.cells.texts()[column];
            into.setStringUtf8Batch(0, count == texts.length ? texts : Arrays.copyOf(texts, count));
        } else {
            give(fields.get(column).kind(), reader.cells.figures()[column], count, into);
        }
    }

    private static void give(Kind kind, double[] figures, int count, DuckDBWritableVector into) {
        for (int row = 0; row < count; row++) {
            double figure = figures[row];
            if (Double.isNaN(figure)) {
                into.setNull(row);
            } else if (kind == Kind.NUMBER) {
                into.setDouble(row, figure);
            } else if (kind == Kind.DATE) {
                into.setDate(row, LocalDate.ofEpochDay((long) figure));
            } else {
                into.setBoolean(row, figure == 1);
            }
        }
    }
}
