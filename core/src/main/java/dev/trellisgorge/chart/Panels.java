package dev.trellisgorge.chart;

import java.util.List;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;

/**
 * Panels that share the category axis, and so hold the same categories in the same order: one above the other where bars
 * stand upright, side by side where they lie. Immutable and thread-safe.
 *
 * @param panels          from the top, or from the left; at least one
 * @param categoriesShown whether the category axis carries the names; not where labels do
 */
public record Panels(List<Panel> panels, boolean categoriesShown) implements Drawing {

    /** @throws IllegalArgumentException where there is no panel */
    public Panels {
        panels = List.copyOf(panels);
        if (panels.isEmpty()) {
            throw new IllegalArgumentException("there is no panel");
        }
    }

    /** Panels over a category axis with its names. */
    public static Panels of(Panel... panels) {
        return new Panels(List.of(panels), true);
    }

    /** The same panels over a category axis with or without its names. */
    public Panels categoriesShown(boolean shown) {
        return new Panels(panels, shown);
    }

    @Override
    public Panels each(UnaryOperator<Series> change) {
        return new Panels(panels.stream().map(panel -> panel.each(change)).toList(), categoriesShown);
    }

    @Override
    public Panels without(Predicate<Series> gone) {
        return new Panels(panels.stream().map(panel -> panel.without(gone)).toList(), categoriesShown);
    }

    @Override
    public <E extends Exception> void match(Case<Panels, E> panels, Case<Ring, E> ring, Case<TextCells, E> texts) throws E {
        panels.of(this);
    }

    @Override
    public <R> R matched(Function<Panels, R> panels, Function<Ring, R> ring, Function<TextCells, R> texts) {
        return panels.apply(this);
    }

    @Override
    public List<Series> series() {
        return panels.stream().flatMap(panel -> panel.series().stream()).toList();
    }
}
