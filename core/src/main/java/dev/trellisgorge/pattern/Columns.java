package dev.trellisgorge.pattern;

import static dev.trellisgorge.formula.Formulas.column;

import dev.trellisgorge.chart.BarGroup;
import dev.trellisgorge.chart.BarGroup.Placing;
import dev.trellisgorge.chart.Format;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Panel;
import dev.trellisgorge.chart.ReferenceLine;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.HelperTable;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;

/**
 * One bar a category, from zero to its value; with a classifier, one series a class, in the same place. One
 * part, {@code value}. A missing value is absent in every series; a zero is a zero.
 *
 * @param value      the figure, one number a row
 * @param classifier the rule that colours the bars, or none
 */
public record Columns(Formula value, Optional<Classifier> classifier) implements Pattern {
    private static final double GAP = 0.6;

    /** Columns of any formula of one number a row. */
    public static Columns of(Formula value) {
        return new Columns(value, Optional.empty());
    }

    /** Columns of a table's column. */
    public static Columns of(String value) {
        return of(column(value));
    }

    public Columns classify(Classifier rule) {
        return new Columns(value, Optional.of(rule));
    }

    @Override
    public String name() {
        return "columns";
    }

    @Override
    public Orientation orientation() {
        return Orientation.VERTICAL;
    }

    @Override
    public Map<String, Formula> figures() {
        Map<String, Formula> figures = new LinkedHashMap<>();
        figures.put("value", value);
        classifier.ifPresent(rule -> figures.putAll(rule.figures()));
        return figures;
    }

    @Override
    public List<String> seriesNames() {
        return combination().possibleColumns();
    }

    @Override
    public HelperTable addTo(HelperTable table) {
        return combination().addTo(table);
    }

    @Override
    public List<Panel> arrange(HelperTable table, Look look) {
        Supplier<Format> fitting = () -> Format.fitting(table.columns().stream().map(c -> c.cells()).toList());
        List<Series> series = combination().madeIn(table).stream()
                .map(made -> new Series(made.column(), look.name(made.column()), look.color(made.column(), made.role()),
                        look.label(made.column(), fitting), classifier.isPresent()))
                .toList();
        List<ReferenceLine> lines = classifier.map(rule -> rule.lines(table.settings())).orElse(List.of());
        BarGroup bars = new BarGroup(Placing.OVERLAPPING, GAP, series);
        return List.of(new Panel(List.of(bars), lines, look.labels().show() == Labels.Show.NONE));
    }

    private Combination combination() {
        return new Combination(value, List.of(new Part("value", value)), classifier);
    }
}
