package dev.trellisgorge.engine.opendocument;

import dev.trellisgorge.sheet.ZipParts;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.Map;

/** An OpenDocument package while it is written. Used by one thread. */
final class DocumentPackage implements AutoCloseable {
    static final String SPREADSHEET = "application/vnd.oasis.opendocument.spreadsheet";
    static final String CHART = "application/vnd.oasis.opendocument.chart";
    static final String XML = "text/xml";

    private final ZipParts zip;
    private final Map<String, String> kinds = new LinkedHashMap<>();

    /** Begins one of a kind, which readers find at its start as it is. */
    DocumentPackage(OutputStream out, String kind) throws IOException {
        zip = new ZipParts(out);
        zip.store("mimetype", kind.getBytes(StandardCharsets.US_ASCII));
        kinds.put("/", kind);
    }

    /** A folder that is a document of its own. */
    void folder(String name, String kind) {
        kinds.put(name, kind);
    }

    /** Begins a part. The stream is to be closed before the next one begins. */
    OutputStream part(String name, String kind) throws IOException {
        kinds.put(name, kind);
        return zip.begin(name);
    }

    /** Lists all parts, and ends the package; the stream below stays open. */
    @Override
    public void close() throws IOException {
        try (OutputStream out = zip.begin("META-INF/manifest.xml"); PartWriter part = new PartWriter(out, "manifest:manifest")) {
            kinds.forEach((name, kind) -> part.leaf("manifest:file-entry", "manifest:full-path", name, "manifest:version", name.endsWith("/") ? PartWriter.VERSION : null, "manifest:media-type", kind));
        }
        zip.finish();
    }
}
