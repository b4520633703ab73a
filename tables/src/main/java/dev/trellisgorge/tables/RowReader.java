package dev.trellisgorge.tables;

/** Reads rows of a file that no other reader of it reads. Of one thread. */
public interface RowReader {
    /**
     * Reads some rows that follow each other.
     *
     * @param most how many, 1 or more
     * @return how many; 0 where all rows are read, or are about to be by others
     * @throws NotPlain where one is to be read with care
     * @throws dev.trellisgorge.problem.BadInput where the file can't be read
     */
    int read(Cells<byte[]> into, int most) throws NotPlain;

    /** A number of the first of them, which grows from row to row of the file. */
    long first();
}
