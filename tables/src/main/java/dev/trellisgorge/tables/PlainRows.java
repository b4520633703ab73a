package dev.trellisgorge.tables;

import dev.trellisgorge.table.Field;
import java.io.IOException;
import java.util.List;

/** One reading of a file for as long as its rows are plain. Several threads may read it side by side, each by a reader of its own. Close it when nobody reads it any more. Thread-safe. */
public interface PlainRows extends AutoCloseable {
    /** How many readers find something to do. */
    int mostReaders();

    /** One that nothing has been read by. */
    RowReader reader();

    /** Whether all rows have been read to the last one, all are plain, there are no more than are read, and the last one is no total. */
    boolean isWhole();

    /** Reads what nobody has read yet, side by side. @return whether all is plain, as {@link #isWhole} says */
    default boolean areReadToTheEnd(List<Field> fields) throws IOException {
        Cells<byte[]> none = Cells.ofBytes(fields, column -> false, 0);
        boolean plain = ParallelTasks.isPlain(mostReaders(), () -> {
            RowReader reader = reader();
            while (reader.read(none, Integer.MAX_VALUE) > 0) {
                // to its end
            }
        });
        return plain && isWhole();
    }

    @Override
    void close() throws IOException;
}
