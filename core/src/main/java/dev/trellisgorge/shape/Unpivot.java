package dev.trellisgorge.shape;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Schema;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/**
 * Makes a row of each of some columns: the others stay, and the column's name and its cell stand in two new ones. Each row's
 * come one after another, in the order of the columns. Immutable and thread-safe.
 *
 * @param columns the columns, all of one kind
 * @param names   of the new column with their names
 * @param values  of the new column with their cells
 * @param more    the names of columns to come that are turned too, with {@code *} for any characters; empty where these are all.
 *                The columns themselves are found before the step is made; this is for what is written to outlive new ones
 */
public record Unpivot(List<String> columns, String names, String values, Optional<String> more) implements Step {
    /** Stands for any characters of a name. */
    public static final String ANY = "*";

    public Unpivot {
        Objects.requireNonNull(more, "more");
        Objects.requireNonNull(names, "names");
        Objects.requireNonNull(values, "values");
        columns = List.copyOf(columns);
        if (columns.isEmpty()) {
            throw new IllegalArgumentException("there is no column to make rows of");
        }
    }

    /** These columns and no other. */
    public Unpivot(List<String> columns, String names, String values) {
        this(columns, names, values, Optional.empty());
    }

    @Override
    public Schema schema(Schema before, Catalog known) {
        List<Field> turned = columns.stream().map(before::field).toList();
        Kind kind = turned.get(0).kind();
        for (Field field : turned) {
            if (field.kind() != kind) {
                throw new BadInput(before.place(), ProblemKind.WRONG_TYPE, "columns that become one are of one kind: '" + turned.get(0).name() + "' holds " + kind.phrase() + " a row, and '"
                        + field.name() + "' " + field.kind().phrase());
            }
        }
        List<Field> fields = new ArrayList<>(before.fields());
        fields.removeIf(field -> columns.contains(field.name()));
        fields.add(Field.of(names, Kind.TEXT));
        fields.add(turned.get(0).named(values));
        return before.with(fields);
    }

    @Override
    public List<SortKey> order(List<SortKey> before) {
        return SortKey.within(columns, before);
    }

    @Override
    public Traits traits() {
        return Traits.NONE;
    }

    @Override
    public <R> R match(Cases<R> cases) {
        return cases.unpivot(this);
    }

    @Override
    public String sentence() {
        return "turn the columns " + Keys.listed(columns) + " into rows: their names in " + names + ", their cells in " + values;
    }

    @Override
    public Table apply(Table table, Run run) {
        List<Column> turned = Keys.columns(table, columns);
        Kind kind = turned.get(0).kind();
        int each = turned.size();
        int[] rows = IntStream.range(0, table.rowCount() * each).map(i -> i / each).toArray();
        List<Column> made = new ArrayList<>();
        table.columns().stream().filter(column -> !columns.contains(column.name())).forEach(column -> made.add(column.at(rows)));
        made.add(Column.texts(names, IntStream.range(0, rows.length).mapToObj(i -> columns.get(i % each)).toArray(String[]::new)));
        IntStream cells = IntStream.range(0, rows.length);
        made.add(kind == Kind.TEXT ? Column.texts(values, cells.mapToObj(i -> text(turned.get(i % each), i / each)).toArray(String[]::new))
                : Column.owning(values, kind, cells.mapToDouble(i -> turned.get(i % each).number(i / each)).toArray()));
        return table.rows(rows).withColumns(made).withNotes(notes(table.schema()));
    }

    @Override
    public List<Note> notes(Schema before) {
        List<String> alike = alike(before);
        return alike.isEmpty() ? List.of() : List.of(Note.urgent("columns that are named like those that are turned to rows are not turned, and are on each of their rows", alike));
    }

    /** Columns of the same kind whose names differ from one that is turned in their digits alone, as the next year's does. */
    private List<String> alike(Schema before) {
        Kind kind = before.field(columns.get(0)).kind();
        Set<String> shapes = columns.stream().map(Unpivot::shape).collect(Collectors.toSet());
        return before.fields().stream().filter(field -> field.kind() == kind && !columns.contains(field.name()) && shapes.contains(shape(field.name()))).map(Field::name).toList();
    }

    private static String shape(String name) {
        return name.chars().anyMatch(Character::isDigit) ? name.replaceAll("[0-9]", "0") : "=" + name;
    }

    private static String text(Column column, int row) {
        return column.isPresent(row) ? column.written(row) : null;
    }
}
