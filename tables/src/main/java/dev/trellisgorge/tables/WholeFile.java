package dev.trellisgorge.tables;

import dev.trellisgorge.table.Field;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/** What shows only once all parts of a file are read: whether there is a row, there are no more than are read, and the last one is no total. Thread-safe. */
final class WholeFile {
    private final List<Field> fields;
    private final Limits limits;
    private final boolean[] read;
    private final double[] sums;
    private List<String> last;
    private long rows;
    private boolean whole;

    /** @param last the cells of the last row as they stand, where that is known */
    WholeFile(List<Field> fields, Limits limits, int parts, List<String> last) {
        this.fields = fields;
        this.limits = limits;
        this.read = new boolean[parts];
        this.sums = new double[fields.size()];
        this.last = last;
    }

    /**
     * Tells what is in a part that was read.
     *
     * @param lastRow its last row as it stands, where it is to be kept
     * @throws NotPlain where all of it is read now, and it is not plain
     */
    synchronized void read(int part, long more, double[] added, Optional<List<String>> lastRow) throws NotPlain {
        read[part] = true;
        rows += more;
        Arrays.setAll(sums, i -> sums[i] + added[i]);
        if (part == read.length - 1) {
            last = lastRow.orElse(last);
        }
        for (boolean each : read) {
            if (!each) {
                return;
            }
        }
        whole = rows > 0 && rows * sums.length <= limits.cells() && !LastRow.mayBeTotal(fields, last, sums, rows);
        if (!whole) {
            throw new NotPlain();
        }
    }

    synchronized boolean isWhole() {
        return whole;
    }
}
