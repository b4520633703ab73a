package dev.trellisgorge.shape;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Schema;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * Puts the columns of another table beside the rows, where the keys are equal. A missing key equals nothing. Rows keep their
 * order; several matches of one row stand in the other table's order. Immutable and thread-safe.
 *
 * @param other the other table, and the steps that it goes through
 * @param on    the key columns here, each with its column there, of the same kind
 * @param way   what becomes of rows without a match
 * @param many  whether a row may match several and so be doubled; else that is an error
 */
public record Join(Pipeline other, Map<String, String> on, Way way, boolean many) implements Step {

    /** What becomes of rows without a match. */
    public enum Way {
        /** They stay, and the other table's cells are missing. */
        LEFT,
        /** They go. */
        INNER
    }

    public Join {
        Objects.requireNonNull(way, "way");
        Objects.requireNonNull(other, "other");
        on = Collections.unmodifiableMap(new LinkedHashMap<>(on));
        if (on.isEmpty()) {
            throw new IllegalArgumentException("a join needs a key");
        }
    }

    /** By one key of the same name in both; rows without a match stay. */
    public static Join by(String table, String key) {
        return new Join(Pipeline.of(table), Map.of(key, key), Way.LEFT, false);
    }

    /** The same with another table's outcome. */
    public static Join by(Pipeline other, String key) {
        return new Join(other, Map.of(key, key), Way.LEFT, false);
    }

    public Join way(Way wanted) {
        return new Join(other, on, wanted, many);
    }

    /** With rows doubled where they match several. */
    public Join doubling() {
        return new Join(other, on, way, true);
    }

    @Override
    public Schema schema(Schema before, Catalog known) {
        Schema there = other.schema(known);
        on.forEach((here, key) -> {
            if (before.field(here).kind() != there.field(key).kind()) {
                throw new BadInput(before.place(), ProblemKind.WRONG_TYPE, "the key '" + here + "' is " + before.field(here).kind().phrase() + " here, and '"
                        + key + "' of '" + there.name() + "' " + there.field(key).kind().phrase());
            }
        });
        List<Field> fields = new ArrayList<>(before.fields());
        for (Field field : there.fields()) {
            if (!on.containsValue(field.name())) {
                if (before.has(field.name())) {
                    throw new BadInput(before.place(), ProblemKind.CONFLICT, "both tables have a column '" + field.name()
                            + "'; rename one of them, which the join's 'rename' does for the other table");
                }
                fields.add(field);
            }
        }
        return before.with(fields);
    }

    @Override
    public List<SortKey> order(List<SortKey> before) {
        return before;
    }

    @Override
    public Traits traits() {
        return Traits.NONE.reading(other);
    }

    @Override
    public <R> R match(Cases<R> cases) {
        return cases.join(this);
    }

    @Override
    public String sentence() {
        return "join the table " + other.name() + other.parts().stream().map(part -> " (" + part.step().sentence() + ")").collect(Collectors.joining()) + " where "
                + on.entrySet().stream().map(key -> key.getKey().equals(key.getValue()) ? "the " + key.getKey() + " is equal" : key.getKey() + " is its " + key.getValue())
                        .collect(Collectors.joining(" and ")) + (way == Way.INNER ? "; rows without a match go" : "; rows without a match stay");
    }

    @Override
    public Table apply(Table table, Run run) {
        return new Joined(table, run.table(other)).rows();
    }

    private final class Joined {
        private final Table table;
        private final Table other;

        Joined(Table table, Table other) {
            this.table = table;
            this.other = other;
        }

        Table rows() {
            List<Column> here = Keys.columns(table, on.keySet());
            List<Column> there = Keys.columns(other, on.values());
            Map<List<Object>, List<Integer>> matches = Keys.rows(there, other.rowCount());
            List<Integer> left = new ArrayList<>();
            List<Integer> right = new ArrayList<>();
            Set<String> unmatched = new LinkedHashSet<>();
            Set<List<Object>> used = new LinkedHashSet<>();
            for (int row = 0; row < table.rowCount(); row++) {
                List<Object> key = Keys.of(here, row);
                List<Integer> found = Keys.hasMissing(key) ? List.of() : matches.getOrDefault(key, List.of());
                if (found.isEmpty()) {
                    unmatched.add(Keys.written(here, row));
                }
                if (found.size() > 1 && !many) {
                    throw new BadInput(table.rowPlace(row), ProblemKind.DATA, "'" + Keys.written(here, row) + "' stands on " + found.size() + " rows of '" + other.name() + "' ("
                            + other.rowPlace(found.get(0)) + " and " + other.rowPlace(found.get(1))
                            + "), so the join would double this row. Total that table first, by a 'shape' of its own, or ask for it with 'many'.");
                }
                used.add(key);
                if (found.isEmpty() && way == Way.LEFT) {
                    left.add(row);
                    right.add(-1);
                }
                for (int match : found) {
                    left.add(row);
                    right.add(match);
                }
            }
            return noted(joined(left, right), unmatched, unused(there, matches, used));
        }

        private Table joined(List<Integer> left, List<Integer> right) {
            int[] rowsHere = left.stream().mapToInt(Integer::intValue).toArray();
            int[] rowsThere = right.stream().mapToInt(Integer::intValue).toArray();
            Table rows = table.rows(rowsHere);
            List<Column> columns = new ArrayList<>(rows.columns());
            for (Column column : other.columns()) {
                if (!on.containsValue(column.name())) {
                    columns.add(column.at(rowsThere));
                }
            }
            return rows.withColumns(columns);
        }

        private Set<String> unused(List<Column> there, Map<List<Object>, List<Integer>> matches, Set<List<Object>> used) {
            Set<String> unused = new LinkedHashSet<>();
            matches.forEach((key, rows) -> {
                if (Keys.hasMissing(key) || !used.contains(key)) {
                    unused.add(Keys.written(there, rows.get(0)));
                }
            });
            return unused;
        }

        private Table noted(Table joined, Set<String> unmatched, Set<String> unused) {
            Table noted = joined;
            for (Note note : other.notes()) {
                noted = noted.notes().contains(note) ? noted : noted.withNotes(note);
            }
            if (!unmatched.isEmpty()) {
                noted = noted.withNotes(StepNotes.unmatched(Join.this, StepNotes.listed(unmatched)));
            }
            if (!unused.isEmpty()) {
                noted = noted.withNotes(StepNotes.unused(Join.this, StepNotes.listed(unused)));
            }
            return noted;
        }
    }
}
