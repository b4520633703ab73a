package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Label;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.formula.Choice;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.Leaf;
import dev.trellisgorge.formula.Numeric;
import dev.trellisgorge.plan.Plan;
import java.util.List;
import java.util.Optional;

/** Whether a label says how long its bar is, whatever the cells become: then it is the bar's own value, and follows in every program. */
final class LabelOfLength {
    private final Plan plan;
    private final Series series;
    private final Label label;

    LabelOfLength(Plan plan, Series series, Label label) {
        this.plan = plan;
        this.series = series;
        this.label = label;
    }

    /** What a label says of the length of its bar. */
    enum Says {
        ITSELF, ITS_OPPOSITE, ANOTHER;

        /** Whether it needs no cell of its own. */
        boolean ofLength() {
            return this != ANOTHER;
        }
    }

    /** Whether both are one figure, or one the other's opposite, wherever the bar is there; then no edit can part them. */
    Says says() {
        if (NumberFormats.isText(label.format())) {
            return Says.ANOTHER;
        }
        Formula said = plain(new Leaf.Computed(label.column()));
        Formula drawn = plain(new Leaf.Computed(series.column()));
        if (isSame(said, drawn)) {
            return Says.ITSELF;
        }
        Formula length = only(drawn).map(Choice.When::result).orElse(drawn);
        boolean opposite = length instanceof Numeric.Negate negated && isSame(said, masked(drawn, negated.of()));
        return opposite ? Says.ITS_OPPOSITE : Says.ANOTHER;
    }

    /** A figure where something that may be masked is. */
    private static Formula masked(Formula like, Formula figure) {
        return only(like).<Formula>map(when -> new Choice.Case(List.of(new Choice.When(when.condition(), figure)), Formulas.absent())).orElse(figure);
    }

    /** Whether a figure is that of a bar, where the bar is. */
    private boolean isSame(Formula said, Formula drawn) {
        Optional<Choice.When> length = only(drawn);
        if (said.equals(drawn) || length.isPresent() && length.get().result().equals(said)) {
            return true;
        }
        Optional<Choice.When> figure = only(said);
        return length.isPresent() && figure.isPresent() && length.get().result().equals(figure.get().result())
                && (figure.get().condition().equals(length.get().condition()) || figure.get().condition().equals(Formulas.truth(true))
                        || figure.get().condition().equals(Formulas.present(Formulas.computed(series.column()))));
    }

    /** A formula in which a column is written out, as far as it stands alone, is masked or has its sign turned. */
    private Formula plain(Formula formula) {
        if (formula instanceof Leaf.Computed made) {
            return plain(plan.column(made.name()).formula());
        }
        return formula instanceof Numeric.Negate negated ? new Numeric.Negate(plain(negated.of()))
                : only(formula).map(when -> masked(formula, plain(when.result()))).orElse(formula);
    }

    /** The one case of a formula that is absent elsewhere. */
    private static Optional<Choice.When> only(Formula formula) {
        return formula instanceof Choice.Case cases && cases.whens().size() == 1 && cases.otherwise() instanceof Leaf.Absent ? Optional.of(cases.whens().get(0)) : Optional.empty();
    }
}
