package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.test.Golden;
import java.io.IOException;
import java.util.Set;
import org.testng.annotations.Test;

/** The native charts of workbooks, but for the cells that they remember. */
public class ChartGoldenTest {
    @Test
    public void nativeChartsAreBuiltAsTheyWere() throws IOException {
        Golden.check("charts.txt", XmlOutline.ofCharts("xlsx", "xl/charts/chart[0-9]+[.]xml", Set.of("c:numCache", "c:strCache", "c:txPr", "mc:AlternateContent")), 1e-9);
    }
}
