package dev.trellisgorge.engine.opendocument;

import dev.trellisgorge.engine.workbook.XmlOutline;
import dev.trellisgorge.test.Golden;
import java.io.IOException;
import java.util.Set;
import org.testng.annotations.Test;

/** The charts of spreadsheets, but for the cells that they remember. */
public class ChartGoldenTest {
    @Test
    public void nativeChartsAreBuiltAsTheyWere() throws IOException {
        Golden.check("charts.txt", XmlOutline.ofCharts("ods", "Object [0-9]+/content[.]xml", Set.of("table:table", "style:text-properties")), 1e-9);
    }
}
