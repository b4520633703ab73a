package dev.trellisgorge.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What {@code gorge} says to each mistake: one clear message, exit 2, no file. */
public class BadInputTest extends AtDesk {
    private static final String DATA = "station,mwh\nWeir,520\nLeat,400\n";
    private static final String BRIEF = "brief: 1\ndata: {march: march.csv}\ncharts:\n  c: {pattern: columns, category: station, value: mwh}\n";

    @DataProvider
    Object[][] mistakes() {
        return new Object[][] {
            {"missing data file", BRIEF, null, "DESK/b.yaml:2:15: there is no file 'DESK/march.csv' for the table 'march'"},
            {"empty data file", BRIEF, "", "DESK/march.csv: is empty; a table starts with a header row"},
            {"header only", BRIEF, "station,mwh\n", "DESK/march.csv: has a header and no row below it"},
            {"ragged row", BRIEF, "station,mwh\nWeir,520\nLeat\n", "DESK/march.csv:3: the row has 1 cell, the header has 2"},
            {"duplicate header", BRIEF, "station,station\nWeir,520\n", "DESK/march.csv:1: columns 1 and 2 are both named 'station'"},
            {"duplicate category", BRIEF, DATA + "Weir,3\n", "DESK/march.csv:2, column 'station': 'Weir' stands on 2 rows (again at "
                    + "DESK/march.csv:4); a chart takes one row a category. Keep one with 'slice', or total the rows first."},
            {"text in a figure column", BRIEF, DATA + "Pool,about 4\n", "DESK/march.csv:4, column 'mwh': 'about 4' is no number"},
            {"dates as figures", BRIEF, "station,mwh\nWeir,2031-03-01\n", "DESK/march.csv, column 'mwh': holds a date a row, and a figure must be a number"},
            {"missing category", BRIEF, DATA + ",12\n", "DESK/march.csv:4, column 'station': the category is missing; every row needs one"},
            {"infinite figure", BRIEF, DATA + "Pool,1e999\n", "DESK/march.csv:4, column 'mwh': the figure is too large to be a number (infinite)"},
            {"unknown key", BRIEF.replace("value:", "valeu:"), DATA, "DESK/b.yaml:4:44: unknown key 'valeu'. Did you mean 'value'?\n"
                    + "gorge: DESK/b.yaml:4:6: the key 'value' is missing"},
            {"unknown column", BRIEF.replace("mwh", "mhw"), DATA, "DESK/b.yaml:4:51: table 'march' has no column 'mhw'. Did you mean 'mwh'?"},
            {"a sign alone on an axis", BRIEF.replace("mwh}", "mwh, axis: {figures: shown, format: +}}"), DATA, "DESK/b.yaml:4:87: 'format': '+' alone is for labels; write the pattern out, such as +#,##0.0;-#,##0.0"},
            {"malformed YAML", "brief: 1\ncharts: [\n", DATA, "DESK/b.yaml:3:1: is no YAML: expected the node content, but found '<stream end>'"},
            {"no row in the slice", BRIEF.replace("mwh}", "mwh, slice: {station: Pool}}"), DATA,
                "DESK/march.csv, column 'station': no row holds 'Pool'. Known here: 'Weir', 'Leat'."}};
    }

    @Test(dataProvider = "mistakes")
    public void mistakeGivesOneClearMessageAndNoFile(String what, String brief, String data, String message) {
        desk.with("b.yaml", brief);
        if (data != null) {
            desk.with("march.csv", data);
        }
        List<String> before = desk.files();
        for (String file : new String[] {"DESK/out.png", "DESK/out.xlsx"}) {
            assertThat(desk.type("draw", "DESK/b.yaml", "-o", file)).as(what).isEqualTo(new Desk.Answer(2, "", "gorge: " + message + "\n"));
        }
        assertThat(desk.type("series", "DESK/b.yaml").code()).isEqualTo(2);
        assertThat(desk.type("check", "DESK/b.yaml").code()).isEqualTo(2);
        assertThat(desk.files()).isEqualTo(before);
    }

    @DataProvider
    Object[][] targets() {
        return new Object[][] {
            {"DESK/out.pgn", "DESK/out.pgn: no engine writes '.pgn' files, and the ending picks the engine. Did you mean '.png'?"},
            {"DESK/out", "DESK/out: the file's name has no ending, and the ending picks the engine. Known here: '.json', '.ods', '.pdf', '.png', '.pptx', '.svg', '.txt', '.xlsm', '.xlsx'."},
            {"DESK/no/out.png", "DESK/no/out.png: can't write: there is no folder 'DESK/no'"},
            {"DESK/folder.png", "DESK/folder.png: can't write: it is a folder; name a file"}};
    }

    @Test(dataProvider = "targets")
    public void targetThatCantBeWrittenIsNamed(String target, String message) throws IOException {
        desk.with("b.yaml", BRIEF).with("march.csv", DATA);
        Files.createDirectory(desk.path("folder.png"));
        assertThat(desk.type("draw", "DESK/b.yaml", "-o", target)).isEqualTo(new Desk.Answer(2, "", "gorge: " + message + "\n"));
        assertThat(desk.files()).containsExactly("b.yaml", "folder.png", "march.csv");
    }

    @Test
    public void folderWithoutPermissionIsNamedAndLeftAlone() throws IOException {
        desk.with("b.yaml", BRIEF).with("march.csv", DATA);
        Path locked = Files.createDirectory(desk.path("locked"));
        locked.toFile().setWritable(false);
        String folder = Files.isWritable(locked) ? "/sys" : locked.toString(); // where this user may write anywhere
        assertThat(desk.type("draw", "DESK/b.yaml", "-o", folder + "/out.png").err()).endsWith("/out.png: can't write: permission denied\n");
        locked.toFile().setWritable(true);
    }

    @Test
    public void inputsAreNeverWrittenOver() {
        desk.with("b.yaml", BRIEF.replace("march.csv", "march.svg")).with("march.svg", DATA);
        assertThat(desk.type("draw", "DESK/b.yaml", "-o", "DESK/march.svg")).isEqualTo(new Desk.Answer(2, "",
                "gorge: DESK/march.svg: is read by the brief, so it is not written over; name another file\n"));
        assertThat(desk.type("series", "DESK/b.yaml").code()).isZero();
    }

    @DataProvider
    Object[][] usages() {
        return new Object[][] {
            {new String[] {"draw", "DESK/no.yaml", "-o", "DESK/x.png"}, "gorge: DESK/no.yaml: there is no such file\n"},
            {new String[] {"draw"}, "gorge: Missing required parameter: 'BRIEF'\nTry 'gorge draw --help'.\n"},
            {new String[] {"draw", "DESK/b.yaml", "-o", "DESK/x.png", "--size", "big"}, "gorge: --size: 'big' is no size; write WIDTHxHEIGHT, such as 1280x800\n"},
            {new String[] {"draw", "DESK/b.yaml", "-o", "DESK/x.png", "--size", "20x20"}, "gorge: --size: a picture is 64 to 16384 pixels on each side, not 20x20\n"},
            {new String[] {"series", "DESK/b.yaml", "--chart", "d"}, "gorge: DESK/b.yaml: there is no chart 'd'. Did you mean 'c'?\n"},
            {new String[] {"series", "DESK/b.yaml", "--as", "xml"}, "gorge: Invalid value for option '--as': expected one of [table, csv, json] (case-sensitive) but was 'xml'\nTry 'gorge series --help'.\n"},
            {new String[] {"chck", "DESK/b.yaml"}, "gorge: Unmatched arguments from index 0: 'chck', 'DESK/b.yaml'\nDid you mean: gorge check or gorge watch?\nTry 'gorge --help'.\n"}};
    }

    @Test(dataProvider = "usages")
    public void wrongUsageIsExplained(String[] arguments, String message) {
        desk.with("b.yaml", BRIEF).with("march.csv", DATA);
        assertThat(desk.type(arguments)).isEqualTo(new Desk.Answer(2, "", message));
        assertThat(desk.files()).containsExactly("b.yaml", "march.csv");
    }

    @Test
    public void noCommandAtAllShowsTheCommands() {
        Desk.Answer answer = desk.type();
        assertThat(answer.code()).isEqualTo(2);
        assertThat(answer.out()).isEmpty();
        assertThat(answer.err()).contains("draw", "series", "check", "demo", "say which command to run");
    }
}
