package dev.trellisgorge.engine.opendocument;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.engine.Engines;
import dev.trellisgorge.engine.Options;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.engine.Tile;
import dev.trellisgorge.engine.workbook.Office;
import dev.trellisgorge.engine.workbook.PlanSheets;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Columns;
import dev.trellisgorge.pattern.Figure;
import dev.trellisgorge.pattern.Gallery;
import dev.trellisgorge.pattern.Split;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.shape.Slice;
import dev.trellisgorge.shape.Total;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.test.TestSize;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import java.util.zip.ZipOutputStream;
import org.apache.poi.ss.usermodel.Cell;
import org.apache.poi.ss.usermodel.Row;
import org.apache.poi.ss.usermodel.Sheet;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Spreadsheets that follow their standard, give the oracle's cells in a program that knows nothing of ours, and hold texts as texts. */
@Test(groups = TestSize.SLOW)
public class OpenDocumentTest {
    private static final int PLANS = TestSize.of(20, 80);
    private static final Table GENERATION = Table.of("generation", Column.texts("month", "2031-01", "2031-01", "2031-02", "2031-02"), Column.texts("station", "Mill Race", "Heron Weir", "Mill Race", "Heron Weir"),
            Column.numbers("mwh", 150, 400, 120, 380));

    private static byte[] drawn(List<Page> pages, Options options, List<String> told) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        Engines.draw(pages, new OpenDocumentEngine(), "ods", options, out, told::add);
        return out.toByteArray();
    }

    private static Map<String, String> parts(byte[] file) throws IOException {
        Map<String, String> parts = new LinkedHashMap<>();
        try (ZipInputStream zip = new ZipInputStream(new ByteArrayInputStream(file))) {
            for (ZipEntry entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry()) {
                parts.put(entry.getName(), new String(zip.readAllBytes(), StandardCharsets.UTF_8));
            }
        }
        return parts;
    }

    /** What the validator of the standard finds wrong. */
    private static List<String> faults(byte[] file) throws Exception {
        Path there = Files.createTempFile("gorge", ".ods");
        try {
            Files.write(there, file);
            Process validator = new ProcessBuilder(Path.of(System.getProperty("java.home"), "bin", "java").toString(), "-jar", "target/validator/odfvalidator-jar-with-dependencies.jar", "-v", there.toString())
                    .redirectErrorStream(true).start();
            String said = new String(validator.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
            assertThat(validator.waitFor()).as(said).isIn(0, 1, 2);
            assertThat(said).contains("ODF version of root document: 1.3", "/meta.xml:  Info: Generator: Trellis Gorge");
            return said.lines().filter(line -> !line.contains("Info:")).toList();
        } finally {
            Files.delete(there);
        }
    }

    private static List<Page> gallery() {
        List<Page> pages = new ArrayList<>(Gallery.some().stream().map(example -> Page.of(example.chart().title("Figures of " + example.plain().name()).over(example.table(), example.settings()))).toList());
        pages.add(new Page("board", "The board", 2, List.of(new Tile.OfFigure(Figure.of("size").total(Figure.Total.MEAN).title("Mean").text("MWh").over(Gallery.ROWS, Gallery.SETTINGS)), new Tile.OfChart(List.of(Gallery.all().get(0).plain())))));
        return pages;
    }

    @Test
    public void everyPatternFollowsTheStandardAndIsTheSameBytesEachTime() throws Exception {
        byte[] file = drawn(gallery(), Options.STANDARD, new ArrayList<>());
        assertThat(faults(file)).isEmpty();
        assertThat(drawn(gallery(), Options.STANDARD, new ArrayList<>())).isEqualTo(file);
        Map<String, String> parts = parts(file);
        assertThat(parts.keySet().iterator().next()).isEqualTo("mimetype");
        assertThat(parts.get("mimetype")).isEqualTo("application/vnd.oasis.opendocument.spreadsheet");
        parts.keySet().stream().filter(name -> !name.equals("mimetype") && !name.startsWith("META-INF/")).forEach(name -> assertThat(parts.get("META-INF/manifest.xml")).contains("\"" + name + "\""));
    }

    @Test
    public void randomPlansGiveTheOraclesCellsInASpreadsheetProgram() throws Exception {
        assertThat(PlanSheets.recalculated(PLANS, "ods", new OpenDocumentEngine())).isGreaterThan(5 * PLANS);
    }

    /** The file with something else in place of a piece of its content. */
    private static Path edited(byte[] file, String from, String to) throws IOException {
        Path edited = Files.createTempFile("edited", ".ods");
        try (OutputStream out = Files.newOutputStream(edited); ZipOutputStream zip = new ZipOutputStream(out)) {
            for (Map.Entry<String, String> part : parts(file).entrySet()) {
                zip.putNextEntry(new ZipEntry(part.getKey()));
                String content = part.getKey().equals("content.xml") ? part.getValue().replaceFirst(java.util.regex.Pattern.quote(from), to) : part.getValue();
                assertThat(part.getKey().equals("content.xml") && content.equals(part.getValue())).as("there is " + from).isFalse();
                zip.write(content.getBytes(StandardCharsets.UTF_8));
            }
        }
        return edited;
    }

    private static List<String> cells(XSSFWorkbook book, String sheet) {
        List<String> cells = new ArrayList<>();
        for (Row row : book.getSheet(sheet)) {
            for (Cell cell : row) {
                cells.add(String.valueOf(PlanSheets.saved(cell)));
            }
        }
        return cells;
    }

    @Test
    public void seriesFollowARawCellASettingAndAPickFromAList() throws Exception {
        Office.require();
        Executor executor = Executor.over(GENERATION, Settings.of("goal", 300));
        Pipeline steps = Pipeline.of("generation").then(new Slice("month", "2031-02")).then(new Total(List.of("station"), List.of(new Total.Figure("mwh", Total.Fold.SUM, "mwh"))));
        PlainChart chart = Chart.of("station", Columns.of("mwh").classify(Split.atSetting("goal"))).named("shown").plan(steps, executor.known()).over(executor);
        byte[] file = drawn(List.of(Page.of(chart)), Options.STANDARD, new ArrayList<>());
        assertThat(faults(file)).isEmpty();
        assertThat(parts(file).get("content.xml")).contains("cell-content-is-in-list([$'Settings'.$F$2:.$F$3])");
        Map<String, List<String>> wanted = Map.of("office:value=\"380\"", List.of("120.0", "777.0"), "<text:p>2031-02</text:p>", List.of("150.0", "400.0"));
        Map<String, String> put = Map.of("office:value=\"380\"", "office:value=\"777\"", "<text:p>2031-02</text:p>", "<text:p>2031-01</text:p>");
        for (Map.Entry<String, List<String>> each : wanted.entrySet()) {
            Path changed = edited(file, each.getKey(), put.get(each.getKey()));
            Path saved = Office.recalculated(changed);
            try (InputStream in = Files.newInputStream(saved); XSSFWorkbook book = new XSSFWorkbook(in)) {
                assertThat(cells(book, "shown series")).containsAll(each.getValue());
                assertThat(cells(book, "shown")).contains("The pieces add back to the figures on every row.");
            } finally {
                Files.delete(changed);
                Files.delete(saved);
            }
        }
    }

    @Test
    public void textsAreTextsWhateverTheyBeginWithOrHold() throws Exception {
        Office.require();
        String[] hard = {"=1+1", "@x", "  two  spaces ", "a\nb", "<b>&amp;</b>", "'quoted'", "\"", "#N/A", "TRUE", "1e5"};
        Table table = Table.of("it's a \"table\"", Column.texts("name", hard), Column.numbers("v", 1, 2, 3, 4, 5, 6, 7, 8, 9, 10));
        PlainChart chart = Chart.of("name", Columns.of("v")).named("=hard").title("=1+1").over(table, Settings.of("goal", 1).with("place", "=2+2"));
        byte[] file = drawn(List.of(Page.of(chart)), Options.STANDARD, new ArrayList<>());
        assertThat(faults(file)).isEmpty();
        Path there = Files.createTempFile("hard", ".ods");
        Files.write(there, file);
        Path saved = Office.recalculated(there);
        try (InputStream in = Files.newInputStream(saved); XSSFWorkbook book = new XSSFWorkbook(in)) {
            List<String> raw = new ArrayList<>();
            Sheet sheet = book.getSheetAt(2);
            sheet.forEach(row -> raw.add(row.getCell(0).getStringCellValue()));
            assertThat(raw.subList(1, raw.size())).containsExactly(hard);
            assertThat(cells(book, book.getSheetName(3))).contains(hard);
        } finally {
            Files.delete(there);
            Files.delete(saved);
        }
    }

    @DataProvider
    public Object[][] formulas() {
        return new Object[][] {{"IF(C2<goal,C2,NA())", "of:=IF([.C2]<goal;[.C2];NA())"}, {"SUM(B$2:B2)", "of:=SUM([.B$2:.B2])"}, {"'it''s'!$A$1&\"a,b\"\"!C3\"", "of:=[$'it''s'.$A$1]&\"a,b\"\"!C3\""},
                {"Data!$F$2:INDEX(Data!$F$2:$F$9,3)", "of:=[$'Data'.$F$2]:INDEX([$'Data'.$F$2:.$F$9];3)"}, {"IF(TRUE,-1.5E-3%,#N/A)", "of:=IF(TRUE();-1.5E-3%;#N/A)"}, {"_xlfn.UNICODE(ROW($1:$255))", "of:=UNICODE(ROW([.$1:.$255]))"}, {"LOG10(A1)+A1B", "of:=LOG10([.A1])+A1B"}};
    }

    @Test(dataProvider = "formulas")
    public void formulasAreInTheWordsOfTheStandard(String formula, String open) {
        assertThat(OpenFormula.of(formula)).isEqualTo(open);
    }

    @Test
    public void formulaOfAnotherMakeIsNoGuess() {
        assertThatThrownBy(() -> OpenFormula.of("SUM({1,2})")).isInstanceOf(IllegalStateException.class).hasMessageContaining("SUM({1,2}), at 4");
    }

    @Test
    public void propertiesSayWhoMadeItAndWhatIsNotAsInAWorkbookIsTold() throws Exception {
        List<String> told = new ArrayList<>();
        PlainChart ring = Gallery.all().stream().map(Gallery.Example::plain).filter(plain -> plain.name().startsWith("ring")).findFirst().orElseThrow();
        Map<String, String> parts = parts(drawn(List.of(Page.of(ring)), Options.STANDARD.author("The river trust").date(LocalDate.of(2031, 4, 2)).spare(2, OptionalInt.empty()), told));
        assertThat(parts.get("meta.xml")).contains("<meta:generator>Trellis Gorge</meta:generator>", "<dc:creator>The river trust</dc:creator>", "<meta:creation-date>2031-04-02T00:00:00</meta:creation-date>");
        assertThat(told).anyMatch(sentence -> sentence.startsWith("the figure in the middle of " + ring.name() + " stays as it was drawn"));
        assertThat(parts.get("content.xml")).contains("<svg:desc>");
    }

    @Test
    public void workbooksOfOthersAreNotDrawnInto() {
        assertThatThrownBy(() -> drawn(gallery(), Options.STANDARD.into(Path.of("x.ods")), new ArrayList<>())).isInstanceOf(BadInput.class).hasMessageContaining("can't be drawn into");
    }

    @Test
    public void fileOfAnotherProgramWouldBeLost() throws Exception {
        byte[] file = drawn(List.of(Page.of(Gallery.all().get(0).plain())), Options.STANDARD, new ArrayList<>());
        Path own = Files.createTempFile("own", ".ods");
        Path other = Files.createTempFile("other", ".ods");
        try {
            Files.write(own, file);
            Files.delete(other);
            try (OutputStream out = Files.newOutputStream(other); ZipOutputStream zip = new ZipOutputStream(out)) {
                for (Map.Entry<String, String> part : parts(file).entrySet()) {
                    zip.putNextEntry(new ZipEntry(part.getKey()));
                    zip.write(part.getValue().replace("Trellis Gorge", "A pencil").getBytes(StandardCharsets.UTF_8));
                }
            }
            assertThat(new OpenDocumentEngine().loss(own)).isEmpty();
            assertThat(new OpenDocumentEngine().loss(other)).get().asString().startsWith("was last written by another program");
        } finally {
            Files.deleteIfExists(own);
            Files.deleteIfExists(other);
        }
    }
}
