package dev.trellisgorge.sheet;

import dev.trellisgorge.formula.NumberPattern;
import java.util.function.Function;
import java.util.function.Supplier;

/** How a cell's figure is written. Immutable. */
public sealed interface CellFormat {
    CellFormat GENERAL = new General();
    CellFormat DAY = new Day();

    /** What is given for its sort: what forgets one does not compile. */
    <R> R match(Supplier<R> general, Supplier<R> day, Function<Figure, R> figure);

    /** As the program writes figures. */
    record General() implements CellFormat {
        @Override
        public <R> R match(Supplier<R> general, Supplier<R> day, Function<Figure, R> figure) {
            return general.get();
        }
    }

    /** A date as year, month and day, with hyphens. */
    record Day() implements CellFormat {
        @Override
        public <R> R match(Supplier<R> general, Supplier<R> day, Function<Figure, R> figure) {
            return day.get();
        }
    }

    /**
     * By a pattern; decimals that may be left out are always written.
     *
     * @param opposite whether −5 is written as 5 and 5 as −5
     */
    record Figure(NumberPattern pattern, boolean opposite) implements CellFormat {
        @Override
        public <R> R match(Supplier<R> general, Supplier<R> day, Function<Figure, R> figure) {
            return figure.apply(this);
        }
    }
}
