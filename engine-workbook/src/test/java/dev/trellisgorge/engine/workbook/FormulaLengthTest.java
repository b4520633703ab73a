package dev.trellisgorge.engine.workbook;

import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.number;
import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.chart.Size;
import dev.trellisgorge.engine.Engines;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Bands;
import dev.trellisgorge.pattern.Breakdown;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Columns;
import dev.trellisgorge.pattern.Dial;
import dev.trellisgorge.pattern.Diverging;
import dev.trellisgorge.pattern.Highlight;
import dev.trellisgorge.pattern.Marker;
import dev.trellisgorge.pattern.Pattern;
import dev.trellisgorge.pattern.Progress;
import dev.trellisgorge.pattern.Range;
import dev.trellisgorge.pattern.Ring;
import dev.trellisgorge.pattern.Split;
import dev.trellisgorge.pattern.TextBar;
import dev.trellisgorge.pattern.ToTarget;
import dev.trellisgorge.pattern.Tornado;
import dev.trellisgorge.pattern.Variance;
import dev.trellisgorge.pattern.Waterfall;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.stream.Stream;
import org.apache.poi.ss.usermodel.Sheet;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;
import org.testng.annotations.Test;

/** The formulas of helper sheets beside those that a careful modeller writes by hand for the same cells. */
public class FormulaLengthTest {
    private static final Path PAGE = Path.of("..", "docs", "formulas.md");
    private static final double MEDIAN = 1.5;
    private static final double WORST = 2.5;
    private static final java.util.regex.Pattern FUNCTION = java.util.regex.Pattern.compile("[A-Z]+\\(");
    private static final Settings SETTINGS = Settings.of("goal", 4);
    private static final Table ROWS = Table.of("t", Column.texts("n", "a", "b", "c", "d"), Column.numbers("v", 3, -2, 6, 7), Column.numbers("w", 5, 4, 5, 20),
            Column.numbers("low", 1, 2, 3, 1), Column.numbers("high", 4, 6, 7, 2), Column.texts("k", "start", "change", "change", "total"));
    private static final Table ONE = Table.of("one", Column.numbers("v", 3), Column.numbers("w", 5));

    /** A chart, which of its rows is looked at, and its columns as they are written by hand. */
    private record Compared(String title, PlainChart chart, int row, Map<String, String> byHand) {
    }

    /** A formula of ours beside one by hand. */
    private record Pair(String chart, String column, String ours, String byHand) {
        double ratio() {
            return (double) ours.length() / byHand.length();
        }
    }

    private static Compared rows(String title, Pattern pattern, String... byHand) {
        return of(title, Chart.of("n", pattern).over(ROWS, SETTINGS), 1, byHand);
    }

    private static Compared of(String title, PlainChart chart, int row, String... byHand) {
        Map<String, String> columns = new LinkedHashMap<>();
        for (int i = 0; i < byHand.length; i += 2) {
            columns.put(byHand[i], byHand[i + 1]);
        }
        return new Compared(title, chart, row, columns);
    }

    private static List<Compared> all() {
        return List.of(
                rows("columns, split", Columns.of("v").classify(Split.atSetting("goal")), "below", "IF(t!B3<goal,t!B3,NA())", "above", "IF(t!B3>=goal,t!B3,NA())"),
                rows("columns, bands", Columns.of("v").classify(Bands.at(0, 4)), "band 1", "IF(t!B3<0,t!B3,NA())", "band 2", "IF(AND(t!B3>=0,t!B3<4),t!B3,NA())", "band 3", "IF(t!B3>=4,t!B3,NA())"),
                rows("columns, highlight", Columns.of("v").classify(Highlight.largest(2)), "rest", "IF(D8>2,t!B3,NA())", "highlighted", "IF(D8<=2,t!B3,NA())"),
                rows("columns, cap", Columns.of("w").cap(number(1)), "body", "t!C3-IFERROR(C8,0)", "cap", "IF(t!C3>0,MIN(1,t!C3),NA())"),
                rows("to-target", ToTarget.of("v", "w"), "met", "MIN(t!B3,t!C3)", "remaining", "IF(t!B3<t!C3,t!C3-MAX(t!B3,0),NA())", "above", "IF(t!B3>t!C3,t!B3-t!C3,NA())", "attainment", "IFERROR(t!B3/t!C3,NA())"),
                rows("marker", Marker.of("v", "w"), "v", "t!B3", "w", "t!C3"),
                rows("progress", Progress.of("v", "w", new Progress.Band("low", 0.5), new Progress.Band("high", 0.5)), "position", "MIN(1,MAX(0,E8))", "attainment", "IF(t!C3>0,t!B3/t!C3,NA())"),
                rows("variance, another figure", Variance.of("v").against(column("w")), "value", "t!B3", "reference", "t!C3", "up", "IF(G8>0,G8,NA())", "down", "IF(G8<0,G8,NA())", "level", "IF(G8=0,G8,NA())", "change",
                        "IFERROR((B8-C8)/ABS(C8),NA())"),
                rows("variance, the row before", Variance.of("v"), "value", "t!B3", "reference", "t!B2", "change", "IFERROR((B8-C8)/ABS(C8),NA())"),
                rows("waterfall", Waterfall.of("v").closing("End"), "spacer", "MAX(MIN(L8,J8),0)", "rise", "IF(K8>=0,O8,NA())", "fall", "IF(K8<0,O8,NA())", "total", "IF(t!A3=\"End\",J8,NA())", "rise under", "IF(K8>=0,P8,NA())",
                        "fall under", "IF(K8<0,P8,NA())", "level", "J7+N(t!B3)", "movement", "IF(t!A3=\"End\",NA(),t!B3)", "lower end", "IF(ISNUMBER(K8),MIN(L8,J8),NA())", "upper end", "IF(ISNUMBER(K8),MAX(L8,J8),NA())",
                        "piece", "IF(N8>0,N8-MAX(M8,0),M8-N8)", "piece under", "IF(AND(M8<0,N8>0),M8,NA())"),
                rows("waterfall, kinds", Waterfall.of("v").kinds("k"), "start", "IF(t!F3=\"start\",t!B3,NA())", "subtotal", "IF(t!F3=\"subtotal\",J8,NA())", "total", "IF(t!F3=\"total\",J8,NA())", "movement",
                        "IF(t!F3=\"change\",t!B3,NA())", "level", "IF(t!F3=\"start\",t!B3,J7+N(K8))"),
                rows("breakdown", Breakdown.of("w"), "spacer", "MAX(I8,MIN(J8,0))", "part", "IF(J8>0,J8-MAX(I8,0),I8-J8)", "part under", "IF(AND(I8<0,J8>0),I8,NA())", "total", "IF(ROW()=7,L8,NA())", "given", "IF(ROW()>7,t!C2,NA())",
                        "level", "L8-M8", "level before", "G8+F8", "lower end", "MIN(G8,H8)", "upper end", "MAX(G8,H8)"),
                rows("tornado", Tornado.of("w", "high"), "left", "-t!C3", "right", "t!E3"),
                rows("diverging", Diverging.of("v"), "negative", "IF(t!B3<0,-t!B3,NA())", "positive", "IF(t!B3>0,t!B3,NA())"),
                rows("range", Range.of("low", "high"), "spacer", "MAX(E8,MIN(F8,0))", "span", "IF(F8>0,F8-MAX(E8,0),E8-F8)", "span under", "IF(AND(E8<0,F8>0),E8,NA())", "lower end", "t!D3", "upper end", "t!E3"),
                rows("text-bar", TextBar.of("v").per(number(0.5)), "bar", "IF(t!B3>=0,REPT(\"█\",D8),NA())", "glyphs", "ROUND(ABS(t!B3)/0.5,0)"),
                of("ring", Chart.of(Ring.of("v", "w")).over(ONE, SETTINGS), 0, "met", "MIN(one!A2,one!B2)", "remaining", "MAX(one!B2-one!A2,0)", "attainment", "IFERROR(one!A2/one!B2,NA())"),
                of("dial", Chart.of(Dial.of("v", -5, 10)).over(ONE, SETTINGS), 0, "below rest", "MIN(MAX(one!A2,-5),0)+5", "below fill", "-MIN(MAX(one!A2,-5),0)", "above fill", "MAX(MIN(one!A2,10),0)", "above rest", "10-D7"));
    }

    private static List<Pair> pairs(Compared compared) throws IOException {
        Path file = Files.createTempFile("formulas", ".xlsx");
        Engines.draw(List.of(Page.of(compared.chart())), file, Size.STANDARD);
        try (InputStream in = Files.newInputStream(file); XSSFWorkbook book = new XSSFWorkbook(in)) {
            Sheet sheet = book.getSheet("chart series");
            List<Pair> pairs = new ArrayList<>();
            compared.byHand().forEach((column, byHand) -> {
                pairs.add(new Pair(compared.title(), column, HelperCells.cell(sheet, column, compared.row()).getCellFormula(), byHand));
            });
            return pairs;
        } finally {
            Files.delete(file);
        }
    }

    private static long functions(String formula) {
        Matcher function = FUNCTION.matcher(formula);
        return Stream.iterate(function.find(), found -> found, found -> function.find()).count();
    }

    private static double median(List<Pair> pairs) {
        double[] ratios = pairs.stream().mapToDouble(Pair::ratio).sorted().toArray();
        return ratios[ratios.length / 2];
    }

    private static String page(List<Pair> pairs) {
        StringBuilder page = new StringBuilder("# Formulas of workbooks\n\nEach helper column of a workbook is a formula, in the shortest form that says the same: a cell is asked whether it is there only "
                + "where some cell of its column is missing, and what is absent (`#N/A`, which charts skip) is carried on by itself. Below, for every pattern, a formula of the second row of its helper sheet (of one figure, the only one) beside "
                + "the one that a careful modeller writes by hand for the same cell, over rows without a missing cell; with the characters and functions of both. The longer ones are so because texts are compared "
                + "with their capitals (`EXACT`), or because a total has no movement.\n\n");
        page.append(String.format(Locale.ROOT, "Of %d formulas the median has %.2f times the characters of the one by hand, and the longest %.2f times.%n", pairs.size(), median(pairs),
                pairs.stream().mapToDouble(Pair::ratio).max().orElseThrow()));
        page.append("\n| pattern | column | formula | by hand | characters | functions |\n|---|---|---|---|---|---|\n");
        String before = "";
        for (Pair pair : pairs) {
            page.append(String.format(Locale.ROOT, "| %s | %s | `%s` | `%s` | %d, %d | %d, %d |%n", pair.chart().equals(before) ? "" : pair.chart(), pair.column(), pair.ours(), pair.byHand(), pair.ours().length(),
                    pair.byHand().length(), functions(pair.ours()), functions(pair.byHand())));
            before = pair.chart();
        }
        return page.append("\nWritten by `FormulaLengthTest`, which also fails where a median is above 1.5 or one formula above 2.5 times; `-Dgorge.pages=write` writes the page anew.\n").toString().replace("\r\n", "\n");
    }

    @Test
    public void formulasAreAboutAsLongAsByHand() throws IOException {
        List<Pair> pairs = new ArrayList<>();
        for (Compared compared : all()) {
            pairs.addAll(pairs(compared));
        }
        String page = page(pairs);
        if ("write".equals(System.getProperty("gorge.pages"))) {
            Files.writeString(PAGE, page);
        }
        assertThat(median(pairs)).isLessThanOrEqualTo(MEDIAN);
        assertThat(pairs).allSatisfy(pair -> assertThat(pair.ratio()).as(pair.toString()).isLessThanOrEqualTo(WORST));
        assertThat(PAGE).content().isEqualTo(page);
    }
}
