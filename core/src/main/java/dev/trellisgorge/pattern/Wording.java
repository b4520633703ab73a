package dev.trellisgorge.pattern;

import dev.trellisgorge.chart.Format;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.Leaf;
import dev.trellisgorge.formula.ColumnReferences;
import dev.trellisgorge.formula.Window;
import dev.trellisgorge.formula.ValueFormatter;
import dev.trellisgorge.plan.PlanBuilder;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.Problem;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.shape.Cut;
import dev.trellisgorge.shape.Slice;
import dev.trellisgorge.table.CalendarUnit;
import dev.trellisgorge.table.Kind;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/** Describes lines of words as columns of a plan: each has the same text on every row. */
final class Wording {
    private static final String NOTHING = "–";
    private static final double SMALL = 0.01;

    private final PlanBuilder plan;
    private final Locale locale;

    Wording(PlanBuilder plan, Locale locale) {
        this.plan = plan;
        this.locale = locale;
    }

    /**
     * Adds a column with the words; none where they are plain.
     *
     * @param line what messages call it: {@code title}
     */
    Optional<String> column(Words words, String line) {
        if (words.arePlain()) {
            return Optional.empty();
        }
        try {
            List<Formula> said = new ArrayList<>();
            for (Words.Piece piece : words.pieces()) {
                said.add(piece instanceof Words.Made made ? written(made, line) : Formulas.text(((Words.Said) piece).text()));
            }
            String column = plan.free(line);
            plan.forLabels(column, said.size() == 1 ? said.get(0) : Formulas.concat(said.toArray(Formula[]::new)));
            return Optional.of(column);
        } catch (BadInput wrong) {
            throw new BadInput(wrong.problems().stream().map(problem -> new Problem(Place.of("chart '" + plan.name() + "'"), problem.kind(), "its " + line + ": " + problem.message())).toList());
        }
    }

    private Formula written(Words.Made made, String line) {
        if (made.of() instanceof Leaf.Column column && !plan.schema().has(column.name())) {
            return Formulas.coalesce(sliced(cut(column.name()), made.pattern()), Formulas.text(NOTHING));
        }
        String column = plan.free("figure of the " + line);
        plan.forLabels(column, single(made.of(), line));
        return Formulas.coalesce(written(Formulas.computed(column), made.pattern()), Formulas.text(NOTHING));
    }

    private Formula written(Formula figure, Optional<String> pattern) {
        Kind kind = plan.kind(figure).orElse(Kind.TEXT);
        if (kind != Kind.NUMBER) {
            return kind == Kind.TRUTH ? Formulas.written(figure) : day(figure, kind, pattern);
        }
        Format format = pattern.map(Wording::format).orElse(Format.FITTING).in(locale);
        if (!format.isFitting()) {
            return format.words(figure, Formulas.number(0));
        }
        Formula size = Formulas.abs(figure);
        return Formulas.choose(size.above(Formulas.number(0)).and(size.below(Formulas.number(SMALL))), Formulas.formatted(figure, "0.##E0", locale), Formulas.formatted(figure, "#,##0.##", locale));
    }

    private Formula day(Formula figure, Kind kind, Optional<String> pattern) {
        if (pattern.isPresent()) {
            try {
                ValueFormatter.checkDates(pattern.get(), locale);
            } catch (IllegalArgumentException e) {
                throw new BadInput(Place.of(""), ProblemKind.SYNTAX, e.getMessage());
            }
            return Formulas.formatted(figure, pattern.get(), locale);
        }
        return kind == Kind.TEXT ? figure : locale.equals(Locale.ROOT) ? Formulas.written(figure) : Formulas.formatted(figure, Format.dates(locale), locale);
    }

    private static Format format(String pattern) {
        try {
            return Format.stated(pattern);
        } catch (IllegalArgumentException e) {
            throw new BadInput(Place.of(""), ProblemKind.SYNTAX, e.getMessage());
        }
    }

    /** The formula with the one cell of each column that it names outside of its aggregates. */
    private Formula single(Formula formula, String line) {
        if (formula instanceof Leaf.Column column) {
            return plan.schema().has(column.name()) ? only(column, line) : sliced(cut(column.name()), Optional.empty());
        }
        if (formula instanceof Window) {
            ColumnReferences.columns(formula).forEach(name -> plan.schema().field(name));
            return formula;
        }
        return formula.operands().isEmpty() ? formula : formula.rebuilt(formula.operands().stream().map(each -> single(each, line)).toList());
    }

    private Formula only(Leaf.Column column, String line) {
        plan.single(column.name(), line);
        return new Window.Lookup(column, Formulas.rowNumber(), Formulas.number(1));
    }

    /** What a slice keeps of a column that the chart's table no longer has. */
    private Cut cut(String column) {
        Optional<Cut> cut = plan.pipeline().steps().stream().filter(Slice.class::isInstance).map(Slice.class::cast).filter(slice -> slice.column().equals(column))
                .map(Slice::cut).reduce((first, last) -> last);
        Set<String> known = new LinkedHashSet<>(plan.schema().columnNames());
        plan.pipeline().steps().stream().filter(Slice.class::isInstance).forEach(slice -> known.add(((Slice) slice).column()));
        return cut.orElseThrow(() -> new BadInput(Place.of(""), ProblemKind.UNKNOWN_NAME, "the charted table has no column '" + column + "', and no slice keeps cells of one. " + Nearest.hint(column, known)));
    }

    private Formula sliced(Cut cut, Optional<String> pattern) {
        if (cut instanceof Cut.OneOf some) {
            List<Formula> all = new ArrayList<>();
            for (Formula cell : some.cells()) {
                if (!all.isEmpty()) {
                    all.add(Formulas.text(", "));
                }
                all.add(end(cell, pattern));
            }
            return all.size() == 1 ? all.get(0) : Formulas.concat(all.toArray(Formula[]::new));
        }
        Cut.Range range = (Cut.Range) cut;
        Formula from = range.from().map(cell -> Formulas.concat(end(cell, pattern), Formulas.text(" " + NOTHING))).orElse(Formulas.text(NOTHING));
        return range.to().map(cell -> Formulas.concat(from, Formulas.text(" "), end(cell, pattern))).orElse(from);
    }

    private Formula end(Formula cell, Optional<String> pattern) {
        boolean day = cell instanceof Leaf.Literal literal && CalendarUnit.days(literal.value().toString()).filter(days -> days.unit() == CalendarUnit.DAY).isPresent();
        return written(cell, day && !locale.equals(Locale.ROOT) ? pattern.or(() -> Optional.of(Format.dates(locale))) : pattern);
    }
}
