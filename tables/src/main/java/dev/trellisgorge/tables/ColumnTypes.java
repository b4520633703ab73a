package dev.trellisgorge.tables;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Kind;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.sql.Types;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * What a database says of the columns of a query.
 *
 * @param fields   all of them, by their kinds
 * @param decimals those of figures that are decimal or whole numbers there, and no doubles
 * @param zoned    those of moments, whose days depend on the time zone
 * @param wide     those of whole numbers that may have more digits than a double keeps
 */
public record ColumnTypes(List<Field> fields, Set<String> decimals, List<String> zoned, List<String> wide) {
    /** So many cells are listed in a note. */
    public static final int LISTED = 5;
    /** Types of numbers for which JDBC has no name. */
    private static final Pattern OWN_NUMBERS = Pattern.compile("(?i)U?(TINY|SMALL|BIG|HUGE)?INT(EGER)?");
    private static final Pattern OWN_DECIMALS = Pattern.compile("(?i)DECFLOAT");
    private static final Pattern ZONED = Pattern.compile("(?i)timestamptz|timestamp( ?\\(\\d+\\))? with time zone");
    private static final int SURE_DIGITS = 15;

    public ColumnTypes {
        fields = List.copyOf(fields);
        decimals = Set.copyOf(decimals);
        zoned = List.copyOf(zoned);
        wide = List.copyOf(wide);
    }

    /** Errors of the database are passed on. */
    public static ColumnTypes of(ResultSetMetaData columns) throws SQLException {
        List<Field> fields = new ArrayList<>();
        Set<String> decimals = new HashSet<>();
        List<String> zoned = new ArrayList<>();
        List<String> wide = new ArrayList<>();
        for (int i = 1; i <= columns.getColumnCount(); i++) {
            int type = columns.getColumnType(i);
            String typeName = String.valueOf(columns.getColumnTypeName(i));
            Field field = Field.of(columns.getColumnLabel(i), kind(type, typeName));
            fields.add(field);
            if (isZoned(type, typeName)) {
                zoned.add(field.name());
            }
            if (field.kind() == Kind.NUMBER && type != Types.REAL && type != Types.FLOAT && type != Types.DOUBLE) {
                decimals.add(field.name());
                boolean small = type == Types.TINYINT || type == Types.SMALLINT || type == Types.INTEGER;
                int digits = type == Types.DECIMAL || type == Types.NUMERIC ? columns.getPrecision(i) : 0; // 0 where any number of them is taken
                boolean figures = digits > 0 && digits <= SURE_DIGITS || columns.getScale(i) > 0;
                if (!small && !figures) {
                    wide.add(field.name());
                }
            }
        }
        return new ColumnTypes(fields, decimals, zoned, wide);
    }

    /** All but one column. */
    public ColumnTypes without(String column) {
        return new ColumnTypes(fields.stream().filter(field -> !field.name().equals(column)).toList(), decimals.stream().filter(each -> !each.equals(column)).collect(Collectors.toSet()),
                zoned.stream().filter(each -> !each.equals(column)).toList(), wide.stream().filter(each -> !each.equals(column)).toList());
    }

    static boolean isZoned(int type, String name) {
        return type == Types.TIMESTAMP_WITH_TIMEZONE || ZONED.matcher(name).matches();
    }

    /** Of which time zone the days of a column of moments are. */
    public static Note days(String column, String zone) {
        return new Note("'" + column + "' holds moments, whose days are those of the time zone " + zone, List.of());
    }

    /**
     * The columns with some kinds that are stated.
     *
     * @param place of the table, for messages
     * @throws BadInput where the cells of one can't be of its kind without a query that says how, or a column is not there
     */
    public List<Field> stated(Map<String, Kind> kinds, Place place) {
        Problems problems = new Problems();
        kinds.forEach((column, kind) -> {
            Optional<Field> field = fields.stream().filter(each -> each.name().equals(column)).findFirst();
            if (field.isEmpty()) {
                problems.add(place, ProblemKind.UNKNOWN_NAME, "'kinds': there is no column '" + column + "'. " + Nearest.hint(column, fields.stream().map(Field::name).toList()));
            } else if (kind != field.get().kind() && !(kind == Kind.TEXT && decimals.contains(column))) {
                problems.add(place, ProblemKind.WRONG_TYPE, "'kinds': '" + column + "' is " + field.get().kind().phrase() + " in the database, not " + kind.phrase() + "; convert it in a query");
            }
        });
        problems.throwIfAny();
        return fields.stream().map(field -> kinds.containsKey(field.name()) ? Field.of(field.name(), kinds.get(field.name())) : field).toList();
    }

    private static Kind kind(int type, String name) {
        return switch (type) {
            case Types.TINYINT, Types.SMALLINT, Types.INTEGER, Types.BIGINT, Types.REAL, Types.FLOAT, Types.DOUBLE, Types.DECIMAL, Types.NUMERIC -> Kind.NUMBER;
            case Types.DATE, Types.TIMESTAMP, Types.TIMESTAMP_WITH_TIMEZONE -> Kind.DATE;
            case Types.BOOLEAN, Types.BIT -> Kind.TRUTH;
            default -> OWN_NUMBERS.matcher(name).matches() || OWN_DECIMALS.matcher(name).matches() ? Kind.NUMBER : Kind.TEXT;
        };
    }

    /** Whether a whole number is a code, as a double would change it. */
    public static boolean isCode(String cell) {
        return Kinds.isInexact(cell);
    }

    /** That whole numbers are figures, as is stated, and not all of their digits are kept. @param cells as {@link #codes} */
    public static Note rounded(String column, List<String> cells) {
        return new Note("'" + column + "' holds whole numbers of more digits than a figure keeps, and is read as figures: they are rounded", listed(cells));
    }

    /** The same of a query, which is not run to find out whether there are such numbers. */
    public static Note maybeRounded(String column) {
        return new Note("'" + column + "' is read as figures, which keep 15 digits: whole numbers of more are rounded", List.of());
    }

    /** That a cell of figures is a code, which a query's column turned out to hold. @param place of the cell */
    public static BadInput unexpectedCode(Place place, String column, String cell) {
        return new BadInput(place, ProblemKind.DATA, "the database holds a whole number of more digits than a figure keeps: " + cell + "; kinds: {" + column + ": text} has such numbers as codes, and 'number' rounded");
    }

    private static List<String> listed(List<String> cells) {
        return cells.size() > LISTED ? Stream.concat(cells.stream().limit(LISTED), Stream.of("…")).toList() : cells;
    }

    /** That a column of whole numbers is one of codes. @param cells that a double would change; one more than are listed where there are more */
    public static Note codes(String column, List<String> cells) {
        return new Note("'" + column + "' is read as codes, as it holds whole numbers of more digits than a figure keeps; kinds: {" + column + ": number} has them as figures all the same",
                listed(cells));
    }
}
