package dev.trellisgorge.plan;

import static dev.trellisgorge.formula.Formulas.abs;
import static dev.trellisgorge.formula.Formulas.choose;
import static dev.trellisgorge.formula.Formulas.max;
import static dev.trellisgorge.formula.Formulas.number;

import dev.trellisgorge.formula.Formula;
import java.util.List;
import java.util.Objects;
import java.util.Optional;

/**
 * Something that is no mistake but that a reader should know of: the rows on which it is so are reported. Immutable and thread-safe.
 *
 * @param sentence what is so, without the rows: {@code equal to the limit, counted as above}
 * @param when     true on the rows that are reported
 * @param figure   the number that is reported beside each row's name; nothing where it is absent
 * @param limit    the number that the figure is told apart from, where only their last digits tell; both are then written in full
 */
public record RowWarning(String sentence, Formula when, Formula figure, Optional<Formula> limit) {
    /** Of a limit, and where that is zero, of the largest figure: a difference that calculating in doubles makes. */
    private static final double BY_ROUNDING = 1e-14;

    public RowWarning {
        Objects.requireNonNull(sentence, "sentence");
        Objects.requireNonNull(when, "when");
        Objects.requireNonNull(figure, "figure");
        Objects.requireNonNull(limit, "limit");
    }

    public RowWarning(String sentence, Formula when, Formula figure) {
        this(sentence, when, figure, Optional.empty());
    }

    /**
     * Tells the rows whose figure differs from a limit by rounding alone, so that it stands on one side of it though it looks equal.
     *
     * @param limitName how the limit is called in a sentence: {@code the target}
     */
    public static List<RowWarning> ofRounding(Formula figure, String limitName, Formula limit) {
        Formula size = choose(limit.equalTo(number(0)), max(abs(figure)), abs(limit));
        Formula near = abs(figure.minus(limit)).atMost(size.times(number(BY_ROUNDING)));
        return List.of(new RowWarning("above " + limitName + " by rounding alone", figure.above(limit).and(near), figure, Optional.of(limit)),
                new RowWarning("below " + limitName + " by rounding alone", figure.below(limit).and(near), figure, Optional.of(limit)));
    }
}
