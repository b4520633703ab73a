/**
 * Tables, formulas, plans of charts, patterns, engines' contract and the audit. It computes everything and depends on nothing.
 *
 * <p>Each package is exported, and each reads only the ones before it; what carries out formulas and steps is not public.
 */
module dev.trellisgorge.core {
    exports dev.trellisgorge.problem;
    exports dev.trellisgorge.file;
    exports dev.trellisgorge.table;
    exports dev.trellisgorge.formula;
    exports dev.trellisgorge.shape;
    exports dev.trellisgorge.chart;
    exports dev.trellisgorge.plan;
    exports dev.trellisgorge.pattern;
    exports dev.trellisgorge.engine;
    exports dev.trellisgorge.audit;

    uses dev.trellisgorge.engine.Engine;
}
