package dev.trellisgorge.conformance;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.shape.AddRow;
import dev.trellisgorge.shape.Choose;
import dev.trellisgorge.shape.Derive;
import dev.trellisgorge.shape.Join;
import dev.trellisgorge.shape.Keep;
import dev.trellisgorge.shape.Order;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.shape.Previous;
import dev.trellisgorge.shape.Rank;
import dev.trellisgorge.shape.Rename;
import dev.trellisgorge.shape.Step;
import dev.trellisgorge.shape.Top;
import dev.trellisgorge.shape.Total;
import dev.trellisgorge.shape.Unpivot;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;

/** The oracle of steps: rows are maps, and each step is the loop that one would write first. */
final class NaiveSteps {
    private final Map<String, List<Map<String, Object>>> tables;
    private final Map<String, Double> settings;

    NaiveSteps(Map<String, List<Map<String, Object>>> tables, Map<String, Double> settings) {
        this.tables = tables;
        this.settings = settings;
    }

    List<Map<String, Object>> run(Pipeline pipeline) {
        List<Map<String, Object>> rows = tables.get(pipeline.source());
        for (Step step : pipeline.steps()) {
            rows = taken(step, rows);
        }
        return rows;
    }

    private List<Object> cells(Formula formula, List<Map<String, Object>> rows) {
        return NaiveFormula.column(formula, rows, Map.of(), settings);
    }

    private static Map<String, Object> with(Map<String, Object> row, String column, Object cell) {
        Map<String, Object> more = new LinkedHashMap<>(row);
        more.put(column, cell);
        return more;
    }

    private static Map<String, Object> only(Map<String, Object> row, List<String> columns) {
        Map<String, Object> fewer = new LinkedHashMap<>();
        columns.forEach(column -> fewer.put(column, row.get(column)));
        return fewer;
    }

    private List<Map<String, Object>> taken(Step step, List<Map<String, Object>> rows) {
        List<Map<String, Object>> after = new ArrayList<>();
        if (step instanceof Keep keep) {
            List<Object> truths = cells(keep.condition(), rows);
            for (int i = 0; i < rows.size(); i++) {
                if (Boolean.TRUE.equals(truths.get(i))) {
                    after.add(rows.get(i));
                }
            }
        } else if (step instanceof Derive derive) {
            List<Object> cells = cells(derive.formula(), rows);
            for (int i = 0; i < rows.size(); i++) {
                after.add(with(rows.get(i), derive.name(), cells.get(i)));
            }
        } else if (step instanceof Order order) {
            ordered(rows, cells(order.by(), rows), order.descending()).forEach(at -> after.add(rows.get(at)));
        } else if (step instanceof Rank rank) {
            ranked(rank, rows, after);
        } else if (step instanceof Top top) {
            rows.stream().limit(top.rows()).forEach(after::add);
        } else if (step instanceof Rename rename) {
            for (Map<String, Object> row : rows) {
                Map<String, Object> renamed = new LinkedHashMap<>();
                row.forEach((name, cell) -> renamed.put(rename.names().getOrDefault(name, name), cell));
                after.add(renamed);
            }
        } else if (step instanceof Choose choose) {
            rows.forEach(row -> after.add(only(row, choose.columns())));
        } else if (step instanceof Previous previous) {
            for (int i = 0; i < rows.size(); i++) {
                Object before = null;
                for (int j = 0; j < i; j++) {
                    before = only(rows.get(j), previous.by()).equals(only(rows.get(i), previous.by())) ? rows.get(j).get(previous.of()) : before;
                }
                after.add(with(rows.get(i), previous.name(), before));
            }
        } else if (step instanceof Unpivot unpivot) {
            for (Map<String, Object> row : rows) {
                for (String column : unpivot.columns()) {
                    Map<String, Object> turned = new LinkedHashMap<>(row);
                    unpivot.columns().forEach(turned::remove);
                    after.add(with(with(turned, unpivot.names(), column), unpivot.values(), row.get(column)));
                }
            }
        } else if (step instanceof Total total) {
            totalled(total, rows, after);
        } else if (step instanceof Join join) {
            joined(join, rows, after);
        } else if (step instanceof AddRow add) {
            Map<String, Object> made = new LinkedHashMap<>();
            made.put(add.column(), add.name());
            after.addAll(rows);
            after.add(add.first() ? 0 : rows.size(), made);
        } else {
            throw new IllegalStateException("no oracle for " + step.sentence());
        }
        return after;
    }

    /** Rows that stay part the others into runs, each ranked by itself. */
    private void ranked(Rank rank, List<Map<String, Object>> rows, List<Map<String, Object>> after) {
        List<Object> keys = cells(rank.by(), rows);
        List<Object> stays = rank.anchors().map(anchors -> cells(anchors, rows)).orElse(java.util.Collections.nCopies(rows.size(), null));
        for (int from = 0; from < rows.size();) {
            int to = from;
            while (to < rows.size() && !Boolean.TRUE.equals(stays.get(to))) {
                to++;
            }
            List<Map<String, Object>> run = rows.subList(from, to);
            ordered(run, keys.subList(from, to), rank.order() == Rank.Way.DESCENDING).stream().limit(rank.top().orElse(Integer.MAX_VALUE)).forEach(at -> after.add(run.get(at)));
            rows.subList(to, Math.min(rows.size(), to + 1)).forEach(after::add);
            from = to + 1;
        }
    }

    /** Puts each row in before the first one that it must stand before. */
    private static List<Integer> ordered(List<Map<String, Object>> rows, List<Object> keys, boolean descending) {
        List<Integer> order = new ArrayList<>();
        for (int row = 0; row < rows.size(); row++) {
            Object key = keys.get(row);
            int at = 0;
            while (at < order.size() && !before(key, keys.get(order.get(at)), descending)) {
                at++;
            }
            order.add(at, row);
        }
        return order;
    }

    private static boolean before(Object key, Object other, boolean descending) {
        if (key == null || other == null) {
            return key != null;
        }
        int compared = NaiveFormula.compare(key, other);
        return descending ? compared > 0 : compared < 0;
    }

    private static void totalled(Total total, List<Map<String, Object>> rows, List<Map<String, Object>> after) {
        List<Map<String, Object>> keys = new ArrayList<>();
        (total.by().isEmpty() ? List.of(Map.<String, Object>of()) : rows).stream().map(row -> only(row, total.by())).filter(key -> !keys.contains(key)).forEach(keys::add);
        for (Map<String, Object> key : keys) {
            Map<String, Object> made = new LinkedHashMap<>(key);
            for (Total.Figure figure : total.figures()) {
                List<Object> there = rows.stream().filter(row -> only(row, total.by()).equals(key)).map(row -> row.get(figure.column())).filter(Objects::nonNull).toList();
                made.put(figure.name(), folded(there, figure.fold()));
            }
            after.add(made);
        }
    }

    private static Object folded(List<Object> there, Total.Fold fold) {
        if (fold == Total.Fold.COUNT) {
            return (double) there.size();
        } else if (there.isEmpty()) {
            return null;
        }
        double sum = 0;
        Object least = there.get(0);
        for (Object cell : there) {
            sum += cell instanceof Double figure ? figure : 0;
            least = NaiveFormula.compare(cell, least) < 0 ? cell : least;
        }
        return switch (fold) {
            case SUM -> sum + 0.0;
            case MEAN -> sum / there.size() + 0.0;
            case LEAST -> least;
            case FIRST -> there.get(0);
            default -> there.get(there.size() - 1);
        };
    }

    private void joined(Join join, List<Map<String, Object>> rows, List<Map<String, Object>> after) {
        List<Map<String, Object>> others = run(join.other());
        for (Map<String, Object> row : rows) {
            boolean found = false;
            for (Map<String, Object> other : others) {
                if (join.on().entrySet().stream().allMatch(key -> row.get(key.getKey()) != null && row.get(key.getKey()).equals(other.get(key.getValue())))) {
                    Map<String, Object> both = new LinkedHashMap<>(row);
                    other.forEach((name, cell) -> {
                        if (!join.on().containsValue(name)) {
                            both.put(name, cell);
                        }
                    });
                    after.add(both);
                    found = true;
                }
            }
            if (!found && join.way() == Join.Way.LEFT) {
                after.add(new LinkedHashMap<>(row));
            }
        }
    }
}
