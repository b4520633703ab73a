package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.chart.Looks.Purpose;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.TextCells;
import dev.trellisgorge.engine.Options;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.engine.Tile;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.sheet.TextLine;
import dev.trellisgorge.sheet.TextLook;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import org.apache.poi.xslf.usermodel.XSLFSlide;
import org.apache.poi.xslf.usermodel.XSLFTextShape;
import org.openxmlformats.schemas.drawingml.x2006.main.CTTextBody;
import org.openxmlformats.schemas.drawingml.x2006.main.STTextAnchoringType;
import org.openxmlformats.schemas.presentationml.x2006.main.CTShape;

/** A slide: the title and the line below it, the tiles on their grid, and the source at the foot. */
final class SlidePage {
    /** Pixels. */
    private static final int MARGIN = 40;
    private static final int FOOT = 28;
    private static final double LINE = 1.35;
    private static final double GLYPH = 0.55;
    /** Of a big figure, which has no descenders. */
    private static final double TIGHT = 1.1;
    /** In 1/100 point. */
    private static final int TITLE = 2400;
    private static final int SUBTITLE = 1400;
    private static final int SOURCE = 1000;
    private static final int FIGURE = 3600;

    private final Page page;
    private final XSLFSlide slide;
    private final SlideCanvas canvas;
    private final Options options;
    private final Consumer<String> warnings;

    SlidePage(Page page, XSLFSlide slide, SlideCanvas canvas, Options options, Consumer<String> warnings) {
        this.page = page;
        this.slide = slide;
        this.canvas = canvas;
        this.options = options;
        this.warnings = warnings;
    }

    void fill() throws IOException {
        Optional<PlainChart> alone = page.title().isEmpty() && page.subtitle().isEmpty() && page.tiles().size() == 1 && page.tiles().get(0) instanceof Tile.OfChart chart ? Optional.of(chart.parts().get(0)) : Optional.empty();
        Looks looks = alone.map(PlainChart::looks).orElse(page.looks());
        String stamp = alone.flatMap(PlainChart::stamp).map(words -> words + ": ").orElse("");
        double top = title(stamp + alone.map(PlainChart::title).orElse(page.title()), looks);
        String subtitle = alone.map(PlainChart::subtitle).orElse(page.subtitle());
        if (!subtitle.isEmpty()) {
            int size = size(looks, Purpose.SUBTITLE, SUBTITLE);
            double high = high(subtitle, size);
            canvas.words(MARGIN, top, width(), high, subtitle, size, looks.bold().getOrDefault(Purpose.SUBTITLE, false), at(looks), Role.INK.color());
            top += high;
        }
        double foot = page.source().isEmpty() ? MARGIN / 2.0 : MARGIN / 2.0 + FOOT;
        tiles(top + MARGIN / 4.0, options.size().height() - foot, alone.isPresent());
        if (!page.source().isEmpty()) {
            canvas.words(MARGIN, options.size().height() - foot, width(), FOOT, page.source(), SOURCE, false, TextLine.At.LEFT, Role.INK.color());
        }
    }

    private double width() {
        return options.size().width() - 2.0 * MARGIN;
    }

    private static int size(Looks looks, Purpose purpose, int usual) {
        return looks.sizes().containsKey(purpose) ? (int) Math.round(looks.sizes().get(purpose) * 75) : usual;
    }

    private static TextLine.At at(Looks looks) {
        return switch (looks.titleAt().orElse(Looks.Align.LEFT)) {
            case LEFT -> TextLine.At.LEFT;
            case CENTRE -> TextLine.At.CENTRE;
            case RIGHT -> TextLine.At.RIGHT;
        };
    }

    /** How high some words may be in a size, all in pixels. */
    private double high(String words, int size) {
        double pixels = size / 75.0;
        return (1 + (long) (words.length() * GLYPH * pixels / width())) * pixels * LINE + pixels * 0.4;
    }

    /** The slide's own title, which lists and readers name it by; where there is none its place is taken away. */
    private double title(String words, Looks looks) {
        XSLFTextShape place = slide.getPlaceholder(0);
        double top = MARGIN / 2.0;
        if (words.isEmpty()) {
            slide.removeShape(place);
            return top;
        }
        int size = size(looks, Purpose.TITLE, TITLE);
        place.setAnchor(SlideCanvas.points(MARGIN, top, width(), high(words, size)));
        CTTextBody body = ((CTShape) place.getXmlObject()).getTxBody();
        body.getBodyPr().setAnchor(STTextAnchoringType.B);
        body.getBodyPr().setLIns(0);
        body.getBodyPr().setRIns(0);
        SlideCanvas.fill(body, List.of(TextLine.of(words, new TextLook(size, Role.INK.color()).bold(looks.bold().getOrDefault(Purpose.TITLE, true)), Optional.of(at(looks)))));
        return top + high(words, size);
    }

    /** @param titled whether the slide's title is that of its one chart */
    private void tiles(double top, double bottom, boolean titled) throws IOException {
        canvas.from(MARGIN, top);
        int columns = Math.max(1, (int) (width() / Area.COLUMN / page.columns()));
        List<Double> heights = page.heights();
        double unit = (bottom - top) / Area.ROW / heights.stream().mapToDouble(Double::doubleValue).sum();
        int[] from = new int[heights.size() + 1];
        for (int row = 0; row < heights.size(); row++) {
            from[row + 1] = from[row] + Math.max(1, (int) Math.floor(unit * heights.get(row)));
        }
        for (Page.Place place : page.places()) {
            Area area = new Area(place.column() * columns, from[place.row()], place.span().columns() * columns, from[place.row() + place.span().rows()] - from[place.row()]);
            if (place.tile() instanceof Tile.OfFigure figure) {
                figure(figure, area, top);
            } else {
                chart((Tile.OfChart) place.tile(), area, titled);
            }
        }
    }

    private void figure(Tile.OfFigure tile, Area area, double top) {
        double x = MARGIN + area.inPixels().getX();
        double middle = top + area.inPixels().getCenterY();
        double wide = area.inPixels().getWidth();
        double figure = FIGURE / 75.0 * TIGHT;
        Looks looks = page.looks();
        int title = size(looks, Purpose.TITLE, SUBTITLE);
        int text = size(looks, Purpose.SUBTITLE, SUBTITLE - 200);
        if (!tile.title().isEmpty()) {
            canvas.words(x, middle - figure / 2 - title / 75.0 * LINE, wide, title / 75.0 * LINE, tile.title(), title, looks.bold().getOrDefault(Purpose.TITLE, true), at(looks), Role.INK.color());
        }
        canvas.words(x, middle - figure / 2, wide, figure, tile.written().isEmpty() ? "no figure" : tile.written(), FIGURE, true, at(looks), Role.BASE.color());
        if (!tile.text().isEmpty()) {
            canvas.words(x, middle + figure / 2, wide, text / 75.0 * LINE, tile.text(), text, false, at(looks), Role.INK.color());
        }
    }

    private void chart(Tile.OfChart tile, Area area, boolean titled) throws IOException {
        LiveWorkbook behind = new LiveWorkbook(List.of(new Page(page.name(), page.title(), 1, List.of(tile))), WorkbookEngine.ofNativeCharts(), options, warnings, Optional.empty());
        HelperSheet cells = behind.helpers().get(tile);
        List<PlainChart> parts = new ArrayList<>(tile.parts());
        boolean table = parts.get(0).drawing() instanceof TextCells || !parts.get(0).beside().isEmpty();
        if (titled) {
            parts.set(0, NativeTile.untitled(parts.get(0)));
        }
        boolean drawn = table && new SlideTable(parts, cells, slide, canvas, warnings).fill(area);
        if (!drawn && parts.get(0).drawing() instanceof TextCells) {
            warnings.accept("'" + parts.get(0).name() + "': has more rows than a slide has lines, so it is left out");
        } else if (!drawn) {
            new NativeTile(parts, cells, warnings).drawOn(canvas, area);
        }
        ByteArrayOutputStream workbook = new ByteArrayOutputStream();
        behind.book().show(behind.book().sheets().size() - 1);
        BookWriter.write(behind.book(), workbook);
        canvas.behind(workbook.toByteArray());
    }
}
