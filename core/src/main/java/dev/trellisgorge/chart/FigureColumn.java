package dev.trellisgorge.chart;

import java.util.Objects;
import java.util.function.UnaryOperator;

/**
 * A column of figures between the names of lying bars and the bars, as in a table. Immutable and thread-safe.
 *
 * @param name  what stands over it
 * @param label what is written on each row; where it stands says nothing
 */
public record FigureColumn(String name, Label label) {
    public FigureColumn {
        Objects.requireNonNull(name, "name");
        Objects.requireNonNull(label, "label");
    }

    /** The same with another label. */
    public FigureColumn labelled(UnaryOperator<Label> change) {
        return new FigureColumn(name, change.apply(label));
    }
}
