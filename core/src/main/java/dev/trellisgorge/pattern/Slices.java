package dev.trellisgorge.pattern;

import dev.trellisgorge.chart.Role;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.plan.Plan;
import dev.trellisgorge.plan.PlanBuilder;
import dev.trellisgorge.shape.Slice;
import java.util.List;
import java.util.Locale;

/**
 * The slices of a ring, clockwise: each is a column of the one row while it is computed, and a row when it is printed.
 *
 * @param all in drawing order
 */
record Slices(List<Slice> all) {

    /** What a slice is to a reader. */
    enum Role {
        FILL, REST, HIDDEN, POINTER;

        @Override
        public String toString() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /** A slice: its name, its size on the scale, and its role. A pointer's size is the place that it points to. */
    record Slice(String name, Formula size, Role role) {
    }

    void describe(PlanBuilder plan) {
        all.forEach(slice -> plan.series(slice.name(), slice.size()));
        plan.slices(all.stream().map(slice -> new Plan.Slice(slice.name(), slice.role().toString())).toList());
    }

    List<String> names() {
        return all.stream().map(Slice::name).toList();
    }
}
