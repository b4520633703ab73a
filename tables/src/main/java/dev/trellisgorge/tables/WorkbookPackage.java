package dev.trellisgorge.tables;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.DateTimeException;
import java.util.List;
import java.util.Map;
import org.apache.poi.UnsupportedFileFormatException;
import org.apache.poi.ooxml.POIXMLException;
import org.apache.poi.openxml4j.exceptions.OpenXML4JException;
import org.apache.poi.openxml4j.exceptions.OpenXML4JRuntimeException;
import org.apache.poi.openxml4j.opc.OPCPackage;
import org.apache.poi.openxml4j.opc.PackageAccess;
import org.apache.poi.openxml4j.opc.PackageRelationshipTypes;
import org.apache.poi.poifs.filesystem.FileMagic;
import org.apache.poi.poifs.filesystem.POIFSFileSystem;
import org.xml.sax.SAXException;

/** The package that a workbook is; what can't be read is refused by what it is. Thread-safe: it holds no state. */
final class WorkbookPackage {
    private static final String UNREADABLE = "is no workbook that can be read: ";
    /** What the main part says of itself, and what such a file is. */
    private static final Map<String, String> OTHERS = Map.of("sheet.binary.macroEnabled.main", "holds its sheets in binary (.xlsb); save it as .xlsx", "wordprocessingml", "holds a text, and no sheets",
            "presentationml", "holds slides, and no sheets");

    private WorkbookPackage() {
    }

    /** Something that is done with a package. */
    interface Reading<T> {
        T read(OPCPackage archive) throws IOException, OpenXML4JException, SAXException;
    }

    /** @throws BadInput where the file is none, or is damaged, locked, or of another kind */
    static <T> T read(InputFile source, Reading<T> reading) {
        Place place = source.place();
        Path file = source.path();
        if (!Files.isRegularFile(file) || !Files.isReadable(file)) {
            throw new BadInput(place, ProblemKind.UNREADABLE, Files.isDirectory(file) ? "is a folder; name a file" : Files.exists(file) ? "can't read: permission denied" : "there is no such file");
        }
        try {
            refuseOthers(file, place);
            try (OPCPackage archive = opened(file, place)) {
                refuseOthers(archive, place);
                return reading.read(archive);
            }
        } catch (NoClassDefFoundError e) { // of a library that unpacks what this format does not allow
            throw new BadInput(place, ProblemKind.UNREADABLE, UNREADABLE + "it is packed in another way than SpreadsheetML allows; save it again");
        } catch (UnsupportedFileFormatException e) {
            throw new BadInput(place, ProblemKind.UNREADABLE, UNREADABLE + "what is packed in it is damaged, or is no workbook");
        } catch (IOException | OpenXML4JException | SAXException | POIXMLException | OpenXML4JRuntimeException | IllegalArgumentException | IllegalStateException | IndexOutOfBoundsException | DateTimeException e) {
            throw refused(place, UNREADABLE, e);
        }
    }

    /** Why a file can't be read, or that its reading was interrupted, whatever the library makes of that. */
    static BadInput refused(Place place, String what, Exception why) {
        return new BadInput(place, ProblemKind.CANCELLED, Thread.currentThread().isInterrupted() ? InputFile.INTERRUPTED : what + reason(why));
    }

    private static OPCPackage opened(Path file, Place place) {
        try {
            return OPCPackage.open(file.toFile(), PackageAccess.READ);
        } catch (OpenXML4JException | OpenXML4JRuntimeException | IllegalArgumentException e) {
            throw new BadInput(place, ProblemKind.CANCELLED, Thread.currentThread().isInterrupted() ? InputFile.INTERRUPTED : UNREADABLE + "it is damaged, or a part of it is missing", e);
        }
    }

    private static void refuseOthers(Path file, Place place) throws IOException {
        switch (FileMagic.valueOf(file.toFile())) {
            case OOXML -> {
                // as it should be
            }
            case OLE2 -> throw new BadInput(place, ProblemKind.UNSUPPORTED, older(file));
            case UNKNOWN -> throw new BadInput(place, ProblemKind.UNREADABLE, UNREADABLE + (Files.size(file) == 0 ? "it is empty" : "it is not packed as one; is it a text under the ending of a workbook?"));
            default -> throw new BadInput(place, ProblemKind.UNREADABLE, UNREADABLE + "it is of another kind than its ending says");
        }
    }

    /** What a file of the older container is: that of older programs, or a lock around a newer one. */
    private static String older(Path file) throws IOException {
        try (POIFSFileSystem container = new POIFSFileSystem(file.toFile(), true)) {
            List<String> entries = List.copyOf(container.getRoot().getEntryNames());
            return entries.contains("EncryptedPackage") ? "is locked by a password; save it without one" : entries.contains("Workbook") || entries.contains("Book") ? "is a workbook of the older kind (.xls); save it as .xlsx"
                    : UNREADABLE + "it is a document of another kind";
        }
    }

    private static void refuseOthers(OPCPackage archive, Place place) throws OpenXML4JException {
        if (archive.getRelationshipsByType(PackageRelationshipTypes.STRICT_CORE_DOCUMENT).size() > 0) {
            throw new BadInput(place, ProblemKind.UNSUPPORTED, "is a workbook of the strict kind (ISO/IEC 29500, part 1), which is not read; save it as an ordinary .xlsx");
        }
        for (Map.Entry<String, String> other : OTHERS.entrySet()) {
            boolean is = archive.getParts().stream().anyMatch(part -> part.getContentType().contains(other.getKey()) && part.getContentType().contains("main"));
            if (is) {
                throw new BadInput(place, ProblemKind.UNREADABLE, other.getValue());
            }
        }
    }

    /** What a library says, without the name that it has for it. */
    static String reason(Exception e) {
        List<String> lines = String.valueOf(e.getMessage()).lines().map(line -> line.replaceFirst("^([\\w.]+Exception[;:]|Message:) ", "")).toList();
        return lines.isEmpty() ? "" : lines.get(lines.get(0).startsWith("ParseError") ? lines.size() - 1 : 0);
    }
}
