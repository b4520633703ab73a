package dev.trellisgorge.cli;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.brief.Brief;
import dev.trellisgorge.engine.Engines;
import dev.trellisgorge.engine.Options;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.charset.StandardCharsets;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import java.util.zip.ZipOutputStream;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What is handed over: room for rows to come, who made it, a workbook that holds other sheets too, and settings that say what they are. */
public class DeliveryTest {
    private static final String BRIEF = """
            brief: 1
            data: {t: t.csv}
            settings:
              goal: {value: 0.5, format: "0%", unit: of all, meaning: what counts as much}
            charts:
              shares:
                pattern: columns
                category: n
                value: v
                rank: {by: v}
                classify: {split: {at: ":goal"}}
            """;
    private Desk desk;

    @BeforeMethod
    public void make() {
        desk = new Desk().with("b.yaml", BRIEF).with("t.csv", "n,v\na,0.25\nb,0.75\n");
    }

    @AfterMethod
    public void clean() {
        desk.close();
    }

    /** The parts of a workbook, as text. */
    private Map<String, String> parts(String name) throws IOException {
        Map<String, String> parts = new LinkedHashMap<>();
        try (ZipFile zip = new ZipFile(desk.path(name).toFile())) {
            for (ZipEntry part : Collections.list(zip.entries())) {
                parts.put(part.getName(), new String(zip.getInputStream(part).readAllBytes(), StandardCharsets.UTF_8));
            }
        }
        return parts;
    }

    /** A workbook with the table on the sheet t and a chart on the sheet Summary, as another program would save it. */
    private void host(String name) throws IOException {
        desk.with("host.yaml", "brief: 1\ndata: {t: t.csv}\ncharts: {Summary: {pattern: columns, category: n, value: v}}\n");
        assertThat(desk.type("draw", "DESK/host.yaml", "-o", "DESK/" + name).code()).isZero();
        Map<String, String> parts = parts(name);
        try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(desk.path(name)))) {
            for (Map.Entry<String, String> part : parts.entrySet()) {
                zip.putNextEntry(new ZipEntry(part.getKey()));
                zip.write(part.getValue().replace("<Application>Trellis Gorge<", "<Application>Another<").getBytes(StandardCharsets.UTF_8));
            }
        }
    }

    private static List<String> sheets(Map<String, String> parts) {
        return Pattern.compile("<sheet [^>]*?name=\"([^\"]*)\"").matcher(parts.get("xl/workbook.xml")).results().map(sheet -> sheet.group(1)).toList();
    }

    @Test
    public void settingsSheetSaysHowEachIsWrittenCountedAndWhatItIs() throws IOException {
        assertThat(desk.type("draw", "DESK/b.yaml", "-o", "DESK/b.xlsx")).isEqualTo(new Desk.Answer(0, "DESK/b.xlsx\n", ""));
        Map<String, String> parts = parts("b.xlsx");
        assertThat(parts.get("xl/sharedStrings.xml")).contains(">Setting<", ">Value<", ">Unit<", ">What it is<", ">of all<", ">what counts as much; read by shares<", ">row_order<", ">in which order the rows stand in shares<",
                ">largest first<", ">smallest first<", ">as in the table<");
        assertThat(parts.get("xl/styles.xml")).contains("numFmtId=\"9\""); // 0% is one of the format's own
        assertThat(parts.get("xl/worksheets/sheet2.xml")).contains("<v>0.5</v>", "<dataValidation ");
    }

    @Test
    public void changedSettingKeepsWhatIsSaidOfIt() throws IOException {
        assertThat(desk.type("draw", "DESK/b.yaml", "--set", "goal=0.3", "-o", "DESK/b.xlsx").code()).isZero();
        Map<String, String> parts = parts("b.xlsx");
        assertThat(parts.get("xl/worksheets/sheet2.xml")).contains("<v>0.3</v>");
        assertThat(parts.get("xl/styles.xml")).contains("numFmtId=\"9\"");
    }

    @DataProvider
    public Object[][] wrongSettings() {
        return new Object[][] {{"{format: \"0%\"}", "b.yaml:4:9: the key 'value' is missing"}, {"{value: 2031-03-01, format: \"0%\"}", "a format has no effect here: the value is a date"},
            {"{value: 1, units: l}", "unknown key 'units'"}};
    }

    @Test(dataProvider = "wrongSettings")
    public void wrongSettingIsTold(String setting, String said) {
        desk.with("b.yaml", BRIEF.replaceFirst("goal: \\{.*}", "goal: " + setting));
        Desk.Answer answer = desk.type("draw", "DESK/b.yaml", "-o", "DESK/b.xlsx");
        assertThat(answer.code()).isEqualTo(2);
        assertThat(answer.err()).contains(said);
        assertThat(desk.files()).doesNotContain("b.xlsx");
    }

    /** By the library, where messages name the files of a brief from its folder. */
    @Test
    public void programDrawsIntoTheWorkbookThatItsBriefReads() throws IOException {
        host("report.xlsx");
        desk.with("b.yaml", BRIEF.replace("t.csv", "{file: report.xlsx, sheet: t}"));
        try (Brief brief = Brief.read(desk.path("b.yaml"))) {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            Engines.draw(brief.pages(brief.compute(brief.charts())), "xlsx", Options.STANDARD.into(desk.path("report.xlsx")), out);
            Files.write(desk.path("drawn.xlsx"), out.toByteArray());
        }
        assertThat(parts("drawn.xlsx").values()).anyMatch(part -> part.contains("INDEX(t!$B$2:$B$3,"));
    }

    @Test
    public void workbookIsDrawnIntoAndDrawnAgainWithItsOwnCells() throws IOException {
        host("report.xlsx");
        desk.with("b.yaml", BRIEF.replace("t.csv", "{file: report.xlsx, sheet: t}").replace("    pattern: columns", "    at: Summary!Q2:W20\n    pattern: columns"));
        assertThat(desk.type("draw", "DESK/b.yaml", "--into", "DESK/report.xlsx")).isEqualTo(new Desk.Answer(0, "DESK/report.xlsx\n", ""));
        byte[] once = Files.readAllBytes(desk.path("report.xlsx"));
        Map<String, String> parts = parts("report.xlsx");
        assertThat(sheets(parts)).containsExactly("Summary", "t", "Summary series", "Settings", "shares rows", "shares series");
        assertThat(parts.get("xl/drawings/drawing1.xml")).contains("name=\"Summary\"", "name=\"gorge: shares\"");
        assertThat(parts.values()).anyMatch(part -> part.contains("INDEX(t!$B$2:$B$3,"));
        assertThat(desk.type("draw", "DESK/b.yaml", "--into", "DESK/report.xlsx", "-o", "DESK/again.xlsx").code()).isZero();
        assertThat(Files.readAllBytes(desk.path("again.xlsx"))).isEqualTo(once);
        assertThat(Files.readAllBytes(desk.path("report.xlsx"))).isEqualTo(once);
    }

    @Test
    public void workbookOfAnotherProgramIsNotWrittenOverUnasked() throws IOException {
        host("report.xlsx");
        byte[] before = Files.readAllBytes(desk.path("report.xlsx"));
        assertThat(desk.type("draw", "DESK/b.yaml", "-o", "DESK/report.xlsx")).isEqualTo(new Desk.Answer(2, "",
                "gorge: DESK/report.xlsx: was last written by another program, so it may hold what would be lost; --into draws into it, and --replace writes over it\n"));
        assertThat(Files.readAllBytes(desk.path("report.xlsx"))).isEqualTo(before);
        assertThat(desk.type("draw", "DESK/b.yaml", "-o", "DESK/report.xlsx", "--replace").code()).isZero();
        assertThat(desk.type("draw", "DESK/b.yaml", "-o", "DESK/report.xlsx").code()).as("its own workbook").isZero();
    }

    @DataProvider
    public Object[][] wrong() {
        return new Object[][] {{"--spare 5 -o DESK/o.png", "DESK/o.png: files of this kind have no room for rows to come"}, {"--spare -1 -o DESK/o.xlsx", "--spare: '-1' is no number of rows; write 0 or more, such as 12"},
            {"--spare-bars 2 -o DESK/o.xlsx", "--spare-bars: requires --spare"}, {"--spare 3", "--spare: what is printed has no room for rows to come; draw to a workbook with -o FILE.xlsx"},
            {"--date June -o DESK/o.pdf", "--date: 'June' is no date; write YEAR-MONTH-DAY, such as 2026-06-30"}, {"--author A -o DESK/o.svg", "DESK/o.svg: files of this kind don't say who made them"},
            {"--into DESK/none.xlsx", "DESK/none.xlsx: there is no such file"}, {"--into DESK/t.csv", "no engine writes '.csv' files"}, {"--into DESK/none.xlsx -o DESK/o.png", "DESK/o.png: files of this kind can't be drawn into"},
            {"-o DESK/o.xlsm", "a workbook with macros can be drawn into, not created; write to .xlsx"}};
    }

    @Test(dataProvider = "wrong")
    public void optionWithoutAUseIsRefusedAndNothingIsWritten(String options, String said) {
        String[] typed = ("draw DESK/b.yaml " + options).split(" ");
        Desk.Answer answer = desk.type(typed);
        assertThat(answer.code()).isEqualTo(2);
        assertThat(answer.err()).contains(said);
        assertThat(desk.files()).containsExactlyInAnyOrder("b.yaml", "t.csv");
    }

    @Test
    public void roomForRowsAuthorAndDateAreInTheFile() throws IOException {
        assertThat(desk.type("draw", "DESK/b.yaml", "-o", "DESK/b.xlsx", "--spare", "7", "--author", "Anyone", "--date", "2031-06-30").code()).isZero();
        Map<String, String> parts = parts("b.xlsx");
        assertThat(parts.get("docProps/core.xml")).contains(">Anyone<", "2031-06-30T00:00:00Z");
        assertThat(parts.get("xl/worksheets/sheet5.xml")).contains("<row r=\"" + (6 + 2 + 7) + "\"").doesNotContain("<row r=\"" + (6 + 2 + 7 + 1) + "\"");
        assertThat(desk.type("draw", "DESK/b.yaml", "-o", "DESK/b.pptx").code()).isZero();
        assertThat(desk.type("draw", "DESK/b.yaml", "-o", "DESK/b.pdf", "--author", "Anyone").code()).isZero();
    }
}
