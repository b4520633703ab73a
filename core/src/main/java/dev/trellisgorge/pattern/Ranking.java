package dev.trellisgorge.pattern;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.shape.Rank.Way;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalInt;

/**
 * The order of the rows that a user asks for, and how many of them there are. Rows with equal keys keep table order, missing
 * keys come last. Immutable.
 *
 * @param by    the key, one cell a row
 * @param order which way
 * @param top   how many rows to keep; empty for all. At least 1
 * @param rest  the name of one last row that stands for the others; empty to drop them
 */
public record Ranking(Formula by, Way order, OptionalInt top, Optional<String> rest) {

    public Ranking {
        Objects.requireNonNull(top, "top");
        Objects.requireNonNull(rest, "rest");
        Objects.requireNonNull(by, "by");
        Objects.requireNonNull(order, "order");
    }

    /** Largest first, all of them. */
    public static Ranking by(Formula key) {
        return new Ranking(key, Way.DESCENDING, OptionalInt.empty(), Optional.empty());
    }

    public Ranking order(Way way) {
        return new Ranking(by, way, top, rest);
    }

    /** The first rows alone. */
    public Ranking top(int rows) {
        if (rows < 1) {
            throw new IllegalArgumentException("at least 1 row is kept, not " + rows);
        }
        return new Ranking(by, order, OptionalInt.of(rows), rest);
    }

    /** The others in one last row of this name. */
    public Ranking rest(String name) {
        return new Ranking(by, order, top, Optional.of(name));
    }
}
