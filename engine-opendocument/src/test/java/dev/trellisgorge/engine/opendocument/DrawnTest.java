package dev.trellisgorge.engine.opendocument;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.engine.workbook.DrawnCharts;
import dev.trellisgorge.engine.workbook.Office;
import dev.trellisgorge.pattern.Gallery;
import dev.trellisgorge.test.TestSize;
import java.util.Map;
import java.util.stream.Stream;
import org.testng.annotations.Test;

/** What another program draws of the charts of a spreadsheet is what their cells say. */
public class DrawnTest {
    @Test(groups = TestSize.SLOW)
    public void everyBarMarkAndLabelStandsWhereItsCellSays() throws Exception {
        Office.require();
        assertThat(DrawnCharts.differences(Gallery.bothWays(Stream.concat(Gallery.some().stream(), Gallery.narrow().stream()).toList(), new OpenDocumentEngine()), "ods")).isEqualTo(Map.of());
    }
}
