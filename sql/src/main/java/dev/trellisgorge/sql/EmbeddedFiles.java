package dev.trellisgorge.sql;

import dev.trellisgorge.engine.Temporaries;
import dev.trellisgorge.engine.Writing;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Schema;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.FileHead;
import dev.trellisgorge.tables.JsonHead;
import dev.trellisgorge.tables.QueryTable;
import dev.trellisgorge.tables.TextHead;
import java.io.BufferedWriter;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/** Files that the embedded engine reads by itself. */
final class EmbeddedFiles {
    private static final String ROW = "file_row_number";

    private final Connection connection;
    private final Dialect dialect;

    EmbeddedFiles(Connection connection, Dialect dialect) {
        this.connection = connection;
        this.dialect = dialect;
    }

    /** @throws BadInput where it is no Parquet file */
    TableSource parquet(String name, Path file) throws SQLException {
        String from = "read_parquet(" + path(file) + ", file_row_number = true)";
        Place place = Place.inFile(file.toString());
        try (Statement ask = connection.createStatement(); ResultSet rows = ask.executeQuery("SELECT * FROM " + from + " LIMIT 0")) {
            List<Field> fields = QueryTable.fields(rows.getMetaData()).stream().filter(field -> !field.name().equals(ROW)).toList();
            return new TableSource(from, Schema.of(name, place, fields), Optional.of(dialect.quoted(ROW)), Optional.empty());
        } catch (SQLException e) {
            throw new BadInput(place, "is no Parquet file that can be read: " + String.valueOf(e.getMessage()).lines().findFirst().orElse(""));
        }
    }

    /** Copies a table into a temporary one with its rows numbered: by way of a file, as rows that are inserted one by one take long. */
    void copy(Table table, String quoted, String number) throws SQLException {
        Path held = null;
        try (Statement make = connection.createStatement()) {
            held = Temporaries.make();
            try (BufferedWriter out = Files.newBufferedWriter(held, StandardCharsets.UTF_8)) {
                for (int row = 0; row < table.rowCount(); row++) {
                    out.write(String.valueOf(row + 1));
                    for (Column column : table.columns()) {
                        out.write(',');
                        if (column.isPresent(row)) {
                            out.write(column.kind() == Kind.TEXT ? "\"" + column.written(row).replace("\"", "\"\"") + "\"" : column.written(row));
                        }
                    }
                    out.write('\n');
                }
            }
            StringBuilder columns = new StringBuilder("'row': 'INTEGER'");
            StringBuilder named = new StringBuilder("\"row\" AS " + dialect.quoted(number));
            for (int i = 0; i < table.columns().size(); i++) {
                columns.append(", '").append(column(i)).append("': '").append(dialect.type(table.columns().get(i).kind())).append("'");
                named.append(", ").append(column(i)).append(" AS ").append(dialect.quoted(table.columns().get(i).name()));
            }
            make.execute("CREATE TEMPORARY TABLE " + quoted + " AS SELECT " + named + " FROM read_csv(" + dialect.text(held.toString()) + ", auto_detect = false, header = false, delim = ',', quote = '\"', escape = '\"', new_line = '\\n', nullstr = '',"
                    + " allow_quoted_nulls = false, columns = {" + columns + "})");
        } catch (IOException e) {
            throw new BadInput(Place.of("table '" + table.name() + "'"), "can't be copied into the folder for temporary files, '" + Temporaries.folder() + "': " + Writing.reason(e));
        } finally {
            if (held != null) {
                Temporaries.remove(held);
            }
        }
    }

    /** The rows of a file as the engine reads them, which are those of the reader here if all of it is plain. */
    TableSource plain(String name, DatabaseTable.InFile file) {
        FileHead head = file.head();
        boolean byName = head instanceof JsonHead;
        List<String> cells = new ArrayList<>();
        for (int i = 0; i < head.fields().size(); i++) {
            Field field = head.fields().get(i);
            String cell = byName ? dialect.quoted(field.name()) : column(i);
            cells.add((byName && field.kind() == Kind.TEXT ? "NULLIF(" + cell + ", '')" : cell) + " AS " + dialect.quoted(field.name()));
        }
        Schema schema = Schema.of(name, Place.inFile(file.file().toString()), head.fields());
        String number = dialect.quoted(schema.free("row"));
        String from = head instanceof JsonHead json ? rows(file.file(), json) : rows(file.file(), (TextHead) head);
        TableSource.Start start = new TableSource.Start(selected(cells, from), head.rows());
        cells.add("ROW_NUMBER() OVER () AS " + number);
        return new TableSource(selected(cells, from), schema, Optional.of(number), Optional.empty(), Optional.of(start));
    }

    private String selected(List<String> cells, String from) {
        return "(SELECT " + String.join(", ", cells) + " FROM " + from + ") AS " + dialect.quoted("file");
    }

    private String path(Path file) {
        return dialect.text(file.toAbsolutePath().toString());
    }

    /** From now on the engine opens these files and no others, fetches nothing, and keeps what finds no room in the folder for temporary files. */
    void lock(List<Path> files) throws SQLException {
        try (Statement set = connection.createStatement()) {
            set.execute("SET temp_directory = " + path(Temporaries.folder().resolve("gorge-spill-" + ProcessHandle.current().pid())));
            set.execute("SET allowed_paths = [" + files.stream().map(this::path).collect(Collectors.joining(", ")) + "]");
            set.execute("SET enable_external_access = false");
            set.execute("SET lock_configuration = true");
        }
    }

    private static String column(int at) {
        return "c" + at;
    }

    private String rows(Path file, TextHead head) {
        return "read_csv(" + path(file) + ", auto_detect = false, header = true, delim = " + dialect.text(String.valueOf(head.delimiter()))
                + ", quote = '\"', escape = '\"', strict_mode = true, columns = {" + columns(head, EmbeddedFiles::column) + "})";
    }

    private String rows(Path file, JsonHead head) {
        return "read_json(" + path(file) + ", auto_detect = false, format = " + (head.lines() ? "'newline_delimited'" : "'array'") + ", columns = {" + columns(head, i -> head.fields().get(i).name()) + "})";
    }

    private String columns(FileHead head, IntFunction<String> named) {
        return IntStream.range(0, head.fields().size()).mapToObj(i -> dialect.text(named.apply(i)) + ": '" + dialect.type(head.fields().get(i).kind()) + "'").collect(Collectors.joining(", "));
    }
}
