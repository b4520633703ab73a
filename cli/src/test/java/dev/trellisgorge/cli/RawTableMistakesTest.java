package dev.trellisgorge.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What {@code gorge} says to mistakes in raw tables, steps, expressions and the brief's own text: where, what, and what would be right. */
public class RawTableMistakesTest extends AtDesk {
    private static final String DATA = "station,month,mwh\nWeir,2031-03-01,520\nLeat,2031-03-01,400\n";
    private static final String METERS = "station,meter,since\nWeir,M1,2029\nWeir,M2,2030\n";
    private static final String CHARTS = "charts:\n  c: {pattern: columns, category: station, value: mwh}\n";
    private static final Pattern FILE = Pattern.compile("march\\.\\w+");

    /** What is said is all that is said, or how it starts where an explanation of what is taken follows. */
    private void assertRefused(String brief, String message) {
        desk.with("b.yaml", brief);
        List<String> before = desk.files();
        Desk.Answer answer = desk.type("draw", "DESK/b.yaml", "-o", "DESK/o.svg", "--allow", "database=jdbc:nothing", "--allow", "environment=GORGE_NO_SUCH");
        assertThat(answer.code()).as(brief).isEqualTo(2);
        assertThat(answer.out()).isEmpty();
        assertThat(answer.err().replaceAll(" An expression takes .* EXTRACT\\.", "")).isEqualTo("gorge: " + message + "\n");
        assertThat(desk.files()).isEqualTo(before);
    }

    @DataProvider
    Object[][] tables() {
        return new Object[][] {
            {"{file: march.csv, kinds: {mwh: number}}", DATA + "Pool,2031-03-01,about 4\nMill,2031-03-01,n/a\n", "DESK/march.csv:4, column 'mwh': 'about 4' is no number"},
            {"{file: march.csv, kinds: {month: date}}", DATA + "Pool,31.03.2031,4\n",
                "DESK/march.csv:4, column 'month': '31.03.2031' is no date; write 2031-03-31, or say how dates are written with 'dates'"},
            {"{file: march.csv, kinds: {month: truth}}", DATA,
                "DESK/march.csv:2, column 'month': '2031-03-01' is neither true nor false\ngorge: DESK/march.csv:3, column 'month': '2031-03-01' is neither true nor false"},
            {"{file: march.csv, kinds: {mhw: number}}", DATA, "DESK/march.csv:1: there is no column 'mhw', whose kind is said. Did you mean 'mwh'?"},
            {"{file: march.csv, kinds: {mwh: figure}}", DATA, "DESK/b.yaml:2:46: 'mwh' can't be 'figure'. Known here: 'number', 'text', 'date', 'truth'."},
            {"{file: march.csv, sheet: March}", DATA,
                "DESK/b.yaml:2:33: 'sheet' says nothing of delimited text. Known here: 'kinds', 'locale', 'decimal', 'dates', 'times-of-day', 'missing', 'total-row', 'delimiter', "
                    + "'charset', 'header-row'."},
            {"{file: march.json, delimiter: \";\"}", "[]",
                "DESK/b.yaml:2:34: 'delimiter' says nothing of JSON. Known here: 'kinds', 'locale', 'decimal', 'dates', 'times-of-day', 'missing', 'total-row', 'at'.\ngorge: DESK/march.json: "
                    + "has no row"},
            {"{file: march.csv, charset: UFT-8}", DATA, "DESK/b.yaml:2:42: there is no charset 'UFT-8'. Did you mean 'UTF-8'?"},
            {"{file: march.csv, decimal: \"x\"}", DATA, "DESK/b.yaml:2:42: 'decimal': must be '.' or ','"},
            {"{file: march.csv, locale: xx-YY}", DATA, "DESK/b.yaml:2:41: there is no locale 'xx-YY'; write a language and a country such as de-DE or en-GB"},
            {"{file: march.csv, locale: fa-IR}", DATA, "DESK/b.yaml:2:41: 'locale': writes figures with '\u066B' before decimals, and only '.' and ',' are read"},
            {"{file: march.csv, dates: dd.mm.bbbb}", DATA, "DESK/b.yaml:2:40: 'dd.mm.bbbb' is no date pattern; write one such as dd.MM.yyyy"},
            {"{file: march.csv, header-row: 0}", DATA, "DESK/b.yaml:2:45: 'header-row': must be a line, 1 for the first"},
            {"{file: march.csv, header-row: 9}", DATA, "DESK/march.csv: ends above line 9, where the header is to stand"},
            {"{file: march.csv, total-row: drop}", DATA, "DESK/march.csv: the last row is to be dropped as a total, and its figures are not the sums of the rows above: "
                + "there are too few rows above it"},
            {"{file: march.csv, delimiter: \"||\"}", DATA, "DESK/b.yaml:2:44: 'delimiter': must be one character, such as ';', and no letter, digit, quote or end of line"},
            {"{file: march.csv, delimeter: \";\"}", DATA, "DESK/b.yaml:2:33: unknown key 'delimeter'. Did you mean 'delimiter'?"},
            {"march.csv", DATA + "\"Pool,2031-03-01,4\n", "DESK/march.csv:4: a quote is opened in this row and never closed"},
            {"march.csv", "station,,mwh\nWeir,x,5\n", "DESK/march.csv:1: column 2 has no name in the header"},
            {"march.csv", ",,\nWeir,x,5\n",
                "DESK/march.csv:1: column 1 has no name in the header\ngorge: DESK/march.csv:1: column 2 has no name in the header\ngorge: DESK/march.csv:1: column 3 has "
                    + "no name in the header"},
            {"march.json", "[{\"station\": \"Weir\", \"mwh\": [5]}]", "DESK/march.json:1:29: 'mwh' holds an array, and a cell holds one value; take it apart first"},
            {"march.json", "[{\"station\": \"Weir\",\n \"mwh\": 5, \"mwh\": 6}]", "DESK/march.json:2:17: the key 'mwh' stands here a second time"},
            {"march.json", "[{\"station\": \"Weir\", \"mwh\": 5}", "DESK/march.json:1:31: is no JSON: it ends too early"},
            {"{file: march.json, kinds: {mwh: date}}", "[{\"station\": \"Weir\", \"mwh\": 5}]", "DESK/march.json, column 'mwh': holds a number a row, and is said to hold a date"},
            {"{file: march.json, kinds: {mwh: number}}", "[{\"station\": \"Weir\", \"mwh\": \"about 4\"}]", "DESK/march.json:1, column 'mwh': 'about 4' is no number"},
            {"march.json", "5", "DESK/march.json:1:1: a table is an array of objects, an object of arrays, or an object a line"},
            {"march.json", "{\"station\": [\"Weir\", \"Leat\"], \"mwh\": [5]}", "DESK/march.json:1:40: 'mwh' has 1 cell, and 'station' 2"},
            {"march.ndjson", "{\"station\": \"Weir\", \"mwh\": 5}\nLeat 6\n",
                "DESK/march.ndjson:2:1: is no JSON: an unexpected character or word; texts stand in double quotes"},
            {"march.json", "", "DESK/march.json: is empty; a table is an array of objects, an object of arrays, or an object a line"},
            {"march.json", "[]", "DESK/march.json: has no row"},
            {"march.xlsx", DATA, "DESK/march.xlsx: is no workbook that can be read: it is not packed as one; is it a text under the ending of a workbook?"},
            {"march.ods", DATA, "DESK/march.ods: is no spreadsheet that can be read: it is no ZIP archive (zip END header not found)"},
            {"{jdbc: \"jdbc:nothing:here\", query: SELECT 1}", DATA, "DESK/b.yaml:2:50: table 'march': no driver on the class path takes 'jdbc:nothing:here'"},
            {"{jdbc: \"jdbc:nothing:here\", query: SELECT 1, user: u, password-variable: GORGE_NO_SUCH}", DATA,
                "DESK/b.yaml:2:88: 'password-variable': there is no environment variable 'GORGE_NO_SUCH'"},
            {"{jdbc: \"jdbc:nothing:here\"}", DATA, "DESK/b.yaml:2:15: the key 'query' is missing"},
            {"[march.csv]", DATA, "DESK/b.yaml:2:15: 'march' must be one value, not a list"}};
    }

    @Test(dataProvider = "tables")
    public void tableThatCantBeReadIsToldWithItsLine(String source, String data, String message) {
        Matcher named = FILE.matcher(source);
        desk.with(named.find() ? named.group() : "march.csv", data);
        assertRefused("brief: 1\ndata: {march: " + source + "}\n" + CHARTS, message);
    }

    @Test
    public void bytesOfAnotherCharsetAreToldWithTheirLineAndReadWhenItIsSaid() throws IOException {
        Files.write(desk.path("march.csv"), (DATA + "M\u00FChle,2031-03-01,4\n").getBytes(StandardCharsets.ISO_8859_1));
        assertRefused("brief: 1\ndata: {march: march.csv}\n" + CHARTS, "DESK/march.csv:4: has bytes that are no text in UTF-8; save the file as UTF-8, or say its 'charset'");
        desk.with("b.yaml", "brief: 1\ndata: {march: {file: march.csv, charset: windows-1252}}\n" + CHARTS);
        assertThat(desk.type("series", "DESK/b.yaml").out()).contains("M\u00FChle");
    }

    @Test
    public void sheetsAndRangesOfWorkbooksAreNamed() {
        desk.with("march.csv", DATA).with("a.yaml", "brief: 1\ndata: {march: march.csv}\n" + CHARTS);
        assertThat(desk.type("draw", "DESK/a.yaml", "-o", "DESK/march.xlsx").err()).isEmpty();
        String brief = "brief: 1\ndata: {march: {file: march.xlsx, sheet: %s}}\n" + CHARTS;
        assertRefused(brief.formatted("March"), "DESK/march.xlsx: there is no sheet 'March'. Did you mean 'march'?");
        assertRefused(brief.formatted("march, range: B3 to D9"), "DESK/march.xlsx: there is no range 'B3 to D9'; write cells such as B3:F40, whole columns such as B:F, or a name that the workbook has. Known here: none.");
        assertRefused(brief.formatted("march, range: 'X90:Z99'"), "DESK/march.xlsx: no cell stands in X90:Z99; a table starts with a header row");
        assertRefused(brief.formatted("march, header-row: 99"), "DESK/march.xlsx: row 99 is empty, and the header is to stand there");
        assertRefused(brief.formatted("march, kinds: {station: number}"), "DESK/march.xlsx, cell A2, column 'station': 'Weir' is no number\n"
                + "gorge: DESK/march.xlsx, cell A3, column 'station': 'Leat' is no number");
    }

    @DataProvider
    Object[][] steps() {
        return new Object[][] {
            {"join: {table: metres, on: station}", "DESK/b.yaml:5:19: there is no table 'metres' in 'data'. Did you mean 'meters'?"},
            {"join: {table: meters, on: statoin}",
                "DESK/b.yaml:5:31: table 'march' has no column 'statoin'. Did you mean 'station'?\ngorge: DESK/b.yaml:5:31: table 'meters' has no column 'statoin'. Did "
                    + "you mean 'station'?"},
            {"join: {table: meters, on: station}",
                "DESK/b.yaml:5:5: DESK/march.csv:2: 'Weir' stands on 2 rows of 'meters' (DESK/meters.csv:2 and DESK/meters.csv:3), so the join would double this row. "
                    + "Total that table first, by a 'shape' of its own, or ask for it with 'many'."},
            {"join: {table: meters, on: {mwh: meter}, many: true}", "DESK/b.yaml:5:5: DESK/march.csv: the key 'mwh' is a number here, and 'meter' of 'meters' a text"},
            {"period: {of: station, unit: month}", "DESK/b.yaml:5:5: DESK/march.csv: there is a column 'month' already; give the period another name"},
            {"period: {of: month, unit: fortnight}", "DESK/b.yaml:5:31: 'unit' can't be 'fortnight'. Known here: 'day', 'week', 'month', 'quarter', 'year'."},
            {"period: {of: month, unit: month, as: m, by: [station]}", "DESK/b.yaml:5:49: 'by': splits the rows that 'fill: true' fills, and nothing is filled"},
            {"total: {by: [month], sum: [station]}", "DESK/b.yaml:5:5: DESK/march.csv, column 'station': holds a text a row; can't add up texts"},
            {"sort: {by: mwh}",
                "DESK/b.yaml:5:5: there is no step 'sort'. Known here: 'keep', 'add', 'join', 'total', 'order', 'top', 'period', 'previous', 'pivot', 'unpivot', "
                    + "'rename', 'choose'."},
            {"{keep: mwh > 1, top: 2}",
                "DESK/b.yaml:5:5: a step is one of keep, add, join, total, order, top, period, previous, pivot, unpivot, rename, choose, and has its one key"},
            {"derive: {twice: mwh * 2}", "DESK/b.yaml:5:5: the step 'derive' is called 'add' now"},
            {"add: {mwh: mwh * 2}", "DESK/b.yaml:5:5: DESK/march.csv: there is a column 'mwh' already; give the added one another name"},
            {"top: 0", "DESK/b.yaml:5:10: 'top': must be a whole number from 1 up"},
            {"rename: {mwh: station}", "DESK/b.yaml:5:5: DESK/march.csv: two columns are named 'station'"},
            {"choose: [station, mhw]", "DESK/b.yaml:5:23: table 'march' has no column 'mhw'. Did you mean 'mwh'?"},
            {"unpivot: {columns: [station, mwh]}",
                "DESK/b.yaml:5:5: DESK/march.csv: columns that become one are of one kind: 'station' holds a text a row, and 'mwh' a number"},
            {"keep: mwh + 1", "DESK/b.yaml:5:5: DESK/march.csv: a condition is needed, and 'mwh + 1' is a number"},
            {"keep: mwh > 1000", "DESK/b.yaml:5:5: no row is left of the 2 before this step"},
            {"previous: {of: mwh, period: station}", "DESK/b.yaml:5:5: DESK/march.csv:2, column 'station': 'Weir' is no date or period, so there is none before it"},
            {"keep: mwh >", "DESK/b.yaml:5:11: 'mwh >' is not complete (within { } a text with a comma stands in quotes)."}};
    }

    @Test(dataProvider = "steps")
    public void stepThatCantBeTakenIsToldWithItsPlace(String step, String message) {
        desk.with("march.csv", DATA).with("meters.csv", METERS);
        assertRefused("brief: 1\ndata: {march: march.csv, meters: meters.csv}\nsettings: {goal: 400}\nshape:\n  - " + step + "\n" + CHARTS, message);
    }

    @DataProvider
    Object[][] expressions() {
        return new Object[][] {
            {"mwh +", "DESK/b.yaml:5:51: 'mwh +' is not complete (within { } a text with a comma stands in quotes)."},
            {"SQUARE(mwh)",
                "DESK/b.yaml:5:51: there is no function 'SQUARE' here. Known here: 'COALESCE', 'NULLIF', 'ABS', 'LEAST', 'GREATEST', 'FLOOR', 'ROUND', 'EXTRACT'."},
            {"SUM(mwh)",
                "DESK/b.yaml:5:51: there is no function 'SUM' here. Known here: 'COALESCE', 'NULLIF', 'ABS', 'LEAST', 'GREATEST', 'FLOOR', 'ROUND', 'EXTRACT'. Rows are "
                    + "totalled by a 'total' step."},
            {"station + 1", "DESK/march.csv: 'station' is a text, not a number (in: station + 1)"},
            {":gaol", "DESK/b.yaml:5:51: there is no setting ':gaol'. Did you mean 'goal'?"},
            {"CASE WHEN month > DATE '2031-13-01' THEN 1 END", "DESK/b.yaml:5:51: '2031-13-01' is no date; write DATE '2031-03-01'"},
            {"CASE WHEN mwh = NULL THEN 1 END", "DESK/b.yaml:5:51: '\"mwh\" = NULL' is never true, as nothing equals a missing cell; write IS NULL or IS NOT NULL"},
            {"(SELECT 1)", "DESK/b.yaml:5:51: '(SELECT 1)' is not taken here."},
            {"mwh; DROP TABLE x", "DESK/b.yaml:5:51: ';' is not expected at character 4 of 'mwh; DROP TABLE x'."},
            {"mwh || 'a", "DESK/b.yaml:5:51: 'mwh || 'a' has a quote that is never closed, or a character that no expression has."},
            {"station = North", "DESK/b.yaml:5:51: table 'march' has no column 'North'. Known here: 'station', 'month', 'mwh'. A text stands in single quotes."},
            {"CASE WHEN station LIKE 'W%' THEN 1 END", "DESK/b.yaml:5:51: '\"station\" LIKE 'W%'' is not taken here."},
            {"SUM(mwh) OVER ()", "DESK/b.yaml:5:51: 'SUM(\"mwh\") OVER ()' is not taken here."}};
    }

    @Test(dataProvider = "expressions")
    public void expressionThatIsNoneIsToldWithItsPlace(String expression, String message) {
        desk.with("march.csv", DATA);
        assertRefused("brief: 1\ndata: {march: march.csv}\nsettings: {goal: 400}\ncharts:\n  c: {pattern: columns, category: station, value: \"" + expression + "\"}\n", message);
    }

    @DataProvider
    Object[][] briefs() {
        String start = "brief: 1\ndata: {march: march.csv}\n";
        return new Object[][] {
            {"", "DESK/b.yaml: is empty; a brief starts with 'brief: 1'"},
            {"- brief: 1\n", "DESK/b.yaml:1:1: is no brief; a brief is a mapping of keys to values that starts with 'brief: 1'"},
            {start.replace("1", "2") + CHARTS, "DESK/b.yaml:1:8: this program reads briefs of version 1, not '2'"},
            {start + "data: {march: march.csv}\n" + CHARTS, "DESK/b.yaml:3:1: the key 'data' stands here a second time"},
            {"brief: 1\ndata: {}\n" + CHARTS, "DESK/b.yaml:2:7: 'data' names no table"},
            {start + "charts: {}\n", "DESK/b.yaml:3:9: 'charts' names no chart"},
            {start + "shape: " + "[".repeat(150) + "]".repeat(150) + "\n" + CHARTS, "DESK/b.yaml:3:107: stands in more than 100 lists and mappings"},
            {start + "shape: " + "[".repeat(90_000), "DESK/b.yaml:3:107: stands in more than 100 lists and mappings"},
            {start + "shape:\n  - &k {keep: mwh > 0}\n" + "  - *k\n".repeat(60) + CHARTS, "DESK/b.yaml: repeats more than 50 lists and mappings by aliases; write them out"},
            {start + "charts: &a\n  c: *a\n", "DESK/b.yaml:3:9: the key 'pattern' is missing"},
            {start + CHARTS + "# " + "x".repeat(4_000_000), "DESK/b.yaml: has more than the 3145728 characters that are read; data stands in files of its own"},
            {start + CHARTS + "board: {tiles: [d]}\n", "DESK/b.yaml:5:17: there is no chart 'd'. Did you mean 'c'?"},
            {start + "charts:\n  ../c: {pattern: columns, category: station, value: mwh}\n",
                "DESK/b.yaml:4:3: '../c' can't name a chart; files and sheets are called by it, so use letters, digits, blanks, and _ . -"},
            {start + "settings: {goal: 1e999}\n" + CHARTS, "DESK/b.yaml:3:18: 'goal' is larger than a number can be"}};
    }

    @Test(dataProvider = "briefs")
    public void briefThatIsNoneIsToldWithItsPlace(String brief, String message) {
        desk.with("march.csv", DATA);
        assertRefused(brief, message);
    }

    @Test
    public void whatIsGivenOnTheCommandLineIsCheckedToo() {
        desk.with("march.csv", DATA).with("b.yaml", "brief: 1\ndata: {march: march.csv}\nsettings: {goal: 400}\n" + CHARTS);
        String[][] typed = {
            {"--set", "gaol=1", "--set: there is no setting ':gaol'. Did you mean 'goal'?"}, {"--set", "goal=high", "--set: 'high' is no number; write goal=380"},
            {"--set", "goal", "--set: 'goal' is no NAME=VALUE"}, {"--data", "april=DESK/march.csv", "--data: there is no table 'april' in 'data'. Known here: 'march'."},
            {"--data", "march=DESK/april.csv", "DESK/april.csv: there is no such file"}};
        for (String[] each : typed) {
            assertThat(desk.type("series", "DESK/b.yaml", each[0], each[1])).isEqualTo(new Desk.Answer(2, "", "gorge: " + each[2] + "\n"));
        }
        assertThat(desk.type("draw", "DESK/b.yaml", "-o", "DESK/o.svg", "--each", "statoin")).isEqualTo(new Desk.Answer(2, "",
                "gorge: --each: table 'march' has no column 'statoin'. Did you mean 'station'?\n"));
        assertThat(desk.files()).containsExactly("b.yaml", "march.csv");
    }
}
