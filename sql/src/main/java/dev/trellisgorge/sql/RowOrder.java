package dev.trellisgorge.sql;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Leaf;
import dev.trellisgorge.formula.Window;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.shape.Rank;
import dev.trellisgorge.shape.Step;
import java.util.Map;

/** Whether it counts in which order rows stand: a table of a database has none of its own. */
final class RowOrder {

    private RowOrder() {
    }

    /**
     * @param computed the columns that are wanted, and what they read
     * @throws BadInput where something reads the order of rows that were put into none
     */
    static void refuseUnordered(Pipeline pipeline, Map<String, Formula> computed, Map<String, TableSource> sources) {
        boolean ordered = isOrdered(pipeline, sources);
        computed.forEach((name, formula) -> {
            if (!ordered && reads(formula)) {
                throw unordered("column '" + name + "'");
            }
        });
    }

    /** Whether steps put the rows in an order. @throws BadInput where one reads it before */
    private static boolean isOrdered(Pipeline pipeline, Map<String, TableSource> sources) {
        boolean ordered = sources.get(pipeline.source()).rowsBy().isPresent();
        for (Step step : pipeline.steps()) {
            boolean reads = step.traits().readsOrder() || step.formulas().stream().anyMatch(RowOrder::reads);
            if (reads && !ordered) {
                throw unordered("step '" + step.sentence() + "'");
            }
            step.traits().tables().forEach(other -> isOrdered(other, sources));
            ordered |= step.traits().sorts();
        }
        return ordered;
    }

    private static BadInput unordered(String what) {
        return new BadInput(Place.of(what), ProblemKind.UNSUPPORTED, "reads rows in their order, which a table of a database does not have; name the column that numbers them, or put them in order first");
    }

    /** Whether a formula's cells depend on the order of the rows. */
    static boolean reads(Formula formula) {
        return formula instanceof Window.Lag || formula instanceof Window.Cumulative || formula instanceof Window.Lookup || formula instanceof Leaf.RowNumber
                || formula instanceof Window.Rank rank && rank.ties() == Window.Ties.BY_ROW || formula.operands().stream().anyMatch(RowOrder::reads);
    }
}
