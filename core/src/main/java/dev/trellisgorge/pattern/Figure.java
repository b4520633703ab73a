package dev.trellisgorge.pattern;

import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.computed;
import static dev.trellisgorge.formula.Formulas.count;
import static dev.trellisgorge.formula.Formulas.max;
import static dev.trellisgorge.formula.Formulas.min;
import static dev.trellisgorge.formula.Formulas.sum;

import dev.trellisgorge.chart.Format;
import dev.trellisgorge.chart.Label;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.chart.TextCells;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.ColumnReferences;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.plan.Plan;
import dev.trellisgorge.plan.PlanBuilder;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.shape.Cut;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.shape.Catalog;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.shape.Slice;
import dev.trellisgorge.shape.Total;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.RowProblems;
import dev.trellisgorge.table.Table;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;

/**
 * One big figure on a board: of one row, or a total of several. Immutable and thread-safe.
 *
 * @param name   what its series are called by
 * @param value  the figure on a row
 * @param total  what is made of several rows; where there is none, there is one row
 * @param title  over it, or empty
 * @param text   under it, or empty
 * @param format how it is written; the plainest that shows it where it is empty
 * @param slice  which rows count, by the cells of columns
 * @param locale in whose language it is written
 */
public record Figure(String name, Formula value, Optional<Total> total, Words title, Words text, Optional<Format> format,
        Map<String, Cut> slice, Locale locale) {
    private static final String FIGURE = "figure";

    /** What is made of the figures of several rows; missing ones count for nothing. */
    public enum Total {
        SUM, MEAN, COUNT, LEAST, GREATEST;

        private Formula of(Formula value) {
            return switch (this) {
                case SUM -> sum(value);
                case MEAN -> sum(value).over(count(value));
                case COUNT -> count(value);
                case LEAST -> min(value);
                case GREATEST -> max(value);
            };
        }

        @Override
        public String toString() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    public Figure {
        Objects.requireNonNull(name, "name");
        Objects.requireNonNull(value, "value");
        Objects.requireNonNull(total, "total");
        Objects.requireNonNull(title, "title");
        Objects.requireNonNull(text, "text");
        Objects.requireNonNull(format, "format");
        Objects.requireNonNull(locale, "locale");
        slice = Collections.unmodifiableMap(new LinkedHashMap<>(slice));
    }

    /** The figure in a column of a table with one row. */
    public static Figure of(String column) {
        return new Figure(column, column(column), Optional.empty(), Words.NONE, Words.NONE, Optional.empty(), Map.of(), Locale.ROOT);
    }

    /** The same, of several rows. */
    public Figure total(Total of) {
        return new Figure(name, value, Optional.of(of), title, text, format, slice, locale);
    }

    public Figure title(String line) {
        return title(Words.of(line));
    }

    public Figure text(String line) {
        return text(Words.of(line));
    }

    /** A line over it that says what the rows are. */
    public Figure title(Words line) {
        return new Figure(name, value, total, line, text, format, slice, locale);
    }

    /** A line under it that says what the rows are. */
    public Figure text(Words line) {
        return new Figure(name, value, total, title, line, format, slice, locale);
    }

    /** In whose language the figure is written; see {@link Chart#locale}. */
    public Figure locale(Locale language) {
        return new Figure(name, value, total, title, text, format, slice, language);
    }

    public Figure format(String pattern) {
        return new Figure(name, value, total, title, text, Optional.of(new Format(pattern)), slice, locale);
    }

    /** Keeps the rows whose cell in {@code column} is {@code value}. */
    public Figure slice(String column, String value) {
        return slice(column, Cut.is(value));
    }

    /** Keeps the rows whose cell in {@code column} is one of some, or lies in a range. */
    public Figure slice(String column, Cut value) {
        Map<String, Cut> more = new LinkedHashMap<>(slice);
        more.put(column, value);
        return new Figure(name, this.value, total, title, text, format, more, locale);
    }

    /**
     * Describes the figure, without a cell.
     *
     * @param base  the table that it is a figure of
     * @param known the raw tables that {@code base} starts from, and the settings by name
     * @throws BadInput where a column or setting is unknown, or the figure is no number
     */
    public Plan plan(Pipeline base, Catalog known) {
        Pipeline sliced = base;
        for (Map.Entry<String, Cut> cut : slice.entrySet()) {
            sliced = sliced.then(new Slice(cut.getKey(), cut.getValue()));
        }
        PlanBuilder plan = new PlanBuilder(name, base, sliced, sliced, known, Optional.empty());
        ColumnReferences.columns(value).forEach(plan.schema()::field);
        Kind kind = plan.kind(value).orElse(Kind.NUMBER);
        if (kind != Kind.NUMBER) {
            RowProblems.refuseFewTexts(plan.schema(), value.title());
            throw new BadInput(plan.schema().place(), ProblemKind.WRONG_TYPE, "'" + value.title() + "' is " + kind.phrase() + ", and a figure must be a number");
        }
        plan.titles(title.said(), text.said()).locale(locale).finite(List.copyOf(ColumnReferences.columns(value))).series(FIGURE, total.map(of -> of.of(value)).orElse(value));
        Formula figure = computed(FIGURE);
        Wording wording = new Wording(plan, locale);
        plan.titlesFrom(wording.column(title, "title"), wording.column(text, "text"));
        Format written = format.orElse(Format.FITTING).in(locale);
        Optional<String> decimals = written.isFitting() ? Optional.of("decimals of the figure") : Optional.empty();
        decimals.ifPresent(column -> plan.forLabels(column, Format.decimals(List.of(figure))));
        plan.forLabels("figure in words", written.words(figure, computed(decimals.orElse(FIGURE))));
        plan.label(FIGURE, new Label(FIGURE, "figure in words", written, decimals, Label.At.END, false));
        Series series = Series.spacer(FIGURE).labelled(plan.labels().get(FIGURE));
        if (total.isPresent()) {
            plan.firstRowAlone();
        }
        return plan.drawing(new TextCells(List.of(new TextCells.TextColumn(List.of(series), false)))).build();
    }

    /**
     * Computes the figure, in the first row of the series {@code figure}. It is missing where every row's is.
     *
     * @throws BadInput as {@link #plan} does; and where a figure is infinite, no row is left, or several are and nothing says
     *                  what is made of them
     */
    public PlainChart over(Table table, Settings settings) {
        return over(Pipeline.of(table.name()), Executor.over(table, settings));
    }

    /** The same over a table that steps make. */
    public PlainChart over(Pipeline base, Executor executor) {
        Plan plan = plan(base, executor.known());
        int rows = total.isPresent() ? 1 : executor.run(plan.pipeline()).rowCount();
        if (rows > 1) {
            throw new BadInput(plan.schema().place(), ProblemKind.DATA, "a figure is taken from one row, and there are " + rows
                    + "; keep one with 'slice', or say what is made of them with 'total' (sum, mean, count, least, greatest)");
        }
        PlainChart chart = plan.over(executor);
        Optional<Note> missing = total.filter(of -> of == Total.SUM || of == Total.MEAN)
                .flatMap(of -> executor.passedOver(plan.pipeline(), "the " + of + " of '" + value.title() + "'" + (title.said().isEmpty() ? "" : " (" + title.said() + ")"), value));
        return missing.map(chart::withNotes).orElse(chart);
    }
}
