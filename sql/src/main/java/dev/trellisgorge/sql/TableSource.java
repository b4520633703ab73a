package dev.trellisgorge.sql;

import dev.trellisgorge.problem.Note;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.table.Schema;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Where a statement finds the rows of a raw table.
 *
 * @param from     what stands behind FROM
 * @param schema   the columns
 * @param rowsBy   an expression that grows from row to row; none where the rows are in no order
 * @param copied   the table at hand that it is a copy of, which is gone with the connection; none where it is the database's own
 * @param passing  whether this connection alone has the rows, which several threads bring in an order that is another each time
 * @param decimals the columns of figures that the database keeps as decimal or whole numbers, which are exact: keys are compared and sums made as such, and all else is computed of the nearest doubles
 * @param notes    what is reported of its cells
 */
public record TableSource(String from, Schema schema, Optional<String> rowsBy, Optional<Table> copied, boolean passing, Set<String> decimals, List<Note> notes) {
    private static final Pattern PART = Pattern.compile("\"((?:[^\"]|\"\")+)\"|([^.\"]+)");

    public TableSource {
        Objects.requireNonNull(from, "from");
        Objects.requireNonNull(schema, "schema");
        Objects.requireNonNull(rowsBy, "rowsBy");
        Objects.requireNonNull(copied, "copied");
        decimals = Set.copyOf(decimals);
        notes = List.copyOf(notes);
    }

    /** All of whose figures are doubles. */
    public TableSource(String from, Schema schema, Optional<String> rowsBy, Optional<Table> copied, boolean passing) {
        this(from, schema, rowsBy, copied, passing, Set.of(), copied.map(Table::notes).orElse(List.of()));
    }

    /** Whose rows the database brings itself. */
    public TableSource(String from, Schema schema, Optional<String> rowsBy, Optional<Table> copied) {
        this(from, schema, rowsBy, copied, false);
    }

    /** A table or a query of the database. */
    public static TableSource of(String from, DatabaseColumns columns, Optional<String> rowsBy) {
        return new TableSource(from, columns.schema(), rowsBy, Optional.empty(), false, columns.decimals(), columns.notes());
    }

    /** A table as its place is written, which nobody asks a database for. */
    static TableSource of(DatabaseTable table, Schema schema, Dialect dialect) {
        String from = table.rows() instanceof DatabaseTable.Asked asked ? asked(asked, dialect, Place.of("table '" + table.name() + "'"))
                : table.rows() instanceof DatabaseTable.Named named ? quoted(parts(named.table()), dialect) : dialect.quoted(table.name());
        return new TableSource(from, schema, table.rowsBy().map(dialect::quoted), Optional.empty());
    }

    /** A query in the place of a table. @throws dev.trellisgorge.problem.BadInput where it may do more than its rights allow */
    public static String asked(DatabaseTable.Asked query, Dialect dialect, Place place) {
        return "(" + query.checked(dialect, place) + "\n) AS " + dialect.quoted("asked");
    }

    /** The parts of a name, which points divide where they stand in no quotes. */
    public static List<String> parts(String written) {
        List<String> parts = new ArrayList<>();
        Matcher part = PART.matcher(written);
        while (part.find()) {
            parts.add(part.group(1) != null ? part.group(1).replace("\"\"", "\"") : part.group(2).strip());
        }
        return parts.isEmpty() ? List.of(written) : parts;
    }

    public static String quoted(List<String> parts, Dialect dialect) {
        return String.join(".", parts.stream().map(dialect::quoted).toList());
    }

    /** A table that is called as the raw table is. */
    static TableSource named(String table, Schema schema, Optional<String> rowsBy, Dialect dialect) {
        return new TableSource(dialect.quoted(table), schema, rowsBy.map(dialect::quoted), Optional.empty());
    }
}
