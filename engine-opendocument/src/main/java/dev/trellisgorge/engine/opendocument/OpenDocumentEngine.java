package dev.trellisgorge.engine.opendocument;

import dev.trellisgorge.engine.Ability;
import dev.trellisgorge.engine.Engine;
import dev.trellisgorge.engine.Options;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.engine.workbook.WorkbookEngine;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;

/**
 * Writes pages as an OpenDocument spreadsheet ({@code .ods}, ISO/IEC 26300, version 1.3) that stays live: the very sheets of the
 * workbook, with its formulas in OpenFormula and its charts over the same cells. Thread-safe.
 */
public final class OpenDocumentEngine implements Engine {
    private static final Pattern GENERATOR = Pattern.compile("<meta:generator>([^<]*)</meta:generator>");
    private static final int MOST_PROPERTIES = 1 << 20;

    private final WorkbookEngine sheets = new WorkbookEngine();

    @Override
    public Set<String> endings() {
        return Set.of("ods");
    }

    @Override
    public boolean holdsSeveral(String ending) {
        return true;
    }

    /** Those of workbooks, but for bars in cells and labels that are texts of cells, which the standard doesn't have; and lines over lying bars, which lie with them. */
    @Override
    public Set<Ability> abilities() {
        Set<Ability> abilities = EnumSet.copyOf(sheets.abilities());
        abilities.removeAll(Set.of(Ability.BARS_IN_CELLS, Ability.LABELS_OF_CELLS));
        abilities.add(Ability.LYING_MARKS);
        return abilities;
    }

    @Override
    public Set<Options.Extra> takes(String ending) {
        return EnumSet.complementOf(EnumSet.of(Options.Extra.INTO));
    }

    /** The program that last wrote a spreadsheet states its name. */
    @Override
    public Optional<String> loss(Path there) {
        return writer(there).filter(writer -> !writer.equals(SpreadsheetDocument.PROGRAM)).map(writer -> "was last written by another program, so it may hold what would be lost");
    }

    private static Optional<String> writer(Path file) {
        try (ZipFile zip = new ZipFile(file.toFile())) {
            ZipEntry stated = zip.getEntry("meta.xml");
            if (zip.getEntry("content.xml") == null) {
                return Optional.empty();
            } else if (stated == null) {
                return Optional.of("");
            }
            try (InputStream in = zip.getInputStream(stated)) {
                Matcher generator = GENERATOR.matcher(new String(in.readNBytes(MOST_PROPERTIES), StandardCharsets.UTF_8));
                return Optional.of(generator.find() ? generator.group(1) : "");
            }
        } catch (IOException | IllegalArgumentException e) {
            return Optional.empty();
        }
    }

    @Override
    public void draw(List<Page> pages, String ending, Options options, OutputStream out, Consumer<String> warnings) throws IOException {
        new SpreadsheetDocument(WorkbookEngine.describe(pages, abilities(), options, warnings), warnings).writeTo(out);
    }
}
