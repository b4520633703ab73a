package dev.trellisgorge.formula;

import java.util.Arrays;

/** A node's cells on the rows of a block. */
sealed interface Register {

    /** Figures: NaN is missing. */
    record Figures(double[] cells) implements Register {

        static Figures constant(double figure) {
            double[] cells = new double[BlockEvaluator.BLOCK];
            Arrays.fill(cells, figure);
            return new Figures(cells);
        }
    }

    /** Texts: null is missing. */
    record Texts(String[] cells) implements Register {

        static Texts constant(String text) {
            String[] cells = new String[BlockEvaluator.BLOCK];
            Arrays.fill(cells, text);
            return new Texts(cells);
        }
    }
}
