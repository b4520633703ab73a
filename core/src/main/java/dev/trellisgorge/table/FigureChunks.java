package dev.trellisgorge.table;

/**
 * The figures of a column in chunks of {@link #ROWS} rows, or in one array that was there before. A chunk is made when its first
 * rows are written: it is then still in the processor's cache when the other columns' chunks follow, and each thread makes its own.
 *
 * <p>Written by threads that never share a chunk, then handed to {@link Column#owning(String, Kind, FigureChunks)} and read only:
 * from then on it is thread-safe.
 */
public final class FigureChunks {
    /** The rows of a chunk. */
    public static final int ROWS = 1 << 12;

    private static final int ONE_ARRAY = 31;

    private final double[][] chunks;
    private final int size;
    private final int shift;

    private FigureChunks(double[][] chunks, int size, int shift) {
        this.chunks = chunks;
        this.size = size;
        this.shift = shift;
    }

    /** Chunks for so many rows, none of them filled. */
    public static FigureChunks forRows(int rows) {
        return new FigureChunks(new double[(rows + ROWS - 1) / ROWS][], rows, Integer.numberOfTrailingZeros(ROWS));
    }

    /** An array as it is: no copy is made. */
    static FigureChunks of(double[] all) {
        return new FigureChunks(new double[][] {all}, all.length, ONE_ARRAY);
    }

    /**
     * Copies the first {@code count} figures of {@code cells} to the rows from {@code from} on. Rows are written in order within
     * their chunk, and never across its end.
     */
    public void write(double[] cells, int from, int count) {
        int chunk = from / ROWS;
        int at = from % ROWS;
        if (at == 0) {
            chunks[chunk] = new double[Math.min(ROWS, size - from)];
        }
        System.arraycopy(cells, 0, chunks[chunk], at, count);
    }

    int size() {
        return size;
    }

    double get(int row) {
        return chunks[row >>> shift][row & (1 << shift) - 1];
    }

    /** Copies {@code count} figures from row {@code from} on to {@code into}, from index {@code at} on. */
    void read(int from, int count, double[] into, int at) {
        int done = 0;
        while (done < count) {
            double[] chunk = chunks[from + done >>> shift];
            int start = from + done & (1 << shift) - 1;
            int some = Math.min(count - done, chunk.length - start);
            if (some <= 0) {
                throw new IndexOutOfBoundsException("row " + (from + done) + " of " + size);
            }
            System.arraycopy(chunk, start, into, at + done, some);
            done += some;
        }
    }
}
