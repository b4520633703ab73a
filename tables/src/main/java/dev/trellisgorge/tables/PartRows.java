package dev.trellisgorge.tables;

import java.io.IOException;
import java.util.List;
import java.util.Optional;

/** Reads the rows of one part of a plain file after another. Of one thread. */
interface PartRows {
    /** Takes a part to be read next. */
    void take(int part) throws IOException, NotPlain;

    /** Reads some rows of it. @return how many @throws NotPlain where one is to be read with care */
    int read(Cells<byte[]> into, int most) throws IOException, NotPlain;

    /** Whether all of it has been read. */
    boolean isAtEnd();

    /** How many rows of it have been read. */
    long rows();

    /** The sums of the columns of numbers in them, by the places of the columns. */
    double[] sums();

    /** The last of them as it stands, where it is known only now. */
    Optional<List<String>> lastRow();

    /** Leaves the part, all of which has been read. @throws NotPlain where that shows that a line of it is not plain */
    void leave() throws IOException, NotPlain;
}
