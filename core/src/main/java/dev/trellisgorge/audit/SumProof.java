package dev.trellisgorge.audit;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.Leaf;
import dev.trellisgorge.formula.ColumnReferences;
import dev.trellisgorge.formula.Window;
import dev.trellisgorge.plan.ComputedColumns;
import dev.trellisgorge.plan.Plan;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.table.Column;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Every running sum and sum of all rows of a chart's helper columns, held against the same sum worked out exactly. */
final class SumProof {
    /** Of the sum: its own rounding. */
    private static final double ROUNDING = 0x1p-52;
    /** Of all that was added, for each row: what a compensated sum may lose. */
    private static final double LOST = 0x1p-102;

    /** Of a sum that was added up elsewhere: as an identity may be off. */
    private static final double ELSEWHERE = 1e-9;

    private final Column category;
    private final boolean here;
    private final List<Proof.Failure> failures = new ArrayList<>();
    private int rows;
    private boolean toLastDigit = true;

    private SumProof(Column category, boolean here) {
        this.category = category;
        this.here = here;
    }

    /** Empty where nothing is added up over the rows, or they stayed where they are but for one. */
    static Optional<Proof> of(Plan plan, ComputedColumns cells) {
        Map<Formula, Formula> sums = new LinkedHashMap<>();
        plan.columns().forEach(column -> ColumnReferences.sums(column.formula())
                .forEach(sum -> sums.merge(sum, sum.equals(column.formula()) ? Formulas.computed(column.name()) : sum, (one, other) -> one.equals(sum) ? other : one)));
        boolean here = cells.executor().map(Executor::isHere).orElse(true);
        if (sums.isEmpty() || !here && plan.isFirstRowAlone()) {
            return Optional.empty();
        }
        SumProof proof = new SumProof(cells.category(), here);
        sums.forEach((sum, cell) -> proof.hold(sum, cell, cells));
        return Optional.of(new Proof("each running sum, and each sum of all rows, is the exact one" + (proof.toLastDigit ? " to its last digit" : ", but for the rounding of the database"), proof.rows, proof.failures));
    }

    /** @param cell the helper column that the sum is, or where it is only a piece of one, the sum itself */
    private void hold(Formula sum, Formula cell, ComputedColumns cells) {
        Map<String, Formula> asked = new LinkedHashMap<>();
        asked.put("sum", cell);
        asked.put("added", sum.operands().get(0));
        boolean restarts = sum instanceof Window.Cumulative running && !(running.restart() instanceof Leaf.Absent);
        if (restarts) {
            asked.put("restart", sum.operands().get(1));
        }
        Map<String, Column> found = cells.evaluate(asked);
        Column added = found.get("added");
        ExactSum exact = new ExactSum();
        for (int row = 0; row < added.size(); row++) {
            if (restarts && found.get("restart").number(row) == 1) {
                exact = new ExactSum();
            }
            if (added.isPresent(row)) {
                exact.add(added.number(row));
            }
            if (sum instanceof Window.Cumulative || row == added.size() - 1) {
                hold(row, found.get("sum"), exact);
            }
        }
    }

    private void hold(int row, Column sums, ExactSum exact) {
        double sum = sums.number(row);
        rows++;
        if (!sums.isPresent(row) && exact.count() == 0) {
            return;
        }
        double allowed = ROUNDING * Math.abs(sum) + LOST * exact.count() * exact.size() + Double.MIN_NORMAL;
        double off = Math.abs(exact.minus(sum));
        toLastDigit &= off <= allowed || here;
        if (!(off <= (here ? allowed : allowed + ELSEWHERE * exact.size()))) {
            failures.add(new Proof.Failure(category.written(row), sum, exact.minus(0)));
        }
    }
}
