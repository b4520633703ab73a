package dev.trellisgorge.engine.opendocument;

import dev.trellisgorge.engine.Engines;
import dev.trellisgorge.engine.Options;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.engine.workbook.XmlOutline;
import dev.trellisgorge.pattern.Gallery;
import dev.trellisgorge.test.Golden;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeMap;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import org.testng.annotations.Test;

/** The charts of spreadsheets, but for the cells that they remember. */
public class ChartGoldenTest {
    /** One of each pattern, and those that lie, float or have several panels. */
    private static final Set<String> SHOWN = Set.of("columns 0", "capped columns 2", "to target 0", "marker 0", "range 0", "tornado 1", "columns", "lying columns", "outlined", "progress", "waterfall", "breakdown", "previous row", "diverging", "dial", "ring");
    private static final Set<String> PASSED = Set.of("table:table", "style:text-properties");

    @Test
    public void nativeChartsAreBuiltAsTheyWere() throws IOException {
        List<String> lines = new ArrayList<>();
        for (Gallery.Example example : Gallery.all()) {
            if (SHOWN.contains(example.toString())) {
                ByteArrayOutputStream out = new ByteArrayOutputStream();
                Engines.draw(List.of(Page.of(example.plain())), "ods", Options.STANDARD, out);
                charts(out.toByteArray()).forEach((name, part) -> {
                    lines.add("== " + example + ", " + name);
                    lines.addAll(XmlOutline.of(part, PASSED));
                });
            }
        }
        Golden.check("charts.txt", lines, 1e-9);
    }

    private static TreeMap<String, byte[]> charts(byte[] file) throws IOException {
        TreeMap<String, byte[]> parts = new TreeMap<>();
        try (ZipInputStream in = new ZipInputStream(new ByteArrayInputStream(file))) {
            for (ZipEntry entry = in.getNextEntry(); entry != null; entry = in.getNextEntry()) {
                if (entry.getName().matches("Object [0-9]+/content[.]xml")) {
                    parts.put(entry.getName(), in.readAllBytes());
                }
            }
        }
        return parts;
    }
}
