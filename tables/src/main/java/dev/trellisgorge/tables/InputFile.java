package dev.trellisgorge.tables;

import dev.trellisgorge.file.AtomicFiles;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import java.io.IOException;
import java.io.InputStream;
import java.nio.channels.ClosedByInterruptException;
import java.nio.file.AccessDeniedException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;

/**
 * A file that a table is read from.
 *
 * @param path     where it is
 * @param shown    what messages call it
 * @param progress told how far it is read
 */
record InputFile(Path path, String shown, Progress progress) {
    static final String INTERRUPTED = "the reading was interrupted";
    /** So many bytes are read from one telling to the next. */
    private static final long STEP = 1 << 20;

    Place place() {
        return Place.inFile(shown);
    }

    /** Its bytes, from the first one. */
    InputStream open() throws IOException {
        long length = Files.size(path); // first, as where this fails nothing is to be closed
        return watched(Files.newInputStream(path), length);
    }

    /** The bytes of a part of the file that is packed in it, as it were the whole of it. */
    InputStream watched(InputStream in, long length) {
        InputStream whole = new InterruptibleStream(in);
        return progress == Progress.NONE || length < STEP ? whole : new CountedStream(whole, new CountedStream.Listener() {
            private long told;

            @Override
            public void passed(long bytes) {
                if (bytes - told >= STEP) {
                    told = bytes;
                    progress.read(shown, Math.min(1, (double) bytes / length));
                }
            }
        });
    }

    /** Tells that so many of its bytes are read. */
    void passed(long bytes) throws IOException {
        long length = Files.size(path);
        if (length >= STEP) {
            progress.read(shown, Math.min(1, (double) bytes / length));
        }
    }

    /** What was found where the file could not be read. */
    BadInput unreadable(IOException e) {
        if (e instanceof ClosedByInterruptException) {
            return new BadInput(place(), ProblemKind.CANCELLED, INTERRUPTED);
        }
        if (e instanceof NoSuchFileException) {
            return new BadInput(place(), ProblemKind.UNREADABLE, "there is no such file");
        }
        if (e instanceof AccessDeniedException) {
            return new BadInput(place(), ProblemKind.UNREADABLE, "can't read: permission denied");
        }
        return new BadInput(place(), ProblemKind.UNREADABLE, Files.isDirectory(path) ? "is a folder; name a file" : "can't read: " + AtomicFiles.reason(e));
    }
}
