package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.engine.Options;
import dev.trellisgorge.engine.Page;
import java.awt.Dimension;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import org.apache.poi.xslf.usermodel.SlideLayout;
import org.apache.poi.xslf.usermodel.XMLSlideShow;
import org.apache.poi.xslf.usermodel.XSLFSlide;

/** A slide for each page, all as large as a picture. */
final class SlideDeck {
    static final double POINTS_PER_PIXEL = 0.75;

    private final List<Page> pages;
    private final Options options;
    private final Consumer<String> told;

    /** @param told given what is left out */
    SlideDeck(List<Page> pages, Options options, Consumer<String> told) {
        this.pages = pages;
        this.options = options;
        this.told = told;
    }

    void writeTo(OutputStream out) throws IOException {
        Map<String, byte[]> workbooks = new HashMap<>();
        ByteArrayOutputStream made = new ByteArrayOutputStream();
        try (XMLSlideShow show = new XMLSlideShow()) {
            show.setPageSize(new Dimension((int) Math.round(options.size().width() * POINTS_PER_PIXEL), (int) Math.round(options.size().height() * POINTS_PER_PIXEL)));
            LiveWorkbook.made(show.getProperties().getCoreProperties(), options);
            if (!pages.get(0).listed().isEmpty()) {
                show.getProperties().getCoreProperties().setTitle(pages.get(0).listed());
            }
            for (Page page : pages) {
                XSLFSlide slide = show.createSlide(show.getSlideMasters().get(0).getLayout(SlideLayout.TITLE_ONLY));
                SlideCanvas canvas = new SlideCanvas(slide);
                new SlidePage(page, slide, canvas, options, told).fill();
                workbooks.putAll(canvas.workbooks());
            }
            show.write(made);
        }
        Parts parts = Parts.read(made.toByteArray());
        workbooks.forEach((part, workbook) -> parts.write(part.substring(1), workbook)); // in the places of those that the library makes
        parts.writeTo(out);
    }
}
