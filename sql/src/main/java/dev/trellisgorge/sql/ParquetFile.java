package dev.trellisgorge.sql;

import dev.trellisgorge.file.Temporaries;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.Limits;
import dev.trellisgorge.tables.Login;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.ZoneId;
import java.util.Map;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;

/** Reads and writes Parquet (Apache Parquet format, version 2), by the embedded engine. Thread-safe: it holds no state. */
public final class ParquetFile {
    private ParquetFile() {
    }

    /**
     * Reads a file with its rows in their order; the kinds of its columns are those of its schema.
     *
     * @param name   what the table is to be called
     * @param kinds  of columns that are stated: codes as texts, or what would be codes as figures
     * @param limits how much is read
     * @param zone   whose days those of moments are
     * @throws BadInput where it is no such file, holds more, or the engine is not on the class path
     */
    public static Table read(String name, DatabaseTable.InParquet file, Map<String, Kind> kinds, Limits limits, ZoneId zone) {
        if (!Files.exists(file.file())) {
            throw new BadInput(Place.inFile(file.shown()), ProblemKind.UNREADABLE, "there is no such file");
        }
        DatabaseTable there = new DatabaseTable(name, file, Optional.empty()).kinds(kinds);
        try (Database database = Database.open(Login.to("jdbc:duckdb:").in(zone), Dialect.DUCKDB, List.of(there), Settings.NONE, false)) {
            Pipeline rows = Pipeline.of(name);
            if (database.notes().count(rows) * rows.schema(database.known()).fields().size() > limits.cells()) {
                throw new BadInput(Place.inFile(file.shown()), ProblemKind.TOO_LARGE, "the file has more cells than the " + limits.cells() + " that are read");
            }
            return database.run(rows);
        }
    }

    /**
     * Writes a table with its rows in their order: numbers as doubles, days as dates, truths as booleans, missing cells as null. The stream is left open.
     *
     * @throws BadInput where the engine is not on the class path
     */
    public static void write(Table table, OutputStream out) throws IOException {
        Path held = Temporaries.make();
        Login login = Login.to("jdbc:duckdb:");
        try (Connection connection = Connections.open(login, Dialect.DUCKDB, true, Place.of(""))) {
            TableSource rows = new EmbeddedFiles(connection, Dialect.DUCKDB, login).fed(RowFeed.of(table), table.schema(), Optional.of(table));
            String columns = table.columns().stream().map(column -> Dialect.DUCKDB.quoted(column.name())).collect(Collectors.joining(", "));
            try (Statement write = connection.createStatement()) {
                write.execute("COPY (SELECT " + columns + " FROM " + rows.from() + " ORDER BY " + rows.rowsBy().orElseThrow() + ") TO " + Dialect.DUCKDB.text(held.toString()) + " (FORMAT PARQUET)");
            }
            Files.copy(held, out);
        } catch (SQLException e) {
            throw login.failed(e, Place.of("table '" + table.name() + "'"));
        } finally {
            Temporaries.remove(held);
        }
    }
}
