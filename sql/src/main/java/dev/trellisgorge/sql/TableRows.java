package dev.trellisgorge.sql;

import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.Cells;
import dev.trellisgorge.tables.PlainRows;
import dev.trellisgorge.tables.RowReader;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.atomic.AtomicLong;

/** The rows of a table at hand. */
final class TableRows implements PlainRows {
    private final Table table;
    private final AtomicLong next = new AtomicLong();

    TableRows(Table table) {
        this.table = table;
    }

    @Override
    public int mostReaders() {
        return Runtime.getRuntime().availableProcessors();
    }

    @Override
    public RowReader reader() {
        return new Reader();
    }

    @Override
    public boolean isWhole() {
        return true;
    }

    @Override
    public void close() {
        // nothing is held
    }

    /** Of one thread. */
    private final class Reader implements RowReader {
        private int first;

        @Override
        public int read(Cells<byte[]> into, int most) {
            long from = next.getAndAdd(most);
            int count = (int) Math.max(0, Math.min(most, table.rowCount() - from));
            first = (int) Math.min(from, table.rowCount());
            for (int i = 0; i < table.columns().size(); i++) {
                Column column = table.columns().get(i);
                if (into.figures()[i] != null) {
                    column.read(first, count, into.figures()[i], 0);
                } else if (into.texts()[i] != null) {
                    read(column, count, into.texts()[i]);
                }
            }
            return count;
        }

        private void read(Column column, int count, byte[][] into) {
            for (int row = 0; row < count; row++) {
                into[row] = column.isPresent(first + row) ? column.written(first + row).getBytes(StandardCharsets.UTF_8) : null;
            }
        }

        @Override
        public long first() {
            return first;
        }
    }
}
