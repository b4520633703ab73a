package dev.trellisgorge.engine.opendocument;

import java.io.FilterOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.time.LocalDateTime;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.zip.CRC32;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/** An OpenDocument package while it is written: no part carries a time, so that the same charts give the same bytes. Used by one thread. */
final class DocumentPackage implements AutoCloseable {
    static final String SPREADSHEET = "application/vnd.oasis.opendocument.spreadsheet";
    static final String CHART = "application/vnd.oasis.opendocument.chart";
    static final String XML = "text/xml";
    private static final LocalDateTime EARLIEST = LocalDateTime.of(1980, 2, 1, 0, 0); // the very first that there is would be stated once more, which the standard forbids

    private final ZipOutputStream zip;
    private final Map<String, String> kinds = new LinkedHashMap<>();

    /** Begins one of a kind, which readers find at its start as it is. */
    DocumentPackage(OutputStream out, String kind) throws IOException {
        zip = new ZipOutputStream(out, StandardCharsets.UTF_8);
        byte[] stated = kind.getBytes(StandardCharsets.US_ASCII);
        ZipEntry entry = entry("mimetype");
        entry.setMethod(ZipEntry.STORED);
        entry.setSize(stated.length);
        CRC32 sum = new CRC32();
        sum.update(stated);
        entry.setCrc(sum.getValue());
        zip.putNextEntry(entry);
        zip.write(stated);
        zip.closeEntry();
        kinds.put("/", kind);
    }

    private static ZipEntry entry(String name) {
        ZipEntry entry = new ZipEntry(name);
        entry.setTimeLocal(EARLIEST);
        return entry;
    }

    /** A folder that is a document of its own. */
    void folder(String name, String kind) {
        kinds.put(name, kind);
    }

    /** Begins a part. The stream is to be closed before the next one begins. */
    OutputStream part(String name, String kind) throws IOException {
        kinds.put(name, kind);
        return begun(name);
    }

    private OutputStream begun(String name) throws IOException {
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

    /** Lists all parts, and ends the package; the stream below stays open. */
    @Override
    public void close() throws IOException {
        try (OutputStream out = begun("META-INF/manifest.xml"); PartWriter part = new PartWriter(out, "manifest:manifest")) {
            kinds.forEach((name, kind) -> part.leaf("manifest:file-entry", "manifest:full-path", name, "manifest:version", name.endsWith("/") ? PartWriter.VERSION : null, "manifest:media-type", kind));
        }
        zip.finish();
    }
}
