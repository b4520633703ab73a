package dev.trellisgorge.cli;

import dev.trellisgorge.file.AtomicFiles;
import java.io.FilterOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.util.Optional;

/** A stream that remembers why it could not take something, as a print stream only knows that it could not. Used by one thread. */
final class Results extends FilterOutputStream {
    private static final String NOBODY_READS = "Broken pipe";

    private IOException failure;

    Results(OutputStream out) {
        super(out);
    }

    @Override
    public void write(int sign) throws IOException {
        write(new byte[] {(byte) sign}, 0, 1);
    }

    @Override
    public void write(byte[] bytes, int from, int count) throws IOException {
        try {
            out.write(bytes, from, count);
        } catch (IOException e) {
            failure = failure == null ? e : failure;
            throw e;
        }
    }

    /** Why not all was taken; empty where all was, or where the reader has seen enough and gone. */
    Optional<String> failure() {
        return Optional.ofNullable(failure).map(AtomicFiles::reason).filter(why -> !why.equals(NOBODY_READS));
    }
}
