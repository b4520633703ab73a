package dev.trellisgorge.chart;

import dev.trellisgorge.table.Characters;
import java.util.List;
import java.util.Objects;
import java.util.Optional;

/**
 * One column of figures as it is drawn. Immutable and thread-safe.
 *
 * @param column   the helper column with its lengths or places
 * @param name     what a reader calls it
 * @param role     what its colour says; {@link Role#PAPER} for a spacer
 * @param fill     its colour; none for a spacer, which takes up room and is never seen, and for a mere outline
 * @param outline  the colour of the line round it, or none
 * @param round    whether the end away from the base line is drawn round, by engines that can
 * @param labels   the texts beside each bar, each in a place of its own
 * @param inLegend whether the legend names it
 */
public record Series(String column, String name, Role role, Optional<Color> fill, Optional<Color> outline, boolean round, List<Label> labels,
        boolean inLegend) {
    public Series {
        Objects.requireNonNull(column, "column");
        name = Characters.shown(name);
        Objects.requireNonNull(role, "role");
        Objects.requireNonNull(fill, "fill");
        Objects.requireNonNull(outline, "outline");
        labels = List.copyOf(labels);
    }

    /** A series that takes up room and is never seen: no fill, outline, label or legend entry. */
    public static Series spacer(String column) {
        return new Series(column, column, Role.PAPER, Optional.empty(), Optional.empty(), false, List.of(), false);
    }

    /** Whether anything of it can be seen. */
    public boolean isSeen() {
        return fill.isPresent() || outline.isPresent();
    }

    public Series named(String newColumn) {
        return new Series(newColumn, name, role, fill, outline, round, labels, inLegend);
    }

    public Series called(String newName) {
        return new Series(column, newName, role, fill, outline, round, labels, inLegend);
    }

    public Series filled(Optional<Color> newFill) {
        return new Series(column, name, role, newFill, outline, round, labels, inLegend);
    }

    public Series outlined(Color line) {
        return new Series(column, name, role, fill, Optional.of(line), round, labels, inLegend);
    }

    public Series rounded() {
        return new Series(column, name, role, fill, outline, true, labels, inLegend);
    }

    /** The first of its labels, or none: all that it has for what draws no more than one. */
    public Optional<Label> label() {
        return labels.stream().findFirst();
    }

    public Series labelled(List<Label> some) {
        return new Series(column, name, role, fill, outline, round, some, inLegend);
    }

    public Series inLegend(boolean named) {
        return new Series(column, name, role, fill, outline, round, labels, named);
    }
}
