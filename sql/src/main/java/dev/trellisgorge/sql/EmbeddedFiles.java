package dev.trellisgorge.sql;

import dev.trellisgorge.file.Temporaries;
import dev.trellisgorge.file.AtomicFiles;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.table.Schema;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.Login;
import java.io.IOException;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;

/** What the embedded engine reads: files by itself, and rows that it is given. */
final class EmbeddedFiles {
    private static final String ROW = "file_row_number";

    private final Connection connection;
    private final Dialect dialect;
    private final Login login;
    private int functions;

    EmbeddedFiles(Connection connection, Dialect dialect, Login login) {
        this.connection = connection;
        this.dialect = dialect;
        this.login = login;
    }

    /** @throws BadInput where it is no Parquet file */
    TableSource parquet(DatabaseTable table, DatabaseTable.InParquet file) throws SQLException {
        String from = "read_parquet(" + path(file.file()) + ", file_row_number = true)";
        Place place = Place.inFile(file.shown());
        try {
            return TableSource.of(from, DatabaseColumns.of(Questions.types(connection, from).without(ROW), table, from, dialect, Connections.zoneName(dialect, login), place, Questions.of(connection)), Optional.of(dialect.quoted(ROW)));
        } catch (SQLException e) {
            throw new BadInput(place, ProblemKind.UNREADABLE, "is no Parquet file that can be read: " + String.valueOf(e.getMessage()).lines().findFirst().orElse(""));
        }
    }

    /** Rows that the engine is given. @param copied the table whose rows they are, where they are at hand */
    TableSource fed(RowFeed feed, Schema schema, Optional<Table> copied) throws SQLException {
        String function = "rows " + ++functions;
        feed.register(connection, function);
        String number = schema.free("row");
        List<String> cells = new ArrayList<>();
        for (int i = 0; i < schema.fields().size(); i++) {
            cells.add(RowFeed.column(i) + " AS " + dialect.quoted(schema.fields().get(i).name()));
        }
        cells.add(feed.number() + " AS " + dialect.quoted(number));
        String from = "(SELECT " + String.join(", ", cells) + " FROM " + dialect.quoted(function) + "()) AS " + dialect.quoted("fed");
        return new TableSource(from, schema, Optional.of(dialect.quoted(number)), copied, true);
    }

    private static Path spilled() {
        try {
            return Temporaries.placeOfFolder();
        } catch (IOException e) {
            throw new BadInput(Place.of(Temporaries.NAMED), ProblemKind.NOT_WRITABLE, "can't be used: " + AtomicFiles.reason(e));
        }
    }

    private String path(Path file) {
        return dialect.text(file.toAbsolutePath().toString());
    }

    /** From now on the engine opens these files and no others, fetches nothing, and keeps what finds no room in the folder for temporary files. */
    void lock(List<Path> files) throws SQLException {
        try (Statement set = connection.createStatement()) {
            set.execute("SET temp_directory = " + path(spilled()));
            set.execute("SET allowed_paths = [" + files.stream().map(this::path).collect(Collectors.joining(", ")) + "]");
            set.execute("SET enable_external_access = false");
            set.execute("SET lock_configuration = true");
        }
    }
}
