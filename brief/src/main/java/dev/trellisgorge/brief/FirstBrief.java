package dev.trellisgorge.brief;

import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Key;
import dev.trellisgorge.pattern.Key.Takes;
import dev.trellisgorge.pattern.PatternType;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.shape.Slice;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Numbers;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/**
 * A first brief for a table: the category is the first column of texts, or of dates; the figures are the first columns of
 * numbers that the pattern can show, in the order of its keys; where a category stands on several rows, a slice keeps
 * one of each.
 */
public final class FirstBrief {
    private static final int MOST_TRIES = 100;

    private final PatternType type;
    private final Table table;

    private FirstBrief(PatternType type, Table table) {
        this.type = type;
        this.table = table;
    }

    /**
     * @param data how the brief is to name the table's file
     * @return a brief that runs as it stands
     * @throws BadInput where the table has too few columns of the kinds that the pattern needs, no slice has each
     *                  category once, or the pattern can't show the figures in any order of the columns
     */
    public static String of(PatternType type, Table table, String data) {
        FirstBrief first = new FirstBrief(type, table);
        List<Column> figures = table.columns().stream().filter(column -> column.kind() == Kind.NUMBER).toList();
        Optional<BadInput> refused = Optional.empty();
        for (List<Column> order : orders(figures)) {
            String text = first.text(data, order);
            try {
                Brief brief = new BriefReader(text, table).read();
                brief.compute(brief.charts());
                return text;
            } catch (BadInput e) {
                refused = refused.or(() -> Optional.of(e));
            }
        }
        throw refused.orElseThrow();
    }

    /** The columns as they stand, then each other pair of them first. */
    private static List<List<Column>> orders(List<Column> figures) {
        List<List<Column>> orders = new ArrayList<>(List.of(figures));
        for (Column first : figures) {
            for (Column second : figures) {
                if (first != second && orders.size() < MOST_TRIES) {
                    orders.add(List.of(first, second));
                }
            }
        }
        return orders;
    }

    private String text(String data, List<Column> order) {
        StringBuilder text = new StringBuilder("brief: 1\ndata:\n  " + quoted(table.name()) + ": " + quoted(data) + "\ncharts:\n  first:\n    pattern: "
                + type.name() + "\n");
        Map<String, String> slice = Map.of();
        if (type.categories()) {
            String category = category();
            text.append("    category: ").append(quoted(category)).append('\n');
            slice = slice(category);
        } else if (table.rowCount() > 1) {
            slice = oneRow();
        }
        List<Column> figures = new ArrayList<>(order);
        for (Key key : type.keys()) {
            if (key.required()) {
                text.append("    ").append(key.name()).append(": ").append(value(key, figures)).append('\n');
            }
        }
        if (!slice.isEmpty()) {
            text.append("    slice: {").append(slice.entrySet().stream().map(cut -> quoted(cut.getKey()) + ": " + quoted(cut.getValue()))
                    .collect(Collectors.joining(", "))).append("}\n");
        }
        return text.toString();
    }

    private String value(Key key, List<Column> figures) {
        if (key.takes() == Takes.FIGURE) {
            if (key.name().equals("against")) {
                return "{previous: row}";
            }
            if (figures.isEmpty()) {
                throw new BadInput(table.place(), "has too few columns of numbers for '" + key.name() + "' of the pattern '" + type.name() + "'");
            }
            return quoted(figures.remove(0).name());
        }
        return switch (key.name()) {
            case "bands" -> "[{name: low, width: 0.5}, {name: high, width: 0.5}]";
            case "scale" -> "[" + scale() + "]";
            default -> throw new IllegalStateException("no first value for the key " + key.name());
        };
    }

    /** A round scale that holds every figure of the first column of numbers. */
    private String scale() {
        Column figures = table.columns().stream().filter(column -> column.kind() == Kind.NUMBER).findFirst().orElseThrow();
        double size = IntStream.range(0, figures.size()).mapToDouble(figures::number).filter(Double::isFinite).map(Math::abs).max().orElse(1);
        double round = Math.pow(10, Math.ceil(Math.log10(Math.max(size, 1e-6))));
        boolean negative = IntStream.range(0, figures.size()).anyMatch(row -> figures.number(row) < 0);
        String high = Numbers.shortest(round);
        return (negative ? "-" + high : "0") + ", " + high;
    }

    private String category() {
        return table.columns().stream().filter(column -> column.kind() == Kind.TEXT).findFirst()
                .or(() -> table.columns().stream().filter(column -> column.kind() == Kind.DATE).findFirst())
                .orElseThrow(() -> new BadInput(table.place(), "has no column of texts or dates to name the rows")).name();
    }

    /** The column, and its last value, whose rows have each category once. */
    private Map<String, String> slice(String category) {
        if (once(table, category)) {
            return Map.of();
        }
        for (Column column : table.columns()) {
            Optional<String> last = last(column);
            if (!column.name().equals(category) && column.kind() != Kind.NUMBER && last.isPresent()
                    && once(sliced(table, column.name(), last.get()), category)) {
                return Map.of(column.name(), last.get());
            }
        }
        throw new BadInput(table.place(), "names in '" + category + "' stand on several rows, and no other column's last value has each once; "
                + "total the rows first");
    }

    private static Table sliced(Table rows, String column, String value) {
        return Executor.over(rows, Settings.NONE).run(Pipeline.of(rows.name()).then(new Slice(column, value)));
    }

    private Map<String, String> oneRow() {
        Map<String, String> slice = new LinkedHashMap<>();
        Table left = table;
        for (Column column : table.columns()) {
            if (left.rowCount() > 1 && column.kind() != Kind.NUMBER && column.isPresent(0)) {
                slice.put(column.name(), column.written(0));
                left = sliced(left, column.name(), column.written(0));
            }
        }
        if (left.rowCount() > 1) {
            throw new BadInput(table.place(), "the pattern '" + type.name() + "' shows one figure, and no slice of texts or dates has one row");
        }
        return slice;
    }

    private static Optional<String> last(Column column) {
        return IntStream.range(0, column.size()).filter(column::isPresent).mapToObj(column::written).reduce((a, b) -> b);
    }

    private static boolean once(Table rows, String category) {
        Column names = rows.column(category);
        return IntStream.range(0, names.size()).allMatch(names::isPresent)
                && IntStream.range(0, names.size()).mapToObj(names::written).distinct().count() == names.size();
    }

    private static String quoted(String text) {
        return text.matches("[\\p{L}_][\\p{L}\\p{N}_./-]*|\\d{4}-\\d{2}-\\d{2}") && !text.matches("(?i)true|false|null|yes|no|on|off") ? text
                : "\"" + text.replace("\\", "\\\\").replace("\"", "\\\"").replace("\n", "\\n").replace("\t", "\\t") + "\"";
    }
}
