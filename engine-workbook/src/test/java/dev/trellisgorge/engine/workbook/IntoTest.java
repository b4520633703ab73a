package dev.trellisgorge.engine.workbook;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.engine.Engines;
import dev.trellisgorge.engine.Options;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.engine.SheetAnchor;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Columns;
import dev.trellisgorge.pattern.Gallery;
import dev.trellisgorge.pattern.Split;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Bound;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Source;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.test.TestSize;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.TreeMap;
import java.util.function.Consumer;
import java.util.stream.IntStream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import java.util.zip.ZipInputStream;
import java.util.zip.ZipOutputStream;
import org.apache.poi.common.usermodel.HyperlinkType;
import org.apache.poi.openxml4j.opc.PackagePartName;
import org.apache.poi.openxml4j.opc.PackagingURIHelper;
import org.apache.poi.ss.usermodel.Cell;
import org.apache.poi.ss.usermodel.ClientAnchor;
import org.apache.poi.ss.usermodel.DataValidationHelper;
import org.apache.poi.ss.usermodel.FillPatternType;
import org.apache.poi.ss.usermodel.IndexedColors;
import org.apache.poi.ss.usermodel.Row;
import org.apache.poi.ss.usermodel.Sheet;
import org.apache.poi.ss.usermodel.Workbook;
import org.apache.poi.ss.util.AreaReference;
import org.apache.poi.ss.util.CellRangeAddress;
import org.apache.poi.ss.util.CellRangeAddressList;
import org.apache.poi.xddf.usermodel.chart.AxisPosition;
import org.apache.poi.xddf.usermodel.chart.ChartTypes;
import org.apache.poi.xddf.usermodel.chart.XDDFChartData;
import org.apache.poi.xddf.usermodel.chart.XDDFDataSourcesFactory;
import org.apache.poi.xssf.streaming.SXSSFWorkbook;
import org.apache.poi.xssf.usermodel.XSSFCellStyle;
import org.apache.poi.xssf.usermodel.XSSFChart;
import org.apache.poi.xssf.usermodel.XSSFRichTextString;
import org.apache.poi.xssf.usermodel.XSSFSheet;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;

/** What is put into workbooks of other makers leaves all else as it is, and is replaced when it is put in again. */
@Test(groups = TestSize.SLOW)
public class IntoTest {
    private static final Table ROWS = Table.of("generation", Column.texts("station", "Mill Race", "Heron Weir", "Low Lock"), Column.numbers("mwh", 150, 400, 386));
    private static final Settings GOAL = Settings.of("goal", 390);

    private Path folder;

    @BeforeClass
    void makeFolder() throws IOException {
        folder = Files.createTempDirectory("into");
    }

    @AfterClass
    void deleteFolder() throws IOException {
        try (var files = Files.list(folder)) {
            for (Path file : files.toList()) {
                Files.delete(file);
            }
        }
        Files.delete(folder);
    }

    private static PlainChart chart(Table rows) {
        return Chart.of("station", Columns.of("mwh").classify(Split.at(dev.trellisgorge.formula.Formulas.setting("goal")))).named("march").title("March").over(rows, GOAL);
    }

    /** A workbook with figures on its first sheet, and one thing more. */
    private Path workbook(String name, Consumer<XSSFWorkbook> more) throws IOException {
        Path file = folder.resolve(name);
        try (XSSFWorkbook book = new XSSFWorkbook(); OutputStream out = Files.newOutputStream(file)) {
            XSSFSheet summary = book.createSheet("Summary");
            Sheet figures = book.createSheet("The figures");
            fill(figures, 2, 1);
            summary.createRow(0).createCell(0).setCellValue("Ours");
            summary.getRow(0).createCell(1).setCellFormula("SUM('The figures'!C4:C6)");
            more.accept(book);
            book.write(out);
        }
        return file;
    }

    /** The rows of the chart, from a line and a column on, both from 0. */
    private static void fill(Sheet sheet, int line, int column) {
        Row header = sheet.createRow(line);
        header.createCell(column).setCellValue("station");
        header.createCell(column + 1).setCellValue("mwh");
        for (int row = 0; row < ROWS.rowCount(); row++) {
            Row at = sheet.createRow(line + 1 + row);
            at.createCell(column).setCellValue(ROWS.column("station").written(row));
            at.createCell(column + 1).setCellValue(ROWS.column("mwh").number(row));
        }
    }

    /** Workbooks of several makers and kinds, by what is in them. */
    private List<Path> workbooks() throws Exception {
        Map<String, Consumer<XSSFWorkbook>> kinds = new LinkedHashMap<>();
        kinds.put("plain", book -> { });
        kinds.put("styles", book -> {
            for (int i = 0; i < 20; i++) {
                XSSFCellStyle style = book.createCellStyle();
                style.setFillForegroundColor(IndexedColors.values()[i].index);
                style.setFillPattern(FillPatternType.SOLID_FOREGROUND);
                style.setDataFormat(book.createDataFormat().getFormat("0." + "0".repeat(i % 5 + 1) + "\" l\""));
                book.getSheetAt(0).createRow(i + 2).createCell(0).setCellStyle(style);
            }
        });
        kinds.put("chart", IntoTest::addChart);
        kinds.put("picture", book -> addPicture(book.getSheetAt(0)));
        kinds.put("chart and picture", book -> {
            addChart(book);
            addPicture(book.getSheetAt(0));
        });
        kinds.put("validation", book -> {
            DataValidationHelper helper = book.getSheetAt(0).getDataValidationHelper();
            book.getSheetAt(0).addValidationData(helper.createValidation(helper.createExplicitListConstraint(new String[] {"a", "b"}), new CellRangeAddressList(1, 3, 1, 1)));
        });
        kinds.put("conditional formats", book -> {
            var formats = book.getSheetAt(0).getSheetConditionalFormatting();
            var rule = formats.createConditionalFormattingRule("A1>3");
            rule.createFontFormatting().setFontStyle(true, true);
            formats.addConditionalFormatting(new CellRangeAddress[] {CellRangeAddress.valueOf("A1:B9")}, rule);
        });
        kinds.put("comments", book -> {
            var drawing = book.getSheetAt(0).createDrawingPatriarch();
            var comment = drawing.createCellComment(new org.apache.poi.xssf.usermodel.XSSFClientAnchor(0, 0, 0, 0, 3, 3, 5, 6));
            comment.setString(new XSSFRichTextString("a remark"));
            book.getSheetAt(0).getRow(0).getCell(0).setCellComment(comment);
        });
        kinds.put("table", book -> book.getSheetAt(1).createTable(new AreaReference("B3:C6", book.getSpreadsheetVersion())).setDisplayName("T"));
        kinds.put("names", book -> {
            var name = book.createName();
            name.setNameName("goal");
            name.setRefersToFormula("Summary!$A$1");
            var local = book.createName();
            local.setNameName("area");
            local.setSheetIndex(1);
            local.setRefersToFormula("'The figures'!$B$3:$C$6");
        });
        kinds.put("print", book -> {
            book.setPrintArea(0, 0, 5, 0, 20);
            book.getSheetAt(0).getHeader().setCenter("&\"Arial\"head");
            book.getSheetAt(0).getFooter().setLeft("foot");
            book.getSheetAt(0).setRowBreak(10);
            book.getSheetAt(0).setRepeatingRows(CellRangeAddress.valueOf("1:1"));
        });
        kinds.put("links", book -> {
            var link = book.getCreationHelper().createHyperlink(HyperlinkType.URL);
            link.setAddress("http://example.org/");
            book.getSheetAt(0).getRow(0).getCell(0).setHyperlink(link);
        });
        kinds.put("hidden", book -> {
            book.createSheet("Hidden");
            book.setSheetHidden(2, true);
            book.setActiveSheet(1);
            book.getSheetAt(0).setColumnWidth(1, 5000);
            book.getSheetAt(0).setColumnHidden(2, true);
            book.getSheetAt(0).createRow(5).setHeightInPoints(50);
            book.getSheetAt(0).createRow(6).setZeroHeight(true);
        });
        kinds.put("protected", book -> book.getSheetAt(0).protectSheet("secret"));
        kinds.put("merged and rich", book -> {
            book.getSheetAt(0).addMergedRegion(CellRangeAddress.valueOf("C3:E4"));
            XSSFRichTextString rich = new XSSFRichTextString("rich & <odd>");
            rich.applyFont(0, 4, book.createFont());
            book.getSheetAt(0).createRow(2).createCell(2).setCellValue(rich);
        });
        kinds.put("names of ours", book -> {
            book.createSheet("Settings");
            book.createSheet("generation");
            book.createSheet("march series").createRow(0).createCell(0).setCellValue("not ours");
        });
        List<Path> made = new ArrayList<>();
        for (Map.Entry<String, Consumer<XSSFWorkbook>> kind : kinds.entrySet()) {
            made.add(workbook(kind.getKey() + ".xlsx", kind.getValue()));
        }
        List<Path> again = Office.recalculated(made);
        for (int i = 0; i < again.size(); i++) {
            made.add(Files.move(again.get(i), folder.resolve("office " + made.get(i).getFileName())));
        }
        made.add(streamed());
        made.add(ofOurs());
        made.add(withMacros(made.get(0)));
        made.add(prefixed());
        made.add(wide(made.get(0)));
        return made;
    }

    private static void addChart(XSSFWorkbook book) {
        XSSFSheet sheet = book.getSheetAt(0);
        XSSFChart chart = sheet.createDrawingPatriarch().createChart(sheet.createDrawingPatriarch().createAnchor(0, 0, 0, 0, 1, 30, 6, 40));
        XDDFChartData data = chart.createData(ChartTypes.BAR, chart.createCategoryAxis(AxisPosition.BOTTOM), chart.createValueAxis(AxisPosition.LEFT));
        data.addSeries(XDDFDataSourcesFactory.fromStringCellRange(book.getSheetAt(1), CellRangeAddress.valueOf("B4:B6")), XDDFDataSourcesFactory.fromNumericCellRange(book.getSheetAt(1), CellRangeAddress.valueOf("C4:C6")));
        chart.plot(data);
    }

    private static void addPicture(XSSFSheet sheet) {
        byte[] dot = java.util.Base64.getDecoder().decode("iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==");
        int picture = sheet.getWorkbook().addPicture(dot, Workbook.PICTURE_TYPE_PNG);
        ClientAnchor anchor = sheet.getWorkbook().getCreationHelper().createClientAnchor();
        anchor.setCol1(8);
        anchor.setRow1(1);
        sheet.createDrawingPatriarch().createPicture(anchor, picture);
    }

    private Path streamed() throws IOException {
        Path file = folder.resolve("streamed.xlsx");
        try (SXSSFWorkbook book = new SXSSFWorkbook(); OutputStream out = Files.newOutputStream(file)) {
            book.createSheet("Summary").createRow(0).createCell(0).setCellValue("streamed");
            book.write(out);
        }
        return file;
    }

    private Path ofOurs() throws IOException {
        Path file = folder.resolve("ours.xlsx");
        Engines.draw(List.of(Page.of(Chart.of("station", Columns.of("mwh")).named("Summary").over(ROWS, Settings.NONE))), file, dev.trellisgorge.chart.Size.STANDARD);
        return file;
    }

    private Path withMacros(Path plain) throws IOException {
        Path file = folder.resolve("macros.xlsm");
        try (InputStream in = Files.newInputStream(plain); XSSFWorkbook book = new XSSFWorkbook(in); OutputStream out = Files.newOutputStream(file)) {
            book.setVBAProject(new java.io.ByteArrayInputStream("not really macros, and kept byte for byte".getBytes(StandardCharsets.UTF_8)));
            PackagePartName name = PackagingURIHelper.createPartName("/customXml/item1.xml");
            try (OutputStream custom = book.getPackage().createPart(name, "application/xml").getOutputStream()) {
                custom.write("<own xmlns=\"urn:own\">kept</own>".getBytes(StandardCharsets.UTF_8));
            }
            book.write(out);
        } catch (org.apache.poi.openxml4j.exceptions.InvalidFormatException e) {
            throw new IOException(e);
        }
        return file;
    }

    /** Written by hand: a prefix for each element, no styles, targets from the root on. */
    private Path prefixed() throws IOException {
        Path file = folder.resolve("prefixed.xlsx");
        String main = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";
        String office = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
        Map<String, String> parts = new LinkedHashMap<>();
        parts.put("[Content_Types].xml", "<?xml version='1.0'?><Types xmlns='http://schemas.openxmlformats.org/package/2006/content-types'><Default Extension='rels' ContentType='application/vnd.openxmlformats-package.relationships+xml'/>"
                + "<Default Extension='xml' ContentType='application/xml'/><Override PartName='/book/wb.xml' ContentType='application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml'/>"
                + "<Override PartName='/book/one.xml' ContentType='application/vnd.openxmlformats-officedocument.spreadsheetml.worksheet+xml'/></Types>");
        parts.put("_rels/.rels", "<Relationships xmlns='http://schemas.openxmlformats.org/package/2006/relationships'><Relationship Id='a' Type='" + office + "/officeDocument' Target='/book/wb.xml'/></Relationships>");
        parts.put("book/wb.xml", "<!-- by hand --><x:workbook xmlns:x='" + main + "' xmlns:rel='" + office + "'><x:sheets><x:sheet name='Summary' sheetId='7' rel:id='s'/></x:sheets></x:workbook>");
        parts.put("book/_rels/wb.xml.rels", "<Relationships xmlns='http://schemas.openxmlformats.org/package/2006/relationships'><Relationship Id='s' Type='" + office + "/worksheet' Target='one.xml'/></Relationships>");
        parts.put("book/one.xml", "<x:worksheet xmlns:x='" + main + "'><x:sheetData><x:row r='1'><x:c r='A1' t='inlineStr'><x:is><x:t>&lt;drawing&gt;</x:t></x:is></x:c></x:row></x:sheetData><!-- <x:extLst> --></x:worksheet>");
        try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(file))) {
            for (Map.Entry<String, String> part : parts.entrySet()) {
                zip.putNextEntry(new ZipEntry(part.getKey()));
                zip.write(part.getValue().getBytes(StandardCharsets.UTF_8));
            }
        }
        return file;
    }

    /** With a workbook part in UTF-16. */
    private Path wide(Path plain) throws IOException {
        Path file = folder.resolve("wide.xlsx");
        try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(file))) {
            for (Map.Entry<String, byte[]> part : parts(Files.readAllBytes(plain)).entrySet()) {
                zip.putNextEntry(new ZipEntry(part.getKey()));
                zip.write(!part.getKey().equals("xl/workbook.xml") ? part.getValue()
                        : new String(part.getValue(), StandardCharsets.UTF_8).replaceFirst("<\\?xml[^>]*>", "<?xml version=\"1.0\" encoding=\"UTF-16\"?>").getBytes(StandardCharsets.UTF_16));
            }
        }
        return file;
    }

    private static Map<String, byte[]> parts(Path file) throws IOException {
        Map<String, byte[]> parts = new TreeMap<>();
        try (ZipFile zip = new ZipFile(file.toFile())) {
            for (ZipEntry part : java.util.Collections.list(zip.entries())) {
                parts.put(part.getName(), zip.getInputStream(part).readAllBytes());
            }
        }
        return parts;
    }

    private static Map<String, byte[]> parts(byte[] bytes) throws IOException {
        Map<String, byte[]> parts = new TreeMap<>();
        try (ZipInputStream zip = new ZipInputStream(new java.io.ByteArrayInputStream(bytes))) {
            for (ZipEntry part = zip.getNextEntry(); part != null; part = zip.getNextEntry()) {
                parts.put(part.getName(), zip.readAllBytes());
            }
        }
        return parts;
    }

    private static byte[] drawn(Path into, Page... pages) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        String name = into.getFileName().toString();
        Engines.draw(List.of(pages), name.substring(name.lastIndexOf('.') + 1), Options.STANDARD.into(into), out);
        return out.toByteArray();
    }

    @Test
    public void everyPartOfThirtyWorkbooksStaysAsItIsButThoseThatNameTheNewOnes() throws Exception {
        Office.require();
        List<Path> workbooks = workbooks();
        assertThat(workbooks).hasSizeGreaterThan(30);
        Page page = Page.of(chart(ROWS)).at(SheetAnchor.parse("Summary!B4:H20"));
        for (Path workbook : workbooks) {
            Map<String, byte[]> before = parts(workbook);
            byte[] once = drawn(workbook, page);
            Map<String, byte[]> after = parts(once);
            List<String> changed = before.keySet().stream().filter(part -> !java.util.Arrays.equals(before.get(part), after.get(part))).toList();
            assertThat(changed).as(workbook.toString()).allMatch(part -> part.equals("[Content_Types].xml") || part.matches("(xl|book)/(_rels/)?(workbook|wb)\\.xml(\\.rels)?") || part.equals("xl/styles.xml")
                    || part.matches("(xl/worksheets|book)/(_rels/)?(sheet1|one)\\.xml(\\.rels)?") || part.matches("xl/drawings/(_rels/)?drawing1\\.xml(\\.rels)?"));
            Path again = Files.write(folder.resolve("again-" + workbook.getFileName()), once);
            byte[] twice = drawn(again, page);
            parts(twice).forEach((part, bytes) -> assertThat(new String(bytes, StandardCharsets.UTF_8)).as("drawn again into " + workbook + " " + part).isEqualTo(new String(after.get(part), StandardCharsets.UTF_8)));
            assertThat(twice).isEqualTo(once);
            // What was put in is taken out whole: the sheet and its drawing are what they were.
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            HostWorkbook.open(again).writeTo(out);
            Map<String, byte[]> without = parts(out.toByteArray());
            for (String part : changed) {
                if (part.matches(".*/(sheet1|one)\\.xml|.*/drawing1\\.xml")) {
                    assertThat(new String(without.get(part), StandardCharsets.UTF_8).replaceFirst("(<xdr:wsDr[^>]*)></xdr:wsDr>$", "$1/>")).as(workbook + " " + part).isEqualTo(new String(before.get(part), StandardCharsets.UTF_8));
                }
            }
            assertThat(without.keySet().stream().filter(part -> part.contains("gorge"))).as(workbook.toString()).isEmpty();
        }
    }

    @Test(dependsOnMethods = "everyPartOfThirtyWorkbooksStaysAsItIsButThoseThatNameTheNewOnes")
    public void otherProgramsOpenThemWithTheirSheetsAndOurs() throws Exception {
        List<Path> files;
        try (var all = Files.list(folder)) {
            List<Path> drawn = all.filter(file -> file.getFileName().toString().startsWith("again-") && file.toString().endsWith(".xlsx")).sorted().toList();
            files = IntStream.range(0, drawn.size()).filter(i -> i % TestSize.of(4, 1) == 0).mapToObj(drawn::get).toList();
        }
        List<Path> saved = Office.recalculated(files);
        PlainChart chart = chart(ROWS);
        for (int i = 0; i < saved.size(); i++) {
            try (InputStream in = Files.newInputStream(saved.get(i)); XSSFWorkbook book = new XSSFWorkbook(in)) {
                assertThat(book.getSheet("Summary")).as(files.get(i).toString()).isNotNull();
                assertThat(book.getSheet("Summary").getDrawingPatriarch().getCharts()).as(files.get(i).toString()).isNotEmpty();
                String name = files.get(i).toString().contains("names of ours") ? "march series 2" : "march series";
                for (String series : chart.plan().series()) {
                    for (int row = 0; row < ROWS.rowCount(); row++) {
                        Cell cell = HelperCells.cell(book.getSheet(name), series, row);
                        assertThat(cell.getCachedFormulaResultType() == org.apache.poi.ss.usermodel.CellType.NUMERIC).isEqualTo(chart.data().column(series).isPresent(row));
                    }
                }
                if (book.getSheet("The figures") != null) {
                    assertThat(book.getSheet("Summary").getRow(0).getCell(1).getNumericCellValue()).isEqualTo(936);
                }
            } finally {
                Files.delete(saved.get(i));
            }
        }
    }

    @Test
    public void formulasReadTheCellsOfTheWorkbookItself() throws Exception {
        Office.require();
        Path file = workbook("own cells.xlsx", book -> { });
        Table own = Table.of("generation", new Source(file.toString(), new int[] {4, 5, 6}, Optional.of(new Source.OfSheet(file, "The figures", new int[] {1, 2}))), ROWS.columns());
        Path drawn = Files.write(folder.resolve("own cells drawn.xlsx"), drawn(file, Page.of(chart(own))));
        try (InputStream in = Files.newInputStream(drawn); XSSFWorkbook book = new XSSFWorkbook(in)) {
            assertThat(book.getSheet("generation")).isNull();
            assertThat(HelperCells.cell(book.getSheet("march series"), "above", 1).getCellFormula()).isEqualTo("IF('The figures'!C5>=goal,'The figures'!C5,NA())");
            book.getSheet("The figures").getRow(3).getCell(2).setCellValue(395);
            try (OutputStream out = Files.newOutputStream(drawn)) {
                book.write(out);
            }
        }
        Path saved = Office.recalculated(drawn);
        try (InputStream in = Files.newInputStream(saved); XSSFWorkbook book = new XSSFWorkbook(in)) {
            assertThat(HelperCells.cell(book.getSheet("march series"), "above", 0).getNumericCellValue()).isEqualTo(395);
        } finally {
            Files.delete(saved);
        }
    }

    @Test
    public void rowsToComeAreTakenInWhereTheLinesBelowAreFreeAndRefusedElsewhere() throws Exception {
        Office.require();
        Path file = workbook("two ranges.xlsx", book -> {
            fill(book.getSheet("The figures"), 20, 1);
            book.getSheet("The figures").getRow(21).getCell(2).setCellValue(1000);
            book.getSheet("The figures").createRow(30).createCell(2).setCellValue(7);
        });
        Source.OfSheet columns = new Source.OfSheet(file, "The figures", new int[] {1, 2});
        Table upper = Table.of("upper", new Source(file.toString(), new int[] {4, 5, 6}, Optional.of(columns)), ROWS.columns());
        Table lower = Table.of("lower", new Source(file.toString(), new int[] {22, 23, 24}, Optional.of(columns)), List.of(ROWS.column("station"), Column.numbers("mwh", 1000, 400, 386)));
        Options options = Options.STANDARD.into(file).spare(4, OptionalInt.empty());
        List<Page> pages = List.of(Page.of(chart(upper)), Page.of(Chart.of("station", Columns.of("mwh")).named("other").over(lower, Settings.NONE)));
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        Engines.draw(pages, "xlsx", options, out);
        Path drawn = Files.write(folder.resolve("two ranges drawn.xlsx"), out.toByteArray());
        try (InputStream in = Files.newInputStream(drawn); XSSFWorkbook book = new XSSFWorkbook(in)) {
            Row added = book.getSheet("The figures").createRow(6);
            added.createCell(1).setCellValue("New Weir");
            added.createCell(2).setCellValue(500);
            try (OutputStream again = Files.newOutputStream(drawn)) {
                book.write(again);
            }
        }
        Path saved = Office.recalculated(drawn);
        try (InputStream in = Files.newInputStream(saved); XSSFWorkbook book = new XSSFWorkbook(in)) {
            assertThat(HelperCells.cell(book.getSheet("march series"), "above", 3).getNumericCellValue()).isEqualTo(500);
            assertThat(HelperCells.cell(book.getSheet("other series"), "value", 0).getNumericCellValue()).isEqualTo(1000);
            assertThat(book.getSheet("march rows").getRow(SheetLayout.SHOWN_AS - 1).getCell(0).getStringCellValue()).isEqualTo("OK");
        } finally {
            Files.delete(saved);
        }
        assertThatThrownBy(() -> Engines.draw(pages, "xlsx", Options.STANDARD.into(file).spare(6, OptionalInt.empty()), new ByteArrayOutputStream())).isInstanceOf(BadInput.class)
                .hasMessageContaining("row 31 of the sheet 'The figures' holds something where rows are to come below 'lower'; free it, or leave room for fewer rows");
    }

    /** Texts that look like pieces of a sheet's XML. */
    @Test
    public void textsOfCellsAreNoMarkup() throws Exception {
        String odd = "dxfId=\"99\" tabSelected=\"1\" r:id=\"rId1\" \"rId1\" s=\"7\"";
        Path file = workbook("odd texts.xlsx", book -> { });
        Path drawn = Files.write(folder.resolve("odd texts drawn.xlsx"), drawn(file, Page.of(chart(Table.of("generation", Column.texts("station", odd, "b"), Column.numbers("mwh", 1, 2))))));
        try (InputStream in = Files.newInputStream(drawn); XSSFWorkbook book = new XSSFWorkbook(in)) {
            assertThat(book.getSheet("generation").getRow(1).getCell(0).getStringCellValue()).isEqualTo(odd);
            assertThat(book.getSheet("march").getDrawingPatriarch().getCharts()).hasSize(1);
        }
    }

    @Test
    public void cellsThatHadToBeReadAreCopiedAndTold() throws Exception {
        Path file = workbook("read cells.xlsx", book -> { });
        Table read = Table.of("generation", new Source(file.toString(), new int[] {4, 5, 6}, Optional.of(new Source.OfSheet(file, "The figures", new int[] {1, -1}))), ROWS.columns());
        List<String> told = new ArrayList<>();
        Engines.draw(List.of(Page.of(chart(read))), new WorkbookEngine(), "xlsx", Options.STANDARD.into(file), new ByteArrayOutputStream(), told::add);
        assertThat(told).containsExactly("'generation': its cells are copied, as not all of 'mwh' are figures on the sheet, so edits on the sheet 'The figures' are not followed");
        Table gaps = Table.of("generation", new Source(file.toString(), new int[] {4, 6, 7}, Optional.of(new Source.OfSheet(file, "The figures", new int[] {1, 2}))), ROWS.columns());
        told.clear();
        Engines.draw(List.of(Page.of(chart(gaps))), new WorkbookEngine(), "xlsx", Options.STANDARD.into(file), new ByteArrayOutputStream(), told::add);
        assertThat(told).containsExactly("'generation': its cells are copied, as there are blank rows between them, so edits on the sheet 'The figures' are not followed");
    }

    /** A workbook with one part left out, or changed. */
    private Path damaged(String name, String part, Optional<String> instead) throws IOException {
        Path file = workbook(name, book -> { });
        Map<String, byte[]> parts = parts(file);
        try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(file))) {
            for (Map.Entry<String, byte[]> each : parts.entrySet()) {
                if (!each.getKey().equals(part) || instead.isPresent()) {
                    zip.putNextEntry(new ZipEntry(each.getKey()));
                    zip.write(each.getKey().equals(part) ? instead.get().getBytes(StandardCharsets.UTF_8) : each.getValue());
                }
            }
        }
        return file;
    }

    @Test
    public void damagedWorkbookIsRefusedWithItsPart() throws Exception {
        Page page = Page.of(chart(ROWS)).at(SheetAnchor.parse("Summary!B4"));
        assertThatThrownBy(() -> drawn(damaged("a.xlsx", "xl/worksheets/sheet1.xml", Optional.empty()), page)).isInstanceOf(BadInput.class)
                .hasMessageContaining("is no workbook that can be drawn into: it has no part 'xl/worksheets/sheet1.xml'");
        assertThatThrownBy(() -> drawn(damaged("b.xlsx", "xl/worksheets/sheet1.xml", Optional.of("<worksheet/>junk")), page)).isInstanceOf(BadInput.class)
                .hasMessageContaining("is no workbook that can be drawn into: its part 'xl/worksheets/sheet1.xml' is damaged");
        assertThatThrownBy(() -> drawn(damaged("c.xlsx", "xl/workbook.xml", Optional.of("<workbook><sheets>")), page)).hasMessageContaining("its part 'xl/workbook.xml' is damaged");
        assertThatThrownBy(() -> drawn(damaged("d.xlsx", "xl/styles.xml", Optional.of("<!DOCTYPE x [<!ENTITY e SYSTEM 'file:///etc/hostname'>]><x>&e;</x>")), page)).hasMessageContaining("its part 'xl/styles.xml' is damaged");
        assertThatThrownBy(() -> drawn(damaged("e.xlsx", "xl/workbook.xml", Optional.of("<workbook/>")), page)).hasMessageContaining("it has no list of sheets");
    }

    @Test
    public void signedOrLockedWorkbookIsDrawnIntoWithAWarning() throws IOException {
        Path locked = workbook("locked.xlsx", book -> book.lockStructure());
        Path signed = damaged("signed.xlsx", "_rels/.rels", Optional.of(new String(parts(workbook("plain.xlsx", book -> { })).get("_rels/.rels"), StandardCharsets.UTF_8).replace("</Relationships>",
                "<Relationship Id=\"rIdS\" Type=\"http://schemas.openxmlformats.org/package/2006/relationships/digital-signature/origin\" Target=\"_xmlsignatures/origin.sigs\"/></Relationships>")));
        for (Path file : List.of(locked, signed)) {
            List<String> told = new ArrayList<>();
            Engines.draw(List.of(Page.of(chart(ROWS))), new WorkbookEngine(), "xlsx", Options.STANDARD.into(file), new ByteArrayOutputStream(), told::add);
            assertThat(told).hasSize(1).first().asString().startsWith(file.toString()).contains(file.equals(signed) ? "is signed" : "its structure is locked");
        }
    }

    @Test
    public void workbookThatUnpacksToMoreThanIsReadIsRefused() throws Exception {
        Path file = workbook("large.xlsx", book -> { });
        Map<String, byte[]> parts = parts(file);
        long most = Bound.HOST_BYTES.count() - parts.values().stream().mapToLong(part -> part.length).sum();
        for (long more = most; more <= most + 1; more++) {
            try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(file))) {
                zip.setLevel(1);
                for (Map.Entry<String, byte[]> part : parts.entrySet()) {
                    zip.putNextEntry(new ZipEntry(part.getKey()));
                    zip.write(part.getValue());
                }
                zip.putNextEntry(new ZipEntry("large.bin"));
                byte[] piece = new byte[1 << 20];
                for (long left = more; left > 0; left -= piece.length) {
                    zip.write(piece, 0, (int) Math.min(left, piece.length));
                }
            }
            if (more == most) {
                assertThat(HostWorkbook.open(file).sheetNames()).contains("Summary");
            } else {
                assertThatThrownBy(() -> HostWorkbook.open(file)).isInstanceOf(BadInput.class).hasMessageContaining("unpacks to more than " + Bound.HOST_BYTES.count() + " bytes");
            }
        }
    }

    @Test
    public void whatCannotBeDrawnIntoIsRefused() throws Exception {
        Path file = workbook("refused.xlsx", book -> { });
        Page page = Page.of(chart(ROWS));
        assertThatThrownBy(() -> drawn(file, page.at(SheetAnchor.parse("Sumary!B4")))).isInstanceOf(BadInput.class).hasMessageContaining("chart 'march': there is no sheet 'Sumary' with cells in ").hasMessageContaining("Did you mean 'Summary'?");
        assertThatThrownBy(() -> drawn(folder.resolve("none.xlsx"), page)).hasMessageContaining("there is no such file");
        Path text = Files.writeString(folder.resolve("text.xlsx"), "a,b");
        assertThatThrownBy(() -> drawn(text, page)).hasMessageContaining("is no workbook of the kind .xlsx or .xlsm");
        PlainChart bars = Gallery.all().stream().map(Gallery.Example::plain).filter(chart -> chart.drawing() instanceof dev.trellisgorge.chart.TextCells).findFirst().orElseThrow();
        assertThatThrownBy(() -> drawn(file, Page.of(bars).at(SheetAnchor.parse("Summary!B4")))).hasMessageContaining("stands in cells, which are somebody else's on 'Summary'");
        assertThatThrownBy(() -> SheetAnchor.parse("B4")).hasMessageContaining("'B4' is no place on a sheet; write SHEET!CELL");
        assertThatThrownBy(() -> SheetAnchor.parse("S!B4:A1")).hasMessageContaining("the first one before the last");
        assertThat(SheetAnchor.parse("'It''s'!$B$4:J20")).isEqualTo(new SheetAnchor("It's", 1, 3, 9, 17));
    }
}
