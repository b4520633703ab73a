package dev.trellisgorge.pattern;

import dev.trellisgorge.chart.Format;
import dev.trellisgorge.formula.Formula;
import java.util.Objects;
import java.util.Optional;

/**
 * A figure in a column of its own, between the names of lying bars and the bars. Immutable and thread-safe.
 *
 * @param figure over the charted table; a text or a date, too. Nothing is written where it is missing
 * @param name   what stands over the column; the figure as it is stated where it is empty
 * @param format how figures are written; as plain as they allow where it is empty
 */
public record Beside(Formula figure, Optional<String> name, Optional<Format> format) {
    public Beside {
        Objects.requireNonNull(figure, "figure");
        Objects.requireNonNull(name, "name");
        Objects.requireNonNull(format, "format");
    }

    /** A column with its name over it, its figures as plain as they allow. */
    public static Beside of(Formula figure, String name) {
        return new Beside(figure, Optional.of(name), Optional.empty());
    }

    /** What stands over the column. */
    String heading() {
        return name.orElseGet(figure::toString);
    }
}
