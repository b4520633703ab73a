package dev.trellisgorge.sql;

import dev.trellisgorge.engine.Temporaries;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.Login;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.stream.Collectors;

/** Writes Parquet (Apache Parquet format, version 2), by the embedded engine. Thread-safe: it holds no state. */
public final class ParquetFile {
    private ParquetFile() {
    }

    /**
     * Writes a table with its rows in their order: numbers as doubles, days as dates, truths as booleans, missing cells as null. The stream is left open.
     *
     * @throws dev.trellisgorge.problem.BadInput where the engine is not on the class path
     */
    public static void write(Table table, OutputStream out) throws IOException {
        Path held = Temporaries.make();
        Login login = Login.to("jdbc:duckdb:");
        try (Connection connection = login.open(Place.of(""))) {
            String copy = Dialect.DUCKDB.quoted("copy");
            String number = table.schema().free("row");
            new EmbeddedFiles(connection, Dialect.DUCKDB).copy(table, copy, number);
            String columns = table.columns().stream().map(column -> Dialect.DUCKDB.quoted(column.name())).collect(Collectors.joining(", "));
            try (Statement write = connection.createStatement()) {
                write.execute("COPY (SELECT " + columns + " FROM " + copy + " ORDER BY " + Dialect.DUCKDB.quoted(number) + ") TO " + Dialect.DUCKDB.text(held.toString()) + " (FORMAT PARQUET)");
            }
            Files.copy(held, out);
        } catch (SQLException e) {
            throw login.failed(e, Place.of("table '" + table.name() + "'"));
        } finally {
            Temporaries.remove(held);
        }
    }
}
