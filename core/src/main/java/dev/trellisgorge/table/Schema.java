package dev.trellisgorge.table;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;

/**
 * The columns of a table without its cells: what is known of a table before it is computed. Immutable and thread-safe.
 *
 * <p>The schema of a table that was read remembers that table. It is looked at only where a message has to say which
 * cells are wrong, and for the calendar unit of a column.
 */
public final class Schema {
    private final String name;
    private final Place place;
    private final Map<String, Field> fields;
    private final Optional<Table> read;

    private Schema(String name, Place place, List<Field> fields, Optional<Table> read) {
        this.name = name;
        this.place = place;
        this.read = read;
        Map<String, Field> named = new LinkedHashMap<>();
        for (Field field : fields) {
            if (field.name().isBlank()) {
                throw new BadInput(place, ProblemKind.MISSING, "a column has no name");
            }
            if (named.put(field.name(), field) != null) {
                throw new BadInput(place, ProblemKind.CONFLICT, "two columns are named '" + field.name() + "'");
            }
        }
        this.fields = Collections.unmodifiableMap(named);
    }

    /** The columns of a table, for a message that has to name its place. */
    public static Schema of(String name, Place place, List<Field> fields) {
        return new Schema(Objects.requireNonNull(name, "name"), Objects.requireNonNull(place, "place"), fields, Optional.empty());
    }

    static Schema of(Table table) {
        return new Schema(table.name(), table.place(), table.columns().stream().map(Field::of).toList(), Optional.of(table));
    }

    public String name() {
        return name;
    }

    public Place place() {
        return place;
    }

    /** The columns, in order. */
    public List<Field> fields() {
        return List.copyOf(fields.values());
    }

    public List<String> columnNames() {
        return List.copyOf(fields.keySet());
    }

    public Optional<Field> find(String column) {
        return Optional.ofNullable(fields.get(column));
    }

    public boolean has(String column) {
        return fields.containsKey(column);
    }

    /** A name like the one that is wanted and that no column has. */
    public String free(String wanted) {
        return FreeName.of(wanted, this::has);
    }

    /** @throws BadInput with the nearest known name where there is no such column */
    public Field field(String column) {
        return find(column).orElseThrow(() -> unknown(column));
    }

    /** The error for a column that is not here, at the table's own place: where that is said, with {@link #unknownColumn}. */
    public BadInput unknown(String column) {
        return new BadInput(place, ProblemKind.UNKNOWN_NAME, "there is no column '" + column + "'. " + Nearest.hint(column, fields.keySet()));
    }

    /** The same for a message at another place, which has to name the table. */
    public String unknownColumn(String column) {
        return "table '" + name + "' has no column '" + column + "'. " + Nearest.hint(column, fields.keySet());
    }

    /** The error for a name that is taken. */
    public BadInput taken(String column, String instead) {
        return new BadInput(place, ProblemKind.CONFLICT, "there is a column '" + column + "' already; give the " + instead + " another name");
    }

    /** The same table with other columns. */
    public Schema with(List<Field> others) {
        return new Schema(name, place, others, read);
    }

    /** The same table with one more column, the last. */
    public Schema and(Field more) {
        List<Field> all = new ArrayList<>(fields.values());
        all.add(more);
        return with(all);
    }

    /** The table that was read, whatever steps came after; empty where nothing was. */
    Optional<Table> read() {
        return read;
    }

    @Override
    public String toString() {
        return name + " " + fields.values();
    }
}
