package dev.trellisgorge.engine.image;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.drawn.DrawnChart;
import dev.trellisgorge.drawn.DrawnPage;
import dev.trellisgorge.engine.Engines;
import dev.trellisgorge.engine.Options;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.pattern.Gallery;
import dev.trellisgorge.plan.PlainChart;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.testng.annotations.Test;

/** What stands in a PDF is what the cells of its chart say. */
public class DrawnTest {
    @Test
    public void everyBarMarkAndLabelStandsWhereItsCellSays() throws Exception {
        Map<String, List<String>> differences = new LinkedHashMap<>();
        Path file = Files.createTempFile("drawn", ".pdf");
        try {
            for (PlainChart chart : Gallery.bothWays(Stream.concat(Gallery.some().stream(), Gallery.narrow().stream()).toList(), new ImageEngine())) {
                try (OutputStream out = Files.newOutputStream(file)) {
                    Engines.draw(List.of(Page.of(chart)), "pdf", Options.STANDARD, out);
                }
                List<String> some = DrawnChart.differences(chart, DrawnPage.of(file).get(0));
                if (!some.isEmpty()) {
                    differences.put(chart.name(), some);
                }
            }
        } finally {
            Files.delete(file);
        }
        assertThat(differences).isEqualTo(Map.of());
    }
}
