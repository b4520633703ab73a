package dev.trellisgorge.chart;

import dev.trellisgorge.table.Characters;
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
 * @param label    the text beside each bar, or none
 * @param inLegend whether the legend names it
 */
public record Series(String column, String name, Role role, Optional<Color> fill, Optional<Color> outline, boolean round, Optional<Label> label,
        boolean inLegend) {
    public Series {
        Objects.requireNonNull(column, "column");
        name = Characters.shown(name);
        Objects.requireNonNull(role, "role");
        Objects.requireNonNull(fill, "fill");
        Objects.requireNonNull(outline, "outline");
        Objects.requireNonNull(label, "label");
    }

    /** A series that takes up room and is never seen: no fill, outline, label or legend entry. */
    public static Series spacer(String column) {
        return new Series(column, column, Role.PAPER, Optional.empty(), Optional.empty(), false, Optional.empty(), false);
    }

    /** Whether anything of it can be seen. */
    public boolean isSeen() {
        return fill.isPresent() || outline.isPresent();
    }

    public Series named(String newColumn) {
        return new Series(newColumn, name, role, fill, outline, round, label, inLegend);
    }

    public Series called(String newName) {
        return new Series(column, newName, role, fill, outline, round, label, inLegend);
    }

    public Series filled(Optional<Color> newFill) {
        return new Series(column, name, role, newFill, outline, round, label, inLegend);
    }

    public Series outlined(Color line) {
        return new Series(column, name, role, fill, Optional.of(line), round, label, inLegend);
    }

    public Series rounded() {
        return new Series(column, name, role, fill, outline, true, label, inLegend);
    }

    public Series labelled(Optional<Label> newLabel) {
        return new Series(column, name, role, fill, outline, round, newLabel, inLegend);
    }

    public Series inLegend(boolean named) {
        return new Series(column, name, role, fill, outline, round, label, named);
    }
}
