package dev.trellisgorge.engine.workbook;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.engine.Engine;
import dev.trellisgorge.pattern.Gallery;
import java.util.Map;
import java.util.stream.Stream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What another program draws of native charts is what their cells say. */
public class DrawnTest {
    @DataProvider
    public Object[][] kinds() {
        return new Object[][] {{"xlsx", new WorkbookEngine()}, {"pptx", new SlideEngine()}};
    }

    @Test(dataProvider = "kinds")
    public void everyBarMarkAndLabelStandsWhereItsCellSays(String kind, Engine engine) throws Exception {
        Office.require();
        assertThat(DrawnCharts.differences(Gallery.bothWays(Stream.concat(Gallery.some().stream(), Gallery.narrow().stream()).toList(), engine), kind)).isEqualTo(Map.of());
    }
}
