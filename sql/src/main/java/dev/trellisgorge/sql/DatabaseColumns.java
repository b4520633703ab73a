package dev.trellisgorge.sql;

import dev.trellisgorge.problem.Note;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Schema;
import dev.trellisgorge.tables.ColumnTypes;
import dev.trellisgorge.tables.Login;
import java.math.BigDecimal;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;

/**
 * The columns of a table or a query as a database has them. One of whole numbers is a column of codes, and so of texts, where a double would change one of them, unless its kind is stated.
 * A query is not run to find that out: its keys are compared as the database keeps them, and a code that would come over as a figure is an error.
 *
 * @param decimals those of figures that the database keeps as decimal or whole numbers
 * @param notes    of those that are codes, and those whose days depend on the time zone
 */
record DatabaseColumns(Schema schema, Set<String> decimals, List<Note> notes) {
    private static final BigDecimal DOUBLES_UP_TO = BigDecimal.valueOf(1L << 53);
    private static final String BEYOND = DOUBLES_UP_TO.toPlainString();

    /**
     * Asks for them, and for the least and the greatest cell of columns that may hold codes.
     *
     * @param from    what stands behind FROM
     * @param login   whose time zone the days of moments are of
     * @param without a column that is none of the table's own; blank where there is none
     * @throws dev.trellisgorge.problem.BadInput where a column is of no kind that is known, or a kind is stated of one that is not there
     */
    static DatabaseColumns of(Connection connection, DatabaseTable table, String from, String without, Dialect dialect, Login login, Place place) throws SQLException {
        ColumnTypes types;
        try (PreparedStatement query = connection.prepareStatement("SELECT * FROM " + from + " WHERE 1 = 0"); ResultSet rows = query.executeQuery()) {
            types = ColumnTypes.of(rows.getMetaData());
        }
        List<Note> notes = new ArrayList<>(types.zoned().stream().map(column -> ColumnTypes.days(column, Connections.zoneName(dialect, login))).toList());
        Set<String> codes = new HashSet<>();
        List<String> wide = types.wide().stream().filter(column -> !column.equals(without) && table.kinds().get(column) != Kind.TEXT).toList();
        for (String column : beyond(connection, from, table.rows() instanceof DatabaseTable.Asked ? List.of() : wide, dialect)) {
            List<String> cells = inexact(connection, from, column, dialect);
            if (!cells.isEmpty()) {
                boolean figures = table.kinds().containsKey(column);
                notes.add(figures ? ColumnTypes.rounded(column, cells) : ColumnTypes.codes(column, cells));
                if (!figures) {
                    codes.add(column);
                }
            }
        }
        List<Field> fields = types.fields().stream().filter(field -> !field.name().equals(without)).map(field -> codes.contains(field.name()) ? Field.of(field.name(), Kind.TEXT) : field).toList();
        Schema schema = Schema.of(table.name(), place, new ColumnTypes(fields, types.decimals(), List.of(), List.of()).stated(table.kinds(), place));
        Predicate<String> figures = column -> !column.equals(without) && schema.field(column).kind() == Kind.NUMBER && !(table.kinds().containsKey(column) && wide.contains(column));
        return new DatabaseColumns(schema, types.decimals().stream().filter(figures).collect(Collectors.toSet()), notes);
    }

    /** Those of some columns that reach beyond the whole numbers that all are doubles. */
    private static List<String> beyond(Connection connection, String from, List<String> columns, Dialect dialect) throws SQLException {
        if (columns.isEmpty()) {
            return List.of();
        }
        String ends = columns.stream().map(dialect::quoted).map(column -> "MIN(" + column + "), MAX(" + column + ")").collect(Collectors.joining(", "));
        List<String> beyond = new ArrayList<>();
        try (PreparedStatement query = connection.prepareStatement("SELECT " + ends + " FROM " + from); ResultSet row = query.executeQuery()) {
            row.next();
            for (int i = 0; i < columns.size(); i++) {
                if (isBeyond(row.getString(2 * i + 1)) || isBeyond(row.getString(2 * i + 2))) {
                    beyond.add(columns.get(i));
                }
            }
        }
        return beyond;
    }

    private static boolean isBeyond(String cell) {
        try {
            return cell != null && new BigDecimal(cell).abs().compareTo(DOUBLES_UP_TO) > 0;
        } catch (NumberFormatException e) {
            return true; // a NaN, behind which others may be
        }
    }

    /** The least cells that a double would change. */
    private static List<String> inexact(Connection connection, String from, String column, Dialect dialect) throws SQLException {
        String cell = dialect.quoted(column);
        List<String> found = new ArrayList<>();
        try (PreparedStatement query = connection.prepareStatement("SELECT DISTINCT " + cell + " FROM " + from + " WHERE " + cell + " > " + BEYOND + " OR " + cell + " < -" + BEYOND + " ORDER BY " + cell); ResultSet rows = query.executeQuery()) {
            while (rows.next() && found.size() <= ColumnTypes.LISTED) {
                if (ColumnTypes.isCode(rows.getString(1))) {
                    found.add(rows.getString(1));
                }
            }
        }
        return found;
    }
}
