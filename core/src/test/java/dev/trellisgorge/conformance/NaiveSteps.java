package dev.trellisgorge.conformance;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Leaf;
import dev.trellisgorge.shape.AddRow;
import dev.trellisgorge.shape.Choose;
import dev.trellisgorge.shape.Cut;
import dev.trellisgorge.shape.AddColumn;
import dev.trellisgorge.shape.Join;
import dev.trellisgorge.shape.Keep;
import dev.trellisgorge.shape.Order;
import dev.trellisgorge.shape.PeriodOf;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.shape.Pivot;
import dev.trellisgorge.shape.Previous;
import dev.trellisgorge.shape.Rank;
import dev.trellisgorge.shape.Rename;
import dev.trellisgorge.shape.Rest;
import dev.trellisgorge.shape.Slice;
import dev.trellisgorge.shape.Step;
import dev.trellisgorge.shape.Top;
import dev.trellisgorge.shape.Total;
import dev.trellisgorge.shape.Unpivot;
import dev.trellisgorge.table.CalendarUnit;
import java.time.LocalDate;
import java.time.temporal.IsoFields;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;

/** The oracle of steps: rows are maps, and each step is the loop that one would write first. */
final class NaiveSteps {
    private final Map<String, List<Map<String, Object>>> tables;
    private final Map<String, Object> settings;

    NaiveSteps(Map<String, List<Map<String, Object>>> tables, Map<String, Object> settings) {
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

    /** Whether a slice of texts keeps a cell. */
    private boolean keeps(Cut cut, Object cell) {
        if (cut instanceof Cut.OneOf some) {
            return some.cells().stream().anyMatch(each -> stated(each).equals(cell));
        }
        Cut.Range range = (Cut.Range) cut;
        return cell instanceof String text && range.from().stream().allMatch(end -> codePoints(text).compareTo(codePoints(stated(end))) >= 0)
                && range.to().stream().allMatch(end -> codePoints(text).compareTo(codePoints(stated(end))) <= 0);
    }

    private String stated(Formula cell) {
        return cell instanceof Leaf.Setting setting ? (String) settings.get(setting.name()) : (String) ((Leaf.Literal) cell).value();
    }

    /** The code points as a text that is ordered like them. */
    private static String codePoints(String text) {
        return text.codePoints().mapToObj(character -> String.format(Locale.ROOT, "%08d", character)).collect(java.util.stream.Collectors.joining());
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
        } else if (step instanceof AddColumn derive) {
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
        } else if (step instanceof Slice slice) {
            rows.stream().filter(row -> keeps(slice.cut(), row.get(slice.column()))).forEach(after::add);
        } else if (step instanceof PeriodOf period) {
            List<Map<String, Object>> named = rows.stream().map(row -> with(row, period.name(), written((LocalDate) row.get(period.of()), period.unit()))).toList();
            after.addAll(period.fill() ? filled(period, named) : named);
        } else if (step instanceof Pivot pivot) {
            for (Map<String, Object> key : rows.stream().map(row -> only(row, pivot.by())).distinct().toList()) {
                Map<String, Object> made = new LinkedHashMap<>(key);
                for (String column : pivot.columns()) {
                    made.put(column, rows.stream().filter(row -> only(row, pivot.by()).equals(key) && column.equals(row.get(pivot.names()))).findFirst()
                            .map(row -> row.get(pivot.values())).orElse(null));
                }
                after.add(made);
            }
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
        List<Map<String, Object>> rests = new ArrayList<>();
        List<Object> stays = rank.anchors().map(anchors -> cells(anchors, rows)).orElse(Collections.nCopies(rows.size(), null));
        for (int from = 0; from < rows.size();) {
            int to = from;
            while (to < rows.size() && !Boolean.TRUE.equals(stays.get(to))) {
                to++;
            }
            List<Map<String, Object>> run = rows.subList(from, to);
            List<Map<String, Object>> inOrder = rank.order() == Rank.Way.TABLE ? run
                    : ordered(run, keys.subList(from, to), rank.order() == Rank.Way.DESCENDING).stream().map(run::get).toList();
            int kept = Math.min(inOrder.size(), rank.top().orElse(Integer.MAX_VALUE));
            after.addAll(inOrder.subList(0, kept));
            if (rank.rest().isPresent() && kept < inOrder.size()) {
                rests.add(rest(rank.rest().get(), inOrder.subList(kept, inOrder.size())));
                after.add(rests.get(rests.size() - 1));
            }
            rows.subList(to, Math.min(rows.size(), to + 1)).forEach(after::add);
            from = to + 1;
        }
        rank.rest().filter(rest -> rests.size() > 1).ifPresent(rest -> {
            List<Object> taken = new ArrayList<>(after.stream().filter(row -> rests.stream().noneMatch(each -> each == row)).map(row -> row.get(rest.column())).toList());
            for (Map<String, Object> row : rests) {
                for (int i = 2; taken.contains(row.get(rest.column())); i++) {
                    row.put(rest.column(), rest.name() + " (" + i + ")");
                }
                taken.add(row.get(rest.column()));
            }
        });
    }

    /** A row that stands for others: what is derived is derived from its own cells, once these are known. */
    private Map<String, Object> rest(Rest rest, List<Map<String, Object>> others) {
        Map<String, Object> row = new LinkedHashMap<>();
        others.get(0).keySet().forEach(column -> row.put(column, null));
        row.put(rest.column(), rest.name());
        rest.ways().forEach((column, way) -> {
            List<Object> there = others.stream().map(other -> other.get(column)).filter(Objects::nonNull).toList();
            if (!column.equals(rest.column()) && !there.isEmpty()) {
                switch (way) {
                    case SUM -> row.put(column, folded(there, Total.Fold.SUM));
                    case MEAN -> row.put(column, folded(there, Total.Fold.MEAN));
                    case LEAST -> row.put(column, folded(there, Total.Fold.LEAST));
                    case GREATEST -> row.put(column, folded(there, Total.Fold.GREATEST));
                    default -> { }
                }
            }
        });
        for (int time = 0; time < row.size(); time++) { // one may be derived from another
            rest.ways().forEach((column, way) -> {
                if (way == Rest.Way.DERIVED && !column.equals(rest.column())) {
                    row.put(column, cells(rest.derived().get(column), List.of(new LinkedHashMap<>(row))).get(0));
                }
            });
        }
        return row;
    }

    private static String written(LocalDate day, CalendarUnit unit) {
        return day == null ? null : switch (unit) {
            case YEAR -> String.format(Locale.ROOT, "%04d", day.getYear());
            case QUARTER -> String.format(Locale.ROOT, "%04d-Q%d", day.getYear(), (day.getMonthValue() - 1) / 3 + 1);
            case MONTH -> String.format(Locale.ROOT, "%04d-%02d", day.getYear(), day.getMonthValue());
            case WEEK -> String.format(Locale.ROOT, "%04d-W%02d", day.get(IsoFields.WEEK_BASED_YEAR), day.get(IsoFields.WEEK_OF_WEEK_BASED_YEAR));
            case DAY -> day.toString();
        };
    }

    /** Walks from the first day to the last, and stops at each new period. */
    private static List<Map<String, Object>> filled(PeriodOf period, List<Map<String, Object>> rows) {
        List<LocalDate> days = rows.stream().map(row -> (LocalDate) row.get(period.of())).filter(Objects::nonNull).sorted().toList();
        List<Map<String, Object>> all = new ArrayList<>();
        String last = "";
        for (LocalDate day = days.isEmpty() ? null : days.get(0); day != null && !day.isAfter(days.get(days.size() - 1)); day = day.plusDays(1)) {
            String name = written(day, period.unit());
            if (!name.equals(last)) {
                List<Map<String, Object>> there = rows.stream().filter(row -> name.equals(row.get(period.name()))).toList();
                all.addAll(there);
                if (there.isEmpty()) {
                    Map<String, Object> empty = new LinkedHashMap<>();
                    rows.get(0).keySet().forEach(column -> empty.put(column, null));
                    empty.put(period.name(), name);
                    all.add(empty);
                }
            }
            last = name;
        }
        rows.stream().filter(row -> row.get(period.name()) == null).forEach(all::add);
        return all;
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
        double sum = NaiveFormula.sum(there);
        Object least = there.get(0);
        Object greatest = there.get(0);
        for (Object cell : there) {
            least = NaiveFormula.compare(cell, least) < 0 ? cell : least;
            greatest = NaiveFormula.compare(cell, greatest) > 0 ? cell : greatest;
        }
        return switch (fold) {
            case SUM -> sum + 0.0;
            case MEAN -> sum / there.size() + 0.0;
            case LEAST -> least;
            case GREATEST -> greatest;
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
