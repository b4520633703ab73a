package dev.trellisgorge.sql;

import dev.trellisgorge.chart.Label;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.plan.Plan;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.table.FreeName;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * The texts of a plan's labels as columns beside its series, each there where its bar is, as far as a dialect says how they are written.
 *
 * @param said    the columns of texts
 * @param without the series that have a label which can't be said
 */
record LabelTexts(Map<String, Formula> said, Set<String> without) {

    /** Makes the query of a plan's columns and some of these. */
    interface Asking {
        /** @throws BadInput where one reads rows in an order that they don't have */
        Query query(Map<String, Formula> texts, Set<String> wanted);
    }

    static LabelTexts of(Plan plan, Asking asking) {
        Map<String, Formula> said = new LinkedHashMap<>();
        Set<String> without = new LinkedHashSet<>();
        for (Map.Entry<String, List<Label>> labels : plan.labels().entrySet()) {
            String series = labels.getKey();
            for (Label label : labels.getValue()) {
                String name = FreeName.of("text of " + series, taken -> said.containsKey(taken) || plan.columns().stream().anyMatch(column -> column.name().equals(taken)));
                Formula text = Formulas.choose(Formulas.present(Formulas.computed(series)), Formulas.computed(label.words()), Formulas.absent());
                if (isSaid(asking, name, text)) {
                    said.put(name, text);
                } else {
                    without.add(series);
                }
            }
        }
        return new LabelTexts(said, without);
    }

    private static boolean isSaid(Asking asking, String name, Formula text) {
        try {
            asking.query(Map.of(name, text), Set.of(name)).withValues();
            return true;
        } catch (BadInput unsaid) {
            return false;
        }
    }

    /** A query of the series, then the texts. */
    static Query beside(Plan plan, Asking asking) {
        LabelTexts texts = of(plan, asking);
        Set<String> all = new LinkedHashSet<>(plan.series());
        all.addAll(texts.said().keySet());
        return asking.query(texts.said(), all);
    }
}
