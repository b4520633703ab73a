package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.drawn.DrawnChart;
import dev.trellisgorge.drawn.DrawnPage;
import dev.trellisgorge.engine.Engines;
import dev.trellisgorge.engine.Options;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.plan.PlainChart;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Native charts as an office suite draws them, held to their cells. */
public final class DrawnCharts {
    private DrawnCharts() {
    }

    /** What differs from their cells where charts are drawn as a file of a kind, by their names. */
    public static Map<String, List<String>> differences(List<PlainChart> charts, String kind) throws IOException, InterruptedException {
        Path folder = Files.createTempDirectory("drawn");
        try {
            Path file = folder.resolve("charts." + kind);
            try (OutputStream out = Files.newOutputStream(file)) {
                Engines.draw(charts.stream().map(Page::of).toList(), kind, Options.STANDARD, out);
            }
            return differences(charts, file);
        } finally {
            Office.delete(folder);
        }
    }

    /** The same of a file that holds the charts, each on a page of its own. */
    public static Map<String, List<String>> differences(List<PlainChart> charts, Path file) throws IOException, InterruptedException {
        Path out = Files.createTempDirectory("pages");
        try {
            Office.convert(List.of(file), "pdf", out);
            String name = file.getFileName().toString();
            List<DrawnPage> pages = DrawnPage.of(out.resolve(name.substring(0, name.lastIndexOf('.')) + ".pdf"));
            Map<String, List<String>> differences = new LinkedHashMap<>();
            for (int i = 0; i < charts.size(); i++) {
                List<String> some = DrawnChart.differences(charts.get(i), pages.get(i));
                if (!some.isEmpty()) {
                    differences.put(charts.get(i).name(), some);
                }
            }
            return differences;
        } finally {
            Office.delete(out);
        }
    }
}
