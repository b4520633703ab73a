package dev.trellisgorge.engine.workbook;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.chart.Panels;
import dev.trellisgorge.chart.Ring;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.chart.TextCells;
import dev.trellisgorge.engine.Engines;
import dev.trellisgorge.engine.Lowering;
import dev.trellisgorge.engine.Options;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.engine.Tile;
import dev.trellisgorge.pattern.Gallery;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.test.TestSize;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.apache.poi.openxml4j.opc.PackagePart;
import org.apache.poi.ss.usermodel.Cell;
import org.apache.poi.ss.usermodel.CellType;
import org.apache.poi.ss.util.CellRangeAddress;
import org.apache.poi.xslf.usermodel.XMLSlideShow;
import org.apache.poi.xslf.usermodel.XSLFChart;
import org.apache.poi.xslf.usermodel.XSLFRelation;
import org.apache.poi.xslf.usermodel.XSLFShape;
import org.apache.poi.xslf.usermodel.XSLFSlide;
import org.apache.poi.xslf.usermodel.XSLFTable;
import org.apache.poi.xslf.usermodel.XSLFTextShape;
import org.apache.poi.xssf.usermodel.XSSFSheet;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;
import org.apache.xmlbeans.XmlError;
import org.apache.xmlbeans.XmlOptions;
import org.openxmlformats.schemas.drawingml.x2006.chart.ChartSpaceDocument;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTPlotArea;
import org.openxmlformats.schemas.presentationml.x2006.main.PresentationDocument;
import org.openxmlformats.schemas.presentationml.x2006.main.SldDocument;
import org.testng.annotations.Test;

/** Slides: native charts over a workbook of their own, titles that lists know, and parts that follow their schemas. */
@Test(groups = TestSize.SLOW)
public class SlidesTest {
    private static final List<PlainChart> CHARTS = Gallery.some().stream().map(example -> example.chart().title("Figures of " + example.plain().name()).over(example.table(), example.settings())).toList();

    private static byte[] drawn(List<Page> pages, Options options) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        Engines.draw(pages, "pptx", options, out);
        return out.toByteArray();
    }

    private static byte[] drawn(List<PlainChart> charts) throws IOException {
        return drawn(charts.stream().map(Page::of).toList(), Options.STANDARD);
    }

    private static List<XSLFChart> chartsOf(XSLFSlide slide) {
        return slide.getRelations().stream().filter(XSLFChart.class::isInstance).map(XSLFChart.class::cast).toList();
    }

    private static PackagePart behind(XSLFChart chart) throws Exception {
        PackagePart part = chart.getPackagePart();
        return part.getRelatedPart(part.getRelationshipsByType(XSLFRelation.WORKBOOK.getRelation()).getRelationship(0));
    }

    @Test
    public void everyPartOfEveryPatternFollowsItsSchema() throws Exception {
        try (XMLSlideShow show = new XMLSlideShow(new ByteArrayInputStream(drawn(CHARTS)))) {
            int checked = 0;
            for (PackagePart part : show.getPackage().getParts()) {
                List<XmlError> errors = new ArrayList<>();
                XmlOptions listening = new XmlOptions().setErrorListener(errors);
                String name = part.getPartName().getName();
                if (!name.startsWith("/ppt/")) {
                    continue;
                }
                try (InputStream in = part.getInputStream()) {
                    if (name.matches("/ppt/slides/slide\\d+\\.xml")) {
                        SldDocument.Factory.parse(in).validate(listening);
                    } else if (name.matches("/ppt/charts/chart\\d+\\.xml")) {
                        ChartSpaceDocument.Factory.parse(in).validate(listening);
                    } else if (name.equals("/ppt/presentation.xml")) {
                        PresentationDocument.Factory.parse(in).validate(listening);
                    } else {
                        continue;
                    }
                }
                assertThat(errors).as(name).isEmpty();
                checked++;
            }
            assertThat(checked).isGreaterThan(3 * CHARTS.size() / 2);
        }
    }

    @Test
    public void eachSlideHasItsTitleAndItsChartsReadTheCellsOfTheWorkbookBehindThem() throws Exception {
        try (XMLSlideShow show = new XMLSlideShow(new ByteArrayInputStream(drawn(CHARTS)))) {
            assertThat(show.getSlides()).hasSize(CHARTS.size());
            int compared = 0;
            for (int i = 0; i < CHARTS.size(); i++) {
                PlainChart plain = CHARTS.get(i);
                XSLFSlide slide = show.getSlides().get(i);
                assertThat(slide.getTitle()).isEqualTo(plain.title());
                List<PlainChart> parts = new Lowering(new SlideEngine().abilities()).lower(plain);
                List<XSLFChart> drawn = chartsOf(slide);
                assertThat(drawn).as(plain.name()).hasSize(plain.drawing() instanceof TextCells ? 0 : plain.drawing() instanceof Ring ? 1 : parts.size());
                for (int part = 0; part < drawn.size(); part++) {
                    try (InputStream in = behind(drawn.get(part)).getInputStream(); XSSFWorkbook book = new XSSFWorkbook(in)) {
                        XSSFSheet helpers = book.getSheet(plain.name() + " series");
                        assertThat(book.getActiveSheetIndex()).isEqualTo(book.getSheetIndex(helpers));
                        if (parts.get(part).drawing() instanceof Panels) {
                            compared += assertReads(drawn.get(part).getCTChart().getPlotArea(), helpers, parts.get(part));
                        }
                    }
                }
            }
            assertThat(compared).isGreaterThan(CHARTS.size());
        }
    }

    /** Each range that a chart's bars read holds the cells of a series. */
    private static int assertReads(CTPlotArea plot, XSSFSheet helpers, PlainChart part) {
        List<Series> bars = part.panels().get(0).bars().stream().flatMap(group -> group.series().stream()).toList();
        List<String> ranges = Stream.of(plot.getBarChartArray()).flatMap(group -> Stream.of(group.getSerArray())).map(ser -> ser.getVal().getNumRef().getF()).toList();
        int at = 0;
        for (Series series : bars) {
            while (!inColumn(ranges.get(at), HelperCells.column(helpers, series.column()))) {
                at++; // the unseen one at 0
            }
            Column cells = part.data().column(series.column());
            for (int row = 0; row < cells.size(); row++) {
                Cell cell = HelperCells.cell(helpers, series.column(), row);
                assertThat(cell.getCachedFormulaResultType()).isEqualTo(cells.isPresent(row) ? CellType.NUMERIC : CellType.ERROR);
                assertThat(cells.isPresent(row) ? cell.getNumericCellValue() : 0).isEqualTo(cells.isPresent(row) ? cells.number(row) : 0);
            }
        }
        return bars.size();
    }

    private static boolean inColumn(String range, int column) {
        return CellRangeAddress.valueOf(range.substring(range.lastIndexOf('!') + 1)).getFirstColumn() == column;
    }

    @Test
    public void boardIsOneSlideWithWordsForReadersAndItsSource() throws Exception {
        PlainChart chart = CHARTS.get(0);
        Page board = new Page("board", "Hollow Gorge", "March", "the trust's own meters", 2, List.of(new Tile.OfChart(List.of(chart)), new Tile.OfChart(List.of(CHARTS.get(1)))),
                List.of(Page.Span.ONE, Page.Span.ONE), List.of(), chart.looks(), Optional.empty());
        try (XMLSlideShow show = new XMLSlideShow(new ByteArrayInputStream(drawn(List.of(board), Options.STANDARD.author("Anyone").date(LocalDate.of(2031, 6, 30)))))) {
            XSLFSlide slide = show.getSlides().get(0);
            assertThat(slide.getTitle()).isEqualTo("Hollow Gorge");
            assertThat(slide.getShapes().stream().filter(XSLFTextShape.class::isInstance).map(shape -> ((XSLFTextShape) shape).getText())).contains("March", "the trust's own meters");
            assertThat(Stream.of(slide.getXmlObject().getCSld().getSpTree().getGraphicFrameArray()).map(frame -> frame.getNvGraphicFramePr().getCNvPr().getDescr())).contains(chart.alternative(), CHARTS.get(1).alternative());
            assertThat(show.getProperties().getCoreProperties().getCreator()).isEqualTo("Anyone");
            assertThat(show.getProperties().getCoreProperties().getCreated()).isEqualTo("2031-06-30T00:00:00Z");
            assertThat(show.getProperties().getCoreProperties().getTitle()).isEqualTo("Hollow Gorge");
        }
    }

    @Test
    public void textBarsAreATableAndTooManyOfThemAreTold() throws Exception {
        PlainChart texts = CHARTS.stream().filter(chart -> chart.drawing() instanceof TextCells).findFirst().orElseThrow();
        try (XMLSlideShow show = new XMLSlideShow(new ByteArrayInputStream(drawn(List.of(texts))))) {
            List<XSLFShape> shapes = show.getSlides().get(0).getShapes();
            XSLFTable table = (XSLFTable) shapes.stream().filter(XSLFTable.class::isInstance).findFirst().orElseThrow();
            assertThat(table.getNumberOfRows()).isEqualTo(texts.data().rowCount() + 1);
            assertThat(IntStream.range(0, texts.data().rowCount()).mapToObj(row -> table.getCell(row + 1, 0).getText())).isEqualTo(IntStream.range(0, texts.data().rowCount()).mapToObj(texts::categoryText).toList());
        }
        List<String> told = new ArrayList<>();
        Options low = Options.of(new dev.trellisgorge.chart.Size(640, 100));
        Engines.draw(List.of(Page.of(texts)), new SlideEngine(), "pptx", low, new ByteArrayOutputStream(), told::add);
        assertThat(told).anyMatch(sentence -> sentence.endsWith("has more rows than a slide has lines, so it is left out"));
    }

    @Test
    public void sameChartsGiveTheSameBytesAndRowsToComeAreRefused() throws Exception {
        assertThat(drawn(CHARTS.subList(0, 2))).isEqualTo(drawn(CHARTS.subList(0, 2)));
        assertThatThrownBy(() -> drawn(List.of(Page.of(CHARTS.get(0))), Options.STANDARD.spare(5, OptionalInt.empty()))).isInstanceOf(BadInput.class)
                .hasMessage(".pptx: files of this kind have no room for rows to come");
    }
}
