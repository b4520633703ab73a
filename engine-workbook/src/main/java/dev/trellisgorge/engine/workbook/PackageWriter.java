package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.sheet.ZipParts;
import java.io.IOException;
import java.io.OutputStream;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * A package (ECMA-376 part 2) while it is written, part by part. Used by one thread.
 */
final class PackageWriter implements AutoCloseable {
    static final String RELATION = OfficeXml.RELATIONSHIPS + "/";
    private static final String TYPES = "http://schemas.openxmlformats.org/package/2006/content-types";
    private static final String RELATIONSHIPS = "http://schemas.openxmlformats.org/package/2006/relationships";
    private static final String OF_RELATIONSHIPS = "application/vnd.openxmlformats-package.relationships+xml";

    private final ZipParts zip;
    private final Map<String, String> types;
    private final Map<String, List<String[]>> relations = new LinkedHashMap<>();

    /**
     * Begins one, with the types of its parts, which readers find before them.
     *
     * @param types of all parts but pictures, by their names without the first slash
     */
    PackageWriter(OutputStream out, Map<String, String> types) throws IOException {
        this.zip = new ZipParts(out);
        this.types = Map.copyOf(types);
        try (OutputStream first = zip.begin("[Content_Types].xml"); OfficeXml part = OfficeXml.of(first, TYPES, "Types")) {
            part.leaf("Default", "Extension", "rels", "ContentType", OF_RELATIONSHIPS).leaf("Default", "Extension", "xml", "ContentType", "application/xml").leaf("Default", "Extension", "png", "ContentType", "image/png");
            types.forEach((name, type) -> part.leaf("Override", "PartName", "/" + name, "ContentType", type));
        }
    }

    /** Begins a part. The stream is to be closed before the next one begins. @param name without the first slash */
    OutputStream part(String name) throws IOException {
        if (!types.containsKey(name) && !name.endsWith(".png")) {
            throw new IllegalArgumentException("nothing says what '" + name + "' is");
        }
        return zip.begin(name);
    }

    /**
     * A relationship from one part, or from the package where that is empty.
     *
     * @param type with its address
     * @return its id
     */
    String relate(String from, String type, String to) {
        List<String[]> all = relations.computeIfAbsent(from, each -> new ArrayList<>());
        all.add(new String[] {type, to});
        return "rId" + all.size();
    }

    /** Writes how the parts belong together, and ends the package; the stream below stays open. */
    @Override
    public void close() throws IOException {
        for (Map.Entry<String, List<String[]>> from : relations.entrySet()) {
            int slash = from.getKey().lastIndexOf('/') + 1;
            try (OutputStream out = zip.begin(from.getKey().substring(0, slash) + "_rels/" + from.getKey().substring(slash) + ".rels"); OfficeXml part = OfficeXml.of(out, RELATIONSHIPS, "Relationships")) {
                for (int at = 0; at < from.getValue().size(); at++) {
                    part.leaf("Relationship", "Id", "rId" + (at + 1), "Type", from.getValue().get(at)[0], "Target", "/" + from.getValue().get(at)[1]);
                }
            }
        }
        zip.finish();
    }
}
