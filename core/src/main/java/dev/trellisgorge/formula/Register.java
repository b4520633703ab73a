package dev.trellisgorge.formula;

import java.util.Arrays;

/** Where a node's cells are while a block of rows is computed: in an array for the block, or in the column itself. */
sealed interface Register {

    /** Where the block's first cell is, of a block that begins at row {@code from}. */
    int at(int from);

    /**
     * Figures: NaN is missing.
     *
     * @param cells a block's, or all rows'
     * @param whole whether they are all rows'
     */
    record Figures(double[] cells, boolean whole) implements Register {

        static Figures constant(double figure, int block) {
            double[] cells = new double[block];
            Arrays.fill(cells, figure);
            return new Figures(cells, false);
        }

        @Override
        public int at(int from) {
            return whole ? from : 0;
        }
    }

    /**
     * Texts: null is missing.
     *
     * @param cells a block's, or all rows'
     * @param whole whether they are all rows'
     */
    record Texts(String[] cells, boolean whole) implements Register {

        static Texts constant(String text, int block) {
            String[] cells = new String[block];
            Arrays.fill(cells, text);
            return new Texts(cells, false);
        }

        @Override
        public int at(int from) {
            return whole ? from : 0;
        }
    }
}
