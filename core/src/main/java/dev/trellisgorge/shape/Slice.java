package dev.trellisgorge.shape;

import dev.trellisgorge.formula.Condition;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.Leaf;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.table.CalendarUnit;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Numbers;
import dev.trellisgorge.table.Schema;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.table.TextOrder;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.function.IntPredicate;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/**
 * Keeps the rows whose cell in a column is one of some, or lies in a range, and reports the others. Cells are compared as they are written (see
 * {@link Column#written}); a number matches any spelling of the same number. That no row has a cell that is named, or none lies in the
 * range, is an error. Immutable and thread-safe.
 *
 * @param column the column
 * @param cut    the cells that stay
 */
public record Slice(String column, Cut cut) implements Step {

    public Slice {
        Objects.requireNonNull(column, "column");
        Objects.requireNonNull(cut, "cut");
    }

    /** Keeps the rows whose cell is written like this. */
    public Slice(String column, String value) {
        this(column, Cut.is(value));
    }

    @Override
    public Schema schema(Schema before, Catalog known) {
        before.field(column);
        cut.stated().stream().filter(Leaf.Setting.class::isInstance).forEach(setting -> known.settings().value(((Leaf.Setting) setting).name()));
        return before;
    }

    @Override
    public List<SortKey> order(List<SortKey> before) {
        return before;
    }

    @Override
    public Traits traits() {
        return Traits.of(cut.stated()).filtering(Set.of(column));
    }

    @Override
    public <R> R match(Cases<R> cases) {
        return cases.slice(this);
    }

    @Override
    public String sentence() {
        return "keep the rows whose " + column + " " + cut;
    }

    @Override
    public Table apply(Table table, Run run) {
        Column cells = table.column(column);
        if (table.rowCount() == 0) {
            return table; // what left no row says so
        }
        Place place = table.place().within("column '" + column + "'");
        IntPredicate stays = cut instanceof Cut.OneOf some ? oneOf(some, cells, place, run.settings()) : inRange((Cut.Range) cut, cells, place, run.settings());
        int[] kept = IntStream.range(0, table.rowCount()).filter(stays).toArray();
        if (kept.length == 0) {
            throw new BadInput(place, ProblemKind.NO_ROWS, "no row's " + column + " " + cut.shown(run.settings()) + ". " + ends(cells));
        }
        return DroppedRows.told(table, kept, (left, all, amounts, names) -> StepNotes.leftOut(this, cut.shown(run.settings()), left, all, amounts, names));
    }

    /**
     * The same as a condition on a row, for what writes formulas of it.
     *
     * @param before   the columns
     * @param settings of which the kinds are read
     * @return empty where a formula can't say it: a setting of another kind than the column's, a text that is no figure or date
     */
    public Optional<Formula> condition(Schema before, Settings settings) {
        Kind kind = before.field(column).kind();
        Formula cell = Formulas.column(column);
        if (cut instanceof Cut.Range range) {
            Optional<Formula> from = range.from().flatMap(end -> end(end, kind, false, settings));
            Optional<Formula> to = range.to().flatMap(end -> end(end, kind, true, settings));
            boolean said = kind != Kind.TRUTH && from.isPresent() == range.from().isPresent() && to.isPresent() == range.to().isPresent();
            return !said ? Optional.empty() : Stream.concat(from.stream().map(cell::atLeast), to.stream().map(cell::atMost)).reduce(Formula::and);
        }
        List<Formula> cells = cut.stated().stream().flatMap(each -> cell(each, kind, settings).stream()).toList();
        return cells.size() < cut.stated().size() ? Optional.empty() : Optional.of(cells.size() == 1 ? cell.equalTo(cells.get(0)) : new Condition.In(cell, cells));
    }

    private static Optional<Formula> cell(Formula stated, Kind kind, Settings settings) {
        if (stated instanceof Leaf.Setting setting) {
            return settings.find(setting.name()).filter(value -> value.kind() == kind && kind != Kind.TRUTH).map(value -> stated);
        }
        String text = value(stated, settings);
        return switch (kind) {
            case TEXT -> Optional.of(stated);
            case NUMBER -> Numbers.parse(text).stream().mapToObj(Formulas::number).findFirst();
            case DATE -> CalendarUnit.days(text).filter(days -> days.first().equals(days.last())).map(days -> Formulas.date(days.first()));
            case TRUTH -> Optional.empty();
        };
    }

    private static Optional<Formula> end(Formula stated, Kind kind, boolean last, Settings settings) {
        return kind == Kind.DATE && stated instanceof Leaf.Literal ? CalendarUnit.days(value(stated, settings)).map(days -> Formulas.date(last ? days.last() : days.first()))
                : cell(stated, kind, settings);
    }

    private static IntPredicate oneOf(Cut.OneOf some, Column cells, Place place, Settings settings) {
        Set<String> there = new LinkedHashSet<>();
        IntStream.range(0, cells.size()).filter(cells::isPresent).forEach(row -> there.add(cells.written(row)));
        Set<String> wanted = new LinkedHashSet<>();
        Problems problems = new Problems();
        for (Formula each : some.cells()) {
            String value = value(each, settings);
            String cell = cells.kind() != Kind.NUMBER ? value : Numbers.parse(value).stream().mapToObj(Numbers::shortest).findFirst().orElse(value);
            if (!there.contains(cell)) {
                problems.add(place, ProblemKind.UNKNOWN_NAME, "no row holds '" + value + "'" + (each instanceof Leaf.Setting ? ", which is what " + each + " is" : "") + ". " + Nearest.hint(value, List.copyOf(there)));
            }
            wanted.add(cell);
        }
        problems.throwIfAny();
        return row -> cells.isPresent(row) && wanted.contains(cells.written(row));
    }

    private static IntPredicate inRange(Cut.Range range, Column cells, Place place, Settings settings) {
        Optional<String> from = range.from().map(end -> value(end, settings));
        Optional<String> to = range.to().map(end -> value(end, settings));
        if (cells.kind() == Kind.NUMBER || cells.kind() == Kind.DATE) {
            double low = from.map(end -> figure(end, cells.kind(), false, place)).orElse(Double.NEGATIVE_INFINITY);
            double high = to.map(end -> figure(end, cells.kind(), true, place)).orElse(Double.POSITIVE_INFINITY);
            return row -> cells.number(row) >= low && cells.number(row) <= high;
        }
        if (cells.kind() == Kind.TRUTH) {
            throw new BadInput(place, ProblemKind.WRONG_TYPE, "is true or false, and a range is of numbers, dates or texts");
        }
        return row -> cells.isPresent(row) && from.stream().allMatch(end -> TextOrder.compare(cells.written(row), end) >= 0)
                && to.stream().allMatch(end -> TextOrder.compare(cells.written(row), end) <= 0);
    }

    /** An end of a range, as cells of the kind are stored; of dates, a period's first day or its last. */
    private static double figure(String end, Kind kind, boolean last, Place place) {
        OptionalDouble figure = kind == Kind.NUMBER ? Numbers.parse(end)
                : CalendarUnit.days(end).stream().mapToDouble(days -> (last ? days.last() : days.first()).toEpochDay()).findFirst();
        return figure.orElseThrow(() -> new BadInput(place, ProblemKind.INVALID, "'" + end + "' is no end for a range of " + (kind == Kind.NUMBER ? "numbers" : "dates; write one such as 2031-03-01 or 2031-03")));
    }

    private static String value(Formula stated, Settings settings) {
        return stated instanceof Leaf.Setting setting ? settings.value(setting.name()).written(0) : ((Leaf.Literal) stated).value().toString();
    }

    /** From where to where the cells go. */
    private static String ends(Column cells) {
        Comparator<Integer> order = cells.kind() == Kind.TEXT ? Comparator.comparing(cells::written, TextOrder::compare) : Comparator.comparingDouble(cells::number);
        List<Integer> sorted = IntStream.range(0, cells.size()).filter(cells::isPresent).boxed().sorted(order).toList();
        return sorted.isEmpty() ? "The column has no cell" : "The cells go from " + cells.written(sorted.get(0)) + " to " + cells.written(sorted.get(sorted.size() - 1));
    }
}
