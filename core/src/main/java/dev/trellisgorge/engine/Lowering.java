package dev.trellisgorge.engine;

import dev.trellisgorge.chart.Drawing;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Panel;
import dev.trellisgorge.chart.Panels;
import dev.trellisgorge.chart.ReferenceLine;
import dev.trellisgorge.chart.Ring;
import dev.trellisgorge.chart.TextCells;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.plan.Plan;
import dev.trellisgorge.plan.PlanBuilder;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.stream.IntStream;

/**
 * Rewrites a plan into one that needs nothing but certain abilities, or refuses it with an error. It sees no cell: what it adds
 * are columns with formulas. Immutable and thread-safe.
 */
public final class Lowering {
    private final Set<Ability> has;

    public Lowering(Set<Ability> abilities) {
        this.has = abilities.isEmpty() ? EnumSet.noneOf(Ability.class) : EnumSet.copyOf(abilities);
    }

    /**
     * The chart as one that needs the abilities alone; several, with the same categories in the same order over the same cells,
     * where it has panels and they are drawn one by one.
     *
     * @throws BadInput where one is missing, with its name
     */
    public List<PlainChart> lower(PlainChart chart) {
        Plan plan = chart.plan();
        if (!(plan.drawing() instanceof Panels panels)) {
            if (!has.contains(Ability.SEVERAL_LABELS) && plan.drawing() instanceof Ring ring && ring.series().stream().anyMatch(slice -> !slice.labels().isEmpty())) {
                throw refused(plan.name(), "labels on the slices of a ring");
            }
            return List.of(still(plan.drawing() instanceof TextCells texts && !has.contains(Ability.BARS_IN_CELLS) ? chart.drawn(texts.ofCharacters()) : chart));
        }
        boolean inCells = plan.areInCells() && has.contains(Ability.BARS_IN_CELLS);
        PlanBuilder lowered = plan.change().inCells(inCells);
        List<Panel> done = new ArrayList<>();
        for (int i = 0; i < panels.panels().size(); i++) {
            // What lines are called is known by their cells alone.
            List<ReferenceLine> lines = chart.panels().size() == panels.panels().size() ? chart.panels().get(i).references() : panels.panels().get(i).references();
            done.add(inCells ? panels.panels().get(i).references(lines) : new PanelLowering(has, lowered, panels.panels().get(i).references(lines), plan.orientation() == Orientation.VERTICAL, plan.name()).lower());
        }
        if (inCells) {
            done.replaceAll(panel -> panel.each(series -> series.labelled(List.of()))); // their figures stand beside them
        }
        if (has.contains(Ability.PANELS) || done.size() == 1) {
            return List.of(still(chart.by(lowered.drawing(new Panels(done, panels.categoriesShown())).build())).describedAs(chart));
        }
        // The columns of all panels are computed once, whichever of them is drawn.
        PlainChart whole = chart.by(lowered.drawing(new Panels(done, panels.categoriesShown())).build());
        return IntStream.range(0, done.size()).mapToObj(i -> still(whole.drawn(one(whole, i))).describedAs(chart.drawn(one(chart, i)))).toList();
    }

    private static Panels one(PlainChart chart, int panel) {
        Panels all = (Panels) chart.drawing();
        return new Panels(List.of(all.panels().get(panel)), all.categoriesShown());
    }

    private PlainChart still(PlainChart chart) {
        if (has.contains(Ability.STILL)) {
            return chart.withoutEmptySeries();
        }
        Drawing drawn = chart.drawing().each(series -> series.column().startsWith("unjudged") && chart.data().isEmpty(series.column()) ? series.inLegend(false) : series);
        return chart.drawn(drawn);
    }

    static BadInput refused(String chart, String what) {
        return new BadInput(Place.of("chart '" + chart + "'"), ProblemKind.UNSUPPORTED, "files of this kind can't show " + what
                + ", which the chart needs; draw it to another kind, such as .svg");
    }
}
