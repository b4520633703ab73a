package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Bound;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.sheet.ZipParts;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipFile;
import java.util.zip.ZipInputStream;
import javax.xml.parsers.ParserConfigurationException;
import org.apache.poi.util.XMLHelper;
import org.xml.sax.InputSource;
import org.xml.sax.SAXException;
import org.xml.sax.XMLReader;
import org.xml.sax.helpers.DefaultHandler;

/** The parts of a package (ECMA-376 part 2), by their names without the first slash, with the relationships between them. Used by one thread. */
final class Parts {
    private static final String TYPES = "[Content_Types].xml";
    private static final String RELATIONSHIPS = "http://schemas.openxmlformats.org/package/2006/relationships";
    private static final char MARK = '\uFEFF';

    private final Map<String, byte[]> parts = new LinkedHashMap<>();
    private final Set<String> checked = new HashSet<>();
    private long bytes;

    /**
     * From one part to another.
     *
     * @param target the name of the other part, or an address outside
     */
    record Relation(String id, String type, String target, boolean outside) {
        boolean is(String kind) {
            return type.endsWith("/" + kind);
        }
    }

    /**
     * Those of a file; read by its directory, as not every maker states the sizes before the parts.
     *
     * @throws BadInput where it is no package, or unpacks to more than the bound
     */
    static Parts read(Path file, Place place) throws IOException {
        Parts read = new Parts();
        try (ZipFile zip = new ZipFile(file.toFile())) {
            for (ZipEntry part : Collections.list(zip.entries())) {
                try (InputStream in = zip.getInputStream(part)) {
                    read.take(part, in, place, Bound.HOST_BYTES.count());
                }
            }
        } catch (ZipException e) {
            throw new BadInput(place, ProblemKind.UNREADABLE, "is no workbook of the kind .xlsx or .xlsm, or it is locked by a password");
        }
        if (!read.has(TYPES)) {
            throw new BadInput(place, ProblemKind.UNREADABLE, "is no workbook of the kind .xlsx or .xlsm");
        }
        return read;
    }

    /** Those of a package of ours, however large. */
    static Parts read(byte[] bytes) throws IOException {
        Parts read = new Parts();
        try (ZipInputStream zip = new ZipInputStream(new ByteArrayInputStream(bytes))) {
            for (ZipEntry part = zip.getNextEntry(); part != null; part = zip.getNextEntry()) {
                read.take(part, zip, Place.of(""), Integer.MAX_VALUE - 8);
            }
        }
        return read;
    }

    private void take(ZipEntry part, InputStream in, Place place, int most) throws IOException {
        if (!part.isDirectory()) {
            byte[] content = in.readNBytes((int) (most - bytes + 1));
            bytes += content.length;
            if (bytes > most) {
                throw new BadInput(place, ProblemKind.TOO_LARGE, "unpacks to more than " + most + " bytes, which is as many as are read");
            }
            parts.put(part.getName(), content);
        }
    }

    boolean has(String part) {
        return parts.containsKey(part);
    }

    byte[] bytes(String part) {
        return parts.get(part);
    }

    /** @throws IllegalArgumentException where there is no such part, or it is no XML */
    String text(String part) {
        byte[] bytes = parts.get(part);
        if (bytes == null) {
            throw new IllegalArgumentException("it has no part '" + part + "'");
        }
        if (checked.add(part)) {
            check(part, bytes);
        }
        boolean wide = bytes.length > 1 && (bytes[0] == (byte) 0xFE && bytes[1] == (byte) 0xFF || bytes[0] == (byte) 0xFF && bytes[1] == (byte) 0xFE);
        return new String(bytes, wide ? StandardCharsets.UTF_16 : StandardCharsets.UTF_8);
    }

    /** Pieces of a text can be put in and taken out only where the whole is XML. */
    private static void check(String part, byte[] bytes) {
        try {
            XMLReader reader = XMLHelper.newXMLReader();
            reader.setErrorHandler(new DefaultHandler());
            reader.setContentHandler(new DefaultHandler());
            reader.parse(new InputSource(new ByteArrayInputStream(bytes)));
        } catch (IOException | SAXException e) {
            throw new IllegalArgumentException("its part '" + part + "' is damaged: " + e.getMessage(), e);
        } catch (ParserConfigurationException e) {
            throw new IllegalStateException(e);
        }
    }

    void write(String part, String text) {
        String stated = text.startsWith("<?xml") && text.substring(0, text.indexOf("?>")).toUpperCase(Locale.ROOT).contains("UTF-16") ? text.substring(text.indexOf("?>") + 2) : text;
        checked.add(part);
        parts.put(part, (stated.charAt(0) == MARK ? stated.substring(1) : stated).getBytes(StandardCharsets.UTF_8));
    }

    void write(String part, byte[] bytes) {
        parts.put(part, bytes);
    }

    /** Takes a part away, with its relationships and its type. */
    void remove(String part) {
        parts.remove(part);
        parts.remove(relationsOf(part));
        XmlText types = new XmlText(text(TYPES));
        types.root().children().stream().filter(type -> type.attribute("PartName").equals(Optional.of("/" + part))).forEach(types::remove);
        write(TYPES, types.edited());
    }

    /** The type that is stated for a part alone. */
    Optional<String> type(String part) {
        return new XmlText(text(TYPES)).root().children().stream().filter(type -> type.attribute("PartName").equals(Optional.of("/" + part))).findFirst().flatMap(type -> type.attribute("ContentType"));
    }

    /** States the type of a part. */
    void type(String part, String type) {
        XmlText types = new XmlText(text(TYPES));
        types.append(types.root(), "<Override xmlns=\"http://schemas.openxmlformats.org/package/2006/content-types\" PartName=\"/" + XmlText.escaped(part) + "\" ContentType=\"" + type + "\"/>");
        write(TYPES, types.edited());
    }

    private static String relationsOf(String part) {
        int slash = part.lastIndexOf('/');
        return part.substring(0, slash + 1) + "_rels/" + part.substring(slash + 1) + ".rels";
    }

    /** Those of a part; of the package where it is empty. */
    List<Relation> relations(String part) {
        String of = relationsOf(part);
        List<Relation> relations = new ArrayList<>();
        if (has(of)) {
            for (XmlText.Element each : new XmlText(text(of)).root().children()) {
                boolean outside = each.attribute("TargetMode").equals(Optional.of("External"));
                String target = each.attribute("Target").orElse("");
                relations.add(new Relation(each.attribute("Id").orElse(""), each.attribute("Type").orElse(""), outside ? target : resolved(part, target), outside));
            }
        }
        return relations;
    }

    private static String resolved(String part, String target) {
        if (target.startsWith("/")) {
            return target.substring(1);
        }
        List<String> path = new ArrayList<>(List.of(part.split("/")));
        path.remove(path.size() - 1);
        for (String step : target.split("/")) {
            if (step.equals("..") && !path.isEmpty()) {
                path.remove(path.size() - 1);
            } else if (!step.equals(".")) {
                path.add(step);
            }
        }
        return String.join("/", path);
    }

    /** @return the id of the new relationship */
    String relate(String part, String type, String target) {
        String of = relationsOf(part);
        String id = "gorge1";
        Set<String> taken = new HashSet<>();
        relations(part).forEach(relation -> taken.add(relation.id()));
        for (int i = 2; taken.contains(id); i++) {
            id = "gorge" + i;
        }
        XmlText relations = new XmlText(has(of) ? text(of) : "<?xml version=\"1.0\" encoding=\"UTF-8\" standalone=\"yes\"?>\n<Relationships xmlns=\"" + RELATIONSHIPS + "\"/>");
        relations.append(relations.root(), "<Relationship xmlns=\"" + RELATIONSHIPS + "\" Id=\"" + id + "\" Type=\"" + type + "\" Target=\"/" + XmlText.escaped(target) + "\"/>");
        write(of, relations.edited());
        return id;
    }

    void unrelate(String part, String id) {
        XmlText relations = new XmlText(text(relationsOf(part)));
        List<XmlText.Element> all = relations.root().children();
        List<XmlText.Element> gone = all.stream().filter(relation -> relation.attribute("Id").equals(Optional.of(id))).toList();
        gone.forEach(relations::remove);
        if (gone.size() == all.size()) {
            parts.remove(relationsOf(part));
        } else {
            write(relationsOf(part), relations.edited());
        }
    }

    /** A name that no part has: {@code before}, a number, {@code after}. */
    String free(String before, String after) {
        int at = 1;
        while (has(before + at + after)) {
            at++;
        }
        return before + at + after;
    }

    /** Parts that weren't written keep their bytes; none carries a time. */
    void writeTo(OutputStream out) throws IOException {
        ZipParts zip = new ZipParts(out);
        for (Map.Entry<String, byte[]> part : parts.entrySet()) {
            try (OutputStream content = zip.begin(part.getKey())) {
                content.write(part.getValue());
            }
        }
        zip.finish();
    }
}
