package dev.trellisgorge.pattern;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Numeric;
import dev.trellisgorge.formula.Numeric.Operator;
import dev.trellisgorge.formula.ColumnReferences;
import dev.trellisgorge.shape.Lineage;
import java.util.Collection;
import java.util.HashSet;
import java.util.Set;

/**
 * The raw columns that hold amounts, which may be added up, as far as a chart tells: those that it draws, those whose ratio it
 * takes, and those that it adds to such a one. All else may be a rate.
 */
final class Amounts {
    private final Set<String> columns = new HashSet<>();

    private Amounts() {
    }

    /**
     * @param drawn   the figures that are drawn
     * @param remarks what is only said
     */
    static Set<String> in(Collection<Formula> drawn, Collection<Formula> remarks, Lineage origins) {
        Amounts amounts = new Amounts();
        drawn.forEach(figure -> amounts.columns.addAll(ColumnReferences.columns(origins.expanded(figure))));
        int before;
        do { // an amount that is found late may tell of another one
            before = amounts.columns.size();
            remarks.forEach(remark -> amounts.look(origins.expanded(remark)));
        } while (amounts.columns.size() > before);
        return amounts.columns;
    }

    private void look(Formula formula) {
        if (formula instanceof Numeric.Arithmetic both) {
            Set<String> left = ColumnReferences.columns(both.left());
            Set<String> right = ColumnReferences.columns(both.right());
            boolean ratio = both.operator() == Operator.OVER && !left.isEmpty() && !right.isEmpty();
            boolean alike = (both.operator() == Operator.PLUS || both.operator() == Operator.MINUS)
                    && (left.stream().anyMatch(columns::contains) || right.stream().anyMatch(columns::contains));
            if (ratio || alike) {
                columns.addAll(left);
                columns.addAll(right);
            }
        }
        formula.operands().forEach(this::look);
    }
}
