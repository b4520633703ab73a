package dev.trellisgorge.sql;

import dev.trellisgorge.problem.Note;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Schema;
import dev.trellisgorge.tables.ColumnTypes;
import java.math.BigDecimal;
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
public record DatabaseColumns(Schema schema, Set<String> decimals, List<Note> notes) {
    private static final BigDecimal DOUBLES_UP_TO = BigDecimal.valueOf(1L << 53);
    private static final String BEYOND = DOUBLES_UP_TO.toPlainString();

    /** Asks the database a question. */
    @FunctionalInterface
    public interface Asking<E extends Exception> {
        /** Gives the rows of a query, with their cells as texts, null for a missing one, until no more are wanted. */
        void rows(String query, Predicate<List<String>> more) throws E;
    }

    /**
     * Looks at the least and the greatest cell of columns that may hold codes.
     *
     * @param types    what the database says of its columns
     * @param from     what stands behind FROM
     * @param zoneName whose days those of moments are, for notes
     * @throws dev.trellisgorge.problem.BadInput where a column is of no kind that is known, or a kind is stated of one that is not there
     */
    public static <E extends Exception> DatabaseColumns of(ColumnTypes types, DatabaseTable table, String from, Dialect dialect, String zoneName, Place place, Asking<E> asking) throws E {
        List<Note> notes = new ArrayList<>(types.zoned().stream().map(column -> ColumnTypes.days(column, zoneName)).toList());
        Set<String> codes = new HashSet<>();
        List<String> wide = types.wide().stream().filter(column -> table.kinds().get(column) != Kind.TEXT).toList();
        boolean isQuery = table.rows() instanceof DatabaseTable.Asked;
        for (String column : beyond(isQuery ? List.of() : wide, from, dialect, asking)) {
            List<String> cells = inexact(column, from, dialect, asking);
            if (!cells.isEmpty()) {
                boolean figures = table.kinds().containsKey(column);
                notes.add(figures ? ColumnTypes.rounded(column, cells) : ColumnTypes.codes(column, cells));
                if (!figures) {
                    codes.add(column);
                }
            }
        }
        wide.stream().filter(column -> isQuery && table.kinds().containsKey(column)).forEach(column -> notes.add(ColumnTypes.maybeRounded(column)));
        List<Field> fields = types.fields().stream().map(field -> codes.contains(field.name()) ? Field.of(field.name(), Kind.TEXT) : field).toList();
        Schema schema = Schema.of(table.name(), place, new ColumnTypes(fields, types.decimals(), List.of(), List.of()).stated(table.kinds(), place));
        Predicate<String> figures = column -> schema.field(column).kind() == Kind.NUMBER && !(table.kinds().containsKey(column) && wide.contains(column));
        return new DatabaseColumns(schema, types.decimals().stream().filter(figures).collect(Collectors.toSet()), notes);
    }

    /** Those of some columns that reach beyond the whole numbers that all are doubles. */
    private static <E extends Exception> List<String> beyond(List<String> columns, String from, Dialect dialect, Asking<E> asking) throws E {
        if (columns.isEmpty()) {
            return List.of();
        }
        String ends = columns.stream().map(dialect::quoted).map(column -> "MIN(" + column + "), MAX(" + column + ")").collect(Collectors.joining(", "));
        List<String> row = new ArrayList<>();
        asking.rows("SELECT " + ends + " FROM " + from, row::addAll);
        List<String> beyond = new ArrayList<>();
        for (int i = 0; i < columns.size(); i++) {
            if (isBeyond(row.get(2 * i)) || isBeyond(row.get(2 * i + 1))) {
                beyond.add(columns.get(i));
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
    private static <E extends Exception> List<String> inexact(String column, String from, Dialect dialect, Asking<E> asking) throws E {
        String cell = dialect.quoted(column);
        String query = "SELECT DISTINCT " + cell + " FROM " + from + " WHERE " + cell + " > " + BEYOND + " OR " + cell + " < -" + BEYOND + " ORDER BY " + cell;
        List<String> found = new ArrayList<>();
        asking.rows(query, row -> {
            if (ColumnTypes.isCode(row.get(0))) {
                found.add(row.get(0));
            }
            return found.size() <= ColumnTypes.LISTED;
        });
        return found;
    }
}
