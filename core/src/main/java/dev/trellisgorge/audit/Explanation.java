package dev.trellisgorge.audit;

import dev.trellisgorge.chart.BarGroup;
import dev.trellisgorge.chart.FigureColumn;
import dev.trellisgorge.chart.Format;
import dev.trellisgorge.chart.Label;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.Leaf;
import dev.trellisgorge.formula.ColumnReferences;
import dev.trellisgorge.plan.ComputedColumns;
import dev.trellisgorge.plan.Derived;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.plan.Saying;
import dev.trellisgorge.plan.RowWarning;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/**
 * Why one row of a chart looks as it does, in plain words: what it reads, each series with the comparison that made it
 * what it is, where its bars start and end, what its labels say, and what a reader should know of it. Immutable and thread-safe.
 *
 * @param lines one sentence each
 */
public record Explanation(List<String> lines) {
    private static final String UNJUDGED = "unjudged";
    private static final List<String> ORDINALS = List.of("", "", "2nd ", "3rd ");

    public Explanation {
        lines = List.copyOf(lines);
    }

    /** Whether a chart has a row of that name. */
    public static boolean has(PlainChart chart, String row) {
        Column category = chart.data().category();
        return IntStream.range(0, category.size()).anyMatch(at -> category.written(at).equals(row)) || shown(chart).contains(row);
    }

    /** What readers call the rows. */
    private static List<String> shown(PlainChart chart) {
        return chart.plan().nameColumn().isEmpty() ? List.of() : IntStream.range(0, chart.data().rowCount()).mapToObj(chart::name).toList();
    }

    /**
     * @param row the row's name
     * @throws BadInput with the nearest names where the chart has no such row
     */
    public static Explanation of(PlainChart chart, String row) {
        return of(chart, row, false);
    }

    /**
     * The same, with the formula of each series.
     *
     * @param formulas whether formulas are reported, also of series that have no cell on the row
     */
    public static Explanation of(PlainChart chart, String row, boolean formulas) {
        Column category = chart.data().category();
        List<String> names = IntStream.range(0, category.size()).mapToObj(category::written).toList();
        int at = names.contains(row) ? names.indexOf(row) : shown(chart).indexOf(row);
        if (at < 0) {
            throw new BadInput(Place.of("chart '" + chart.name() + "'"), ProblemKind.UNKNOWN_NAME, "there is no row '" + row + "'. " + Nearest.hint(row, names));
        }
        return new Explanation(new Telling(chart, at, formulas).lines());
    }

    /** One row being explained. */
    private static final class Telling {
        private final PlainChart chart;
        private final ComputedColumns data;
        private final int row;
        private final Reason reason;
        private final boolean formulas;

        Telling(PlainChart chart, int row, boolean formulas) {
            this.formulas = formulas;
            this.chart = chart;
            this.data = chart.data();
            this.row = row;
            Optional<Format> format = chart.labels().values().stream().flatMap(List::stream).map(Label::format).findFirst();
            this.reason = new Reason(data, row, format);
        }

        List<String> lines() {
            List<String> lines = new ArrayList<>();
            lines.add("'" + data.category().written(row) + "' is row " + (row + 1) + " of " + data.rowCount() + " in the chart '" + chart.name() + "'.");
            lines.add(inputs());
            place().ifPresent(lines::add);
            List<String> said = chart.plan().sayings().stream().filter(saying -> data.evaluate(saying.when()).number(row) == 1).map(this::said).toList();
            lines.addAll(said);
            lines.addAll(classes(said.isEmpty()));
            if (formulas) {
                chart.plan().series().stream().filter(name -> !name.startsWith(UNJUDGED) || !data.isEmpty(name)).map(chart.plan()::column).forEach(column -> lines.add(series(column)));
                chart.panels().forEach(panel -> panel.bars().forEach(group -> bars(group, lines)));
            }
            labels().ifPresent(lines::add);
            chart.plan().watches().stream().filter(this::isSo).map(watch -> "Note: " + watch.sentence() + ".").forEach(lines::add);
            return lines.stream().filter(line -> !line.isEmpty()).toList();
        }

        private String said(Saying saying) {
            return saying.parts().stream().map(part -> part instanceof Formula formula ? reason.figure(formula) : (String) part).collect(Collectors.joining());
        }

        /**
         * What the row's figure counts as, and why.
         *
         * @param first whether nothing was said of the figure yet
         */
        private List<String> classes(boolean first) {
            Map<String, String> classes = chart.plan().classes();
            List<String> lines = new ArrayList<>();
            for (Series series : chart.series()) {
                boolean there = data.column(series.column()).isPresent(row);
                if (there && series.isSeen() && (classes.containsKey(series.column()) ? lines.isEmpty() : first)) {
                    List<String> because = reason.way(chart.plan().column(series.column()).formula()).because();
                    String why = because.isEmpty() ? "." : ", because " + String.join(", and ", because) + ".";
                    String figure = chart.labelTexts(series, row).isEmpty() ? reason.written(data.column(series.column()), row) : chart.labelTexts(series, row);
                    lines.add(classes.containsKey(series.column()) ? "It counts as '" + series.name() + "'" + why : "'" + series.name() + "' is " + figure + why);
                }
            }
            if (first && lines.isEmpty()) {
                List<String> because = chart.plan().series().stream().limit(1).flatMap(series -> reason.way(chart.plan().column(series).formula()).because().stream()).toList();
                return List.of("Nothing is drawn for it" + (because.isEmpty() ? "." : ", because " + String.join(", and ", because) + "."));
            }
            return lines;
        }

        private String inputs() {
            Set<String> labels = Stream.concat(chart.labels().values().stream().flatMap(List::stream), chart.beside().stream().map(FigureColumn::label)).map(Label::column).collect(Collectors.toSet());
            List<Formula> read = chart.plan().columns().stream().filter(column -> column.use() != Derived.Use.LABEL || labels.contains(column.name())).map(Derived::formula).toList();
            Set<String> columns = new LinkedHashSet<>();
            read.forEach(formula -> columns.addAll(ColumnReferences.columns(formula)));
            chart.plan().category().ifPresent(columns::remove);
            Stream<String> cells = columns.stream().map(name -> name + ": " + (isMissing(Formulas.column(name)) ? "missing" : reason.figure(Formulas.column(name))));
            Stream<String> settings = read.stream().flatMap(formula -> ColumnReferences.settings(formula).stream()).distinct().map(name -> "the setting " + name + ": " + reason.figure(Formulas.setting(name)));
            String told = Stream.concat(cells, settings).collect(Collectors.joining("; "));
            return told.isEmpty() ? "" : "It reads " + told + ".";
        }

        private boolean isMissing(Formula formula) {
            return !data.evaluate(formula).isPresent(row);
        }

        /** Its place among the figures that the labels show. */
        private Optional<String> place() {
            Optional<Label> shown = figured(row);
            if (shown.isEmpty() || data.rowCount() < 2) {
                return Optional.empty();
            }
            double own = data.column(shown.get().column()).number(row);
            String written = data.column(shown.get().words()).written(row);
            List<Double> all = IntStream.range(0, data.rowCount()).boxed().flatMap(r -> figured(r).map(label -> data.column(label.column()).number(r)).stream()).toList();
            int larger = (int) all.stream().filter(f -> f > own).count() + 1;
            boolean tied = all.stream().filter(f -> f.equals(own)).count() > 1;
            if (larger == all.size() && larger > 1) {
                return Optional.of("Its figure, " + written + ", is the smallest of " + all.size() + ".");
            }
            String ordinal = larger == 1 ? "" : larger < ORDINALS.size() ? ORDINALS.get(larger) : larger + "th ";
            return Optional.of("Its figure, " + written + ", is the " + ordinal + "largest of " + all.size()
                    + (tied ? ", tied with another" : "") + ".");
        }

        /** The first label of a row that shows a number. */
        private Optional<Label> figured(int at) {
            return chart.labels().values().stream().flatMap(List::stream)
                    .filter(label -> data.column(label.column()).kind() == Kind.NUMBER && data.column(label.column()).isPresent(at)).findFirst();
        }

        private String series(Derived column) {
            Reason.Way way = reason.way(column.formula());
            boolean present = data.column(column.name()).isPresent(row);
            String because = way.because().isEmpty() ? "" : ", because " + String.join(", and ", way.because());
            boolean plain = way.result().operands().isEmpty();
            String worked = present && !plain ? " = " + way.result() : "";
            String missing = !present && way.because().isEmpty() && !(way.result() instanceof Leaf.Absent)
                    ? ", because " + missingPart(way.result()) + " is missing" : "";
            return "'" + column.name() + "' is " + (present ? reason.written(data.column(column.name()), row) : "absent") + worked + because + missing + ".";
        }

        /** The first thing that a formula reads and that is not there. */
        private String missingPart(Formula formula) {
            return formula.operands().stream().filter(operand -> !operand.operands().isEmpty() || isMissing(operand))
                    .filter(this::isMissing).findFirst().map(this::missingPart).orElse(formula.toString());
        }

        private void bars(BarGroup group, List<String> lines) {
            chart.bars(group).stream().filter(bar -> bar.row() == row && bar.series().fill().isPresent())
                    .map(bar -> "The bar of '" + bar.series().name() + "' runs from " + number(bar.start()) + " to " + number(bar.end()) + ".")
                    .forEach(lines::add);
        }

        private String number(double figure) {
            return reason.written(Column.numbers("bar", figure), 0);
        }

        private Optional<String> labels() {
            List<String> texts = chart.labels().entrySet().stream().filter(entry -> data.column(entry.getKey()).isPresent(row))
                    .flatMap(entry -> entry.getValue().stream().map(label -> chart.labelText(entry.getKey(), label, row))).filter(text -> !text.isEmpty()).distinct().toList();
            return texts.isEmpty() ? Optional.of("It has no label.") : Optional.of((texts.size() == 1 ? "Its label says " : "Its labels say ")
                    + String.join(" and ", texts) + ".");
        }

        private boolean isSo(RowWarning watch) {
            return data.evaluate(watch.when()).number(row) == 1;
        }
    }
}
