package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.engine.Options;
import dev.trellisgorge.engine.Page;
import java.awt.Dimension;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Date;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import org.apache.poi.ooxml.POIXMLProperties;
import org.apache.poi.xslf.usermodel.SlideLayout;
import org.apache.poi.xslf.usermodel.XMLSlideShow;
import org.apache.poi.xslf.usermodel.XSLFSlide;

/** A slide for each page, all as large as a picture. */
final class SlideDeck {
    static final double POINTS_PER_PIXEL = 0.75;
    private static final String WORKBOOK = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet";

    private final List<Page> pages;
    private final Options options;
    private final Consumer<String> warnings;

    /** @param warnings takes what is left out */
    SlideDeck(List<Page> pages, Options options, Consumer<String> warnings) {
        this.pages = pages;
        this.options = options;
        this.warnings = warnings;
    }

    void writeTo(OutputStream out) throws IOException {
        List<SlideCanvas.OnSlide> charts = new ArrayList<>();
        ByteArrayOutputStream made = new ByteArrayOutputStream();
        try (XMLSlideShow show = new XMLSlideShow()) {
            show.setPageSize(new Dimension((int) Math.round(options.size().width() * POINTS_PER_PIXEL), (int) Math.round(options.size().height() * POINTS_PER_PIXEL)));
            properties(show.getProperties().getCoreProperties());
            for (Page page : pages) {
                XSLFSlide slide = show.createSlide(show.getSlideMasters().get(0).getLayout(SlideLayout.TITLE_ONLY));
                SlideCanvas canvas = new SlideCanvas(slide);
                new SlidePage(page, slide, canvas, options, warnings).fill();
                charts.addAll(canvas.charts());
            }
            show.write(made);
        }
        Parts parts = Parts.read(made.toByteArray());
        charts.forEach(chart -> put(parts, chart));
        parts.writeTo(out);
    }

    private void properties(POIXMLProperties.CoreProperties properties) {
        properties.setCreator(options.author().orElse(LiveWorkbook.PROGRAM));
        properties.setCreated(options.date().map(day -> Date.from(day.atStartOfDay(ZoneOffset.UTC).toInstant())));
        if (!pages.get(0).listed().isEmpty()) {
            properties.setTitle(pages.get(0).listed());
        }
    }

    /** Writes a chart into its part, and puts its workbook and its pictures beside it. */
    private static void put(Parts parts, SlideCanvas.OnSlide chart) {
        String workbook = parts.free("ppt/embeddings/series", ".xlsx");
        parts.write(workbook, chart.workbook());
        parts.type(workbook, WORKBOOK);
        String behind = parts.relate(chart.part(), OfficeXml.RELATIONSHIPS + "/package", workbook);
        ByteArrayOutputStream written = new ByteArrayOutputStream();
        ChartWriter.write(written, chart.chart(), png -> {
            String picture = parts.free("ppt/media/rounded", ".png");
            parts.write(picture, png);
            parts.type(picture, "image/png");
            return parts.relate(chart.part(), OfficeXml.RELATIONSHIPS + "/image", picture);
        }, Optional.of(behind));
        parts.write(chart.part(), written.toByteArray());
    }
}
