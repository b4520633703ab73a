package dev.trellisgorge.sheet;

import java.io.FilterOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.time.LocalDateTime;
import java.util.zip.CRC32;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/** The parts of a package while it is written, one after the other. None carries a time, so that the same charts give the same bytes. Used by one thread. */
public final class ZipParts {
    private static final LocalDateTime EARLIEST = LocalDateTime.of(1980, 2, 1, 0, 0); // the very first that there is would be stated once more, which one of the standards forbids

    private final ZipOutputStream zip;

    public ZipParts(OutputStream out) {
        this.zip = new ZipOutputStream(out, StandardCharsets.UTF_8);
    }

    private static ZipEntry entry(String name) {
        ZipEntry entry = new ZipEntry(name);
        entry.setTimeLocal(EARLIEST);
        return entry;
    }

    /** Begins a part. The stream is to be closed before the next one begins. */
    public OutputStream begin(String name) throws IOException {
        zip.putNextEntry(entry(name));
        return new FilterOutputStream(zip) {
            @Override
            public void write(byte[] bytes, int from, int count) throws IOException {
                zip.write(bytes, from, count);
            }

            @Override
            public void close() throws IOException {
                zip.closeEntry();
            }
        };
    }

    /** Writes a whole part as it is, which readers find without unpacking it. */
    public void store(String name, byte[] content) throws IOException {
        ZipEntry entry = entry(name);
        entry.setMethod(ZipEntry.STORED);
        entry.setSize(content.length);
        CRC32 sum = new CRC32();
        sum.update(content);
        entry.setCrc(sum.getValue());
        zip.putNextEntry(entry);
        zip.write(content);
        zip.closeEntry();
    }

    /** Ends the package; the stream below stays open. */
    public void finish() throws IOException {
        zip.finish();
    }
}
