package dev.trellisgorge.examples;

import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.computed;
import static dev.trellisgorge.formula.Formulas.missing;
import static dev.trellisgorge.formula.Formulas.orZero;
import static dev.trellisgorge.formula.Formulas.present;

import dev.trellisgorge.chart.BarGroup;
import dev.trellisgorge.chart.BarGroup.Placing;
import dev.trellisgorge.chart.Drawing;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Panel;
import dev.trellisgorge.chart.Panels;
import dev.trellisgorge.chart.Points;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.engine.Engines;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.LabelSpot;
import dev.trellisgorge.pattern.Look;
import dev.trellisgorge.pattern.Pattern;
import dev.trellisgorge.pattern.PatternType;
import dev.trellisgorge.plan.Identity;
import dev.trellisgorge.plan.PlanBuilder;
import dev.trellisgorge.plan.RowWarning;
import dev.trellisgorge.tables.TableFile;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;

/** A pattern that the catalogue lacks: a dot on a thin stem for each row. Takes the fish counts and the files to draw. */
public final class StemChart {
    private StemChart() {
    }

    /** A dot at each value, on a stem from zero; nothing where it is missing. */
    record Stems(Formula value) implements Pattern {

        @Override
        public PatternType type() {
            return PatternType.named("stems", "A dot on a thin stem for each row");
        }

        @Override
        public Orientation orientation() {
            return Orientation.VERTICAL;
        }

        @Override
        public Map<String, Formula> figures() {
            return Map.of("value", value);
        }

        @Override
        public List<String> seriesNames() {
            return List.of("stem", "dot");
        }

        @Override
        public void describe(PlanBuilder plan) {
            plan.series("stem", value).series("dot", value)
                    .prove(Identity.everywhere("a stem ends at its dot", orZero(computed("stem")), orZero(computed("dot"))))
                    .watch(new RowWarning("not counted", missing(value), value));
        }

        @Override
        public List<LabelSpot> labelled(PlanBuilder plan) {
            return List.of(LabelSpot.of("dot", present(value), value));
        }

        @Override
        public Drawing arrange(Look look) {
            return Panels.of(Panel.of(new BarGroup(Placing.OVERLAPPING, 8, List.of(look.series("stem", Role.MUTED, false))))
                    .points(List.of(new Points(look.series("dot", Role.BASE, false), Points.Shape.DOT))));
        }
    }

    public static void main(String[] arguments) {
        Chart days = Chart.of("day", new Stems(column("fish"))).title("Wednesday and Friday were the best days at the fish pass").subtitle("Fish counted a day, week 10 of 2031");
        for (int i = 1; i < arguments.length; i++) {
            Engines.draw(days.over(TableFile.read("fish", Path.of(arguments[0])), Settings.NONE), Path.of(arguments[i]));
        }
    }
}
