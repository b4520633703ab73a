package dev.trellisgorge.sheet;

import java.util.List;
import java.util.Optional;
import java.util.function.Function;

/** What stands over the cells of a sheet. Immutable. */
public sealed interface Placed {
    Anchor at();

    /** What is given for its sort: what forgets one does not compile. */
    <R> R match(Function<OfChart, R> chart, Function<OfWords, R> words);

    /** What lists of the drawn things call it. */
    String name();

    /** In words, for readers who can't see it. */
    String description();

    /** A chart over ranges of cells. */
    record OfChart(Anchor at, String name, String description, SheetChart chart) implements Placed {
        @Override
        public <R> R match(Function<OfChart, R> ofChart, Function<OfWords, R> ofWords) {
            return ofChart.apply(this);
        }
    }

    /**
     * Words in a box without fill or line.
     *
     * @param cell  the cell whose words it follows; empty for words that stay
     * @param atTop whether they begin at its top, and not in its middle
     */
    record OfWords(Anchor at, String name, String description, Optional<String> cell, boolean atTop, List<TextLine> lines) implements Placed {
        public OfWords {
            lines = List.copyOf(lines);
        }

        @Override
        public <R> R match(Function<OfChart, R> ofChart, Function<OfWords, R> ofWords) {
            return ofWords.apply(this);
        }
    }
}
