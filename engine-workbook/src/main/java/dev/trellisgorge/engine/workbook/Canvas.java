package dev.trellisgorge.engine.workbook;

import java.util.Optional;
import org.apache.poi.xddf.usermodel.chart.XDDFChart;
import org.openxmlformats.schemas.drawingml.x2006.main.CTTextBody;

/** What native charts and words over them are put on: a sheet, or a slide. */
interface Canvas {

    /**
     * An empty chart.
     *
     * @param name        what lists of the drawn things call it
     * @param description in words, for readers who can't see it
     */
    XDDFChart chart(Area area, String name, String description);

    /**
     * A box without fill or line, with one empty paragraph in its middle.
     *
     * @param cell the cell whose words it follows, where the canvas has cells; empty for words that stay
     */
    CTTextBody box(Area area, String description, Optional<String> cell);
}
