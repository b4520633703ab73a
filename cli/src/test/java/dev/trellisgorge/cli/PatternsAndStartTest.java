package dev.trellisgorge.cli;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.pattern.PatternType;
import dev.trellisgorge.pattern.Patterns;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class PatternsAndStartTest extends AtDesk {
    @DataProvider
    Object[][] patterns() {
        return Patterns.names().stream().map(name -> new Object[] {name}).toArray(Object[][]::new);
    }

    @Test
    public void listNamesEveryPattern() {
        assertThat(desk.type("patterns").out().lines()).hasSize(13).first().asString().startsWith("columns    One bar a category");
    }

    @Test(dataProvider = "patterns")
    public void eachPatternTellsItsKeysItsSeriesAndABriefToCopy(String name) {
        PatternType type = Patterns.find(name).orElseThrow();
        assertThat(type.name()).isEqualTo(name);
        String told = desk.type("patterns", name).out();
        assertThat(told).contains(type.purpose(), type.series(), "A brief to copy", "pattern: " + name);
        type.keys().forEach(key -> assertThat(told).contains("  " + key.name() + " (" + key.takes().phrase()));
    }

    @Test(dataProvider = "patterns")
    public void briefToCopyIsReadWithItsColumnsInPlace(String name) {
        String brief = desk.type("patterns", name).out().replaceAll("(?s).*A brief to copy\n", "").replaceAll("(?m)^  ", "").replace("FILE.csv", "t.csv");
        desk.with("t.csv", "station,day,month,item,use,kind,generated_mwh,licensed_mwh,volume_ml,energy_mwh,level_m,fish,low_m,high_m\n"
                + "Otter Bend,Mon,2031-01,Opening,Pumps,start,5,4,3,2,1,3,1,2\nHeron Weir,Tue,2031-02,Rain,Gates,change,3,4,3,2,1,3,1,2\n").with("b.yaml", brief);
        assertThat(desk.type("series", "DESK/b.yaml").err()).isEmpty();
        assertThat(desk.type("check", "DESK/b.yaml").code()).isZero();
    }

    @Test
    public void unknownPatternNamesTheNearest() {
        assertThat(desk.type("patterns", "watterfall").err()).isEqualTo("gorge: there is no pattern 'watterfall'. Did you mean 'waterfall'?\n");
    }

    @Test
    public void referencePagesAreWhatTheCommandWrites() throws IOException {
        assertThat(Files.readString(Path.of("../docs/patterns.md"))).isEqualTo(desk.type("patterns", "--as", "markdown").out());
        assertThat(Files.readString(Path.of("../docs/brief.md"))).isEqualTo(desk.type("patterns", "--as", "reference").out());
        assertThat(Files.readString(Path.of("../docs/brief.schema.json"))).isEqualTo(desk.type("patterns", "--as", "schema").out());
    }

    @Test(dataProvider = "patterns")
    public void firstBriefRunsAsItStands(String name) {
        desk.with("data.csv", "month,station name,low,high,open\n2031-01-01,Weir,1,3,true\n2031-01-01,Leat,2,2.5,false\n2031-02-01,Weir,0.5,9,true\n2031-02-01,Leat,,1,true\n");
        Desk.Answer started = desk.type("start", name, "DESK/data.csv", "-o", "DESK/first.yaml");
        assertThat(started).isEqualTo(new Desk.Answer(0, "DESK/first.yaml\nDESK/brief.schema.json\n", ""));
        assertThat(desk.path("first.yaml")).content().startsWith("# yaml-language-server: $schema=brief.schema.json\n").contains("\nbrief: 1\ndata:\n");
        assertThat(desk.path("brief.schema.json")).content().isEqualTo(desk.type("patterns", "--as", "schema").out());
        assertThat(desk.type("start", name, "DESK/data.csv", "-o", "DESK/second.yaml").out()).as("the schema is there").isEqualTo("DESK/second.yaml\n");
        assertThat(desk.type("start", name, "DESK/data.csv").out()).contains("\n# yaml-language-server: $schema=brief.schema.json\n", "\nbrief: 1\n");
        assertThat(desk.type("series", "DESK/first.yaml").err()).isEmpty();
        assertThat(desk.type("check", "DESK/first.yaml").code()).isZero();
        assertThat(desk.type("start", name, "DESK/data.csv", "-o", "DESK/first.yaml")).isEqualTo(new Desk.Answer(2, "",
                "gorge: DESK/first.yaml: is there already and is not written over; name another file\n"));
    }

    @Test
    public void dataThatDoesNotFitIsExplained() {
        desk.with("u.csv", "v\n1\n").with("w.csv", "name,v\na,x\n");
        assertThat(desk.type("start", "columns", "DESK/u.csv").err()).contains("has no column of texts or dates to name the rows");
        assertThat(desk.type("start", "columns", "DESK/w.csv").err()).contains("has too few columns of numbers for 'value' of the pattern 'columns'");
        assertThat(desk.type("start", "colums", "DESK/u.csv").err()).contains("Did you mean 'columns'?");
    }

    @DataProvider
    Object[][] realLooking() {
        return new Object[][] {
            {"columns", "station,Jan,Feb,Mar\nWeir,1,2,3\nPool,4,5,6\n", "  - unpivot: {columns: [Jan, Feb, Mar], names: month, values: value}\n"}, {"columns", "Station;Januar;Februar;M\u00E4rz\nWehr;1;2;3\n", "unpivot"},
            {"columns", "station,2031-01,2031-02,2031-03\nWeir,1,2,3\n", "unpivot"}, {"columns", "name,v\na,1\na,2\n", "shape:\n  - total: {by: name, sum: [v]}\n"},
            {"columns", "name,v\na,1\na,2\n", "# the rows of each name are added up\n"}, {"columns", "station,target,made\nWeir,5,3\n", "value: made\n"},
            {"columns", "station,target,made\nWeir,5,3\n", "# it draws made; there is also target (a target or limit, by its name)\n"}, {"to-target", "Station;Soll;Ist\nWehr;100;90\n", "value: Ist\n    target: Soll\n"},
            {"to-target", "site,budget,spent\nWeir,10,8\n", "value: spent\n    target: budget\n"}, {"to-target", "ville,objectif,produit\nLac,10,8\n", "value: produit\n    target: objectif\n"},
            {"marker", "site,forecast,made\nWeir,10,8\n", "columns: made\n    points: forecast\n"}, {"variance", "month,plan,made\n2031-01,5,3\n2031-02,5,4\n", "value: made\n    against: plan\n"},
            {"variance", "month,made\n2031-01,3\n2031-02,4\n", "against: {previous: row}"}, {"waterfall", "item,what,v\nOpening,start,3\nRain,change,2\nClosing,total,5\n", "kind: what\n"},
            {"columns", "year,v\n2030,4\n2031,5\n", "category: year\n    value: v\n"}, {"columns", "Jahr;Wert\n2030;4,5\n2031;5,5\n", "category: Jahr\n    value: Wert\n"},
            {"columns", "month,station,v\n2031-01-01,Weir,1\n2031-01-01,Pool,2\n2031-02-01,Weir,3\n2031-02-01,Pool,4\n", "slice: {month: 2031-02-01}\n"},
            {"columns", "Hollow Gorge\nMonthly report\n\nstation;month;made\nWehr;31.03.2031;1.234,5\nPool;30.04.2031;2.000,0\n", "{file: data.csv, header-row: 4, dates: d.M.yyyy}\n"},
            {"columns", "Bericht;;\nStation;Monat;Menge\nWehr;1;5\nPool;2;6\n", "# its header is on line 2; what stands above is passed over\n"},
            {"columns", "site,when,v\nWeir,Q1 2031,5\nWeir,Q2 2031,6\n", "dates: \"QQQ yyyy\"}\ncharts:\n  first:\n    pattern: columns\n    category: when\n"},
            {"columns", "site,when,v\nWeir,03/31/2031,5\nWeir,04/30/2031,6\n", "dates: M/d/yyyy}\n"},
            {"columns", "site,when,v\nWeir,5/3/2031,5\nWeir,6/4/2031,6\n", "# its dates are written as d/M/yyyy; if the month of when stands first, write M/d/yyyy\n"},
            {"columns", "monat;wert\nM\u00E4rz 2031;5\nMai 2031;6\n", "locale: de-DE}\n"}, {"columns", "mois;kWh\n3 f\u00E9vrier 2031;5\n4 mars 2031;6\n", "dates: \"d MMMM yyyy\", locale: fr-FR}\n"},
            {"columns", "site,v\nWeir,5\nPool,6\nTotal,11\n", "{file: data.csv, total-row: drop}\n"}, {"columns", "site,share\nWeir,12%\nPool,88%\n", "labels: {format: \"0.#%\"}\n"},
            {"columns", "site,share\nWeir,0.4\nWeir,0.6\nPool,0.1\n", "# the rows of each site are averaged, as shares don't add up\n"}, {"variance", "station,2030,2031\nWeir,5,6\nPool,7,3\n", "value: 2031\n    against: 2030\n"},
            {"diverging", "Bereich;Umsatz;Ergebnis\nSchleuse;10;-5\nWehr;12;6\n", "value: Ergebnis\n"}, {"range", "station,level,high,low\nWeir,5,9,1\n", "from: low\n    to: high\n"},
            {"tornado", "reach,made 2030,made 2031\nUpper,5,6\n", "left: \"made 2031\"\n    right: \"made 2030\"\n"}};
    }

    @Test(dataProvider = "realLooking")
    public void firstBriefTakesColumnsForWhatTheySay(String pattern, String data, String expected) {
        desk.with("data.csv", data);
        assertThat(desk.type("start", pattern, "DESK/data.csv", "-o", "DESK/first.yaml").err()).isEmpty();
        assertThat(desk.path("first.yaml")).content().contains(expected);
        assertThat(desk.type("draw", "DESK/first.yaml", "-o", "DESK/o.svg").code()).isZero();
    }

    @DataProvider
    Object[][] demoFiles() throws IOException {
        try (Stream<Path> files = Files.list(Path.of("../demo"))) {
            return files.filter(file -> file.toString().endsWith(".csv")).sorted().map(file -> new Object[] {file}).toArray(Object[][]::new);
        }
    }

    @Test(dataProvider = "demoFiles")
    public void everyPatternThatIsListedForAFileDrawsIt(Path file) throws IOException {
        desk.with("data.csv", Files.readString(file));
        List<String> listed = desk.type("start", "DESK/data.csv").out().lines().map(line -> line.split(" ")[0]).toList();
        assertThat(listed).contains("columns");
        for (String pattern : listed) {
            assertThat(desk.type("start", pattern, "DESK/data.csv", "-o", "DESK/" + pattern + ".yaml").code()).isZero();
            assertThat(desk.type("draw", "DESK/" + pattern + ".yaml", "-o", "DESK/o.svg")).as(pattern).matches(answer -> answer.code() == 0);
        }
    }

    @Test
    public void layoutIsFoundInOtherCharsetsAndSheets() throws IOException {
        Files.write(desk.path("old.csv"), "Standort;Erzeugung\nM\u00FChle;12,5\nWehr;13,25\n".getBytes(Charset.forName("windows-1252")));
        Files.write(desk.path("wide.csv"), "station,made\nWeir,3\nPool,4\n".getBytes(StandardCharsets.UTF_16LE));
        assertThat(desk.type("start", "columns", "DESK/old.csv", "-o", "DESK/old.yaml").err()).isEmpty();
        assertThat(desk.path("old.yaml")).content().contains("{file: old.csv, charset: windows-1252}\n");
        assertThat(desk.type("series", "DESK/old.yaml").out()).contains("M\u00FChle");
        assertThat(desk.type("start", "columns", "DESK/wide.csv", "-o", "DESK/wide.yaml").err()).isEmpty();
        assertThat(desk.type("series", "DESK/wide.yaml").out()).contains("Weir");
        desk.with("plain.csv", "station,made\nWeir,3\nPool,4\n").with("plain.yaml", "brief: 1\ndata: {plain: plain.csv}\ncharts:\n  made: {pattern: columns, category: station, value: made, title: Made}\n");
        assertThat(desk.type("draw", "DESK/plain.yaml", "-o", "DESK/book.xlsx").code()).isZero();
        assertThat(desk.type("start", "columns", "DESK/book.xlsx", "-o", "DESK/book.yaml").err()).isEmpty();
        assertThat(desk.path("book.yaml")).content().contains("# its sheet 'plain'; there are also made, made series\n", "{file: book.xlsx, sheet: plain}\n");
        assertThat(desk.type("series", "DESK/book.yaml").out()).contains("Pool");
    }

    @Test
    public void dataMayBePipedIn() {
        InputStream before = System.in;
        try {
            System.setIn(new ByteArrayInputStream("Report\n\nstation;made\nWehr;1,5\nPool;2,5\n".getBytes(StandardCharsets.UTF_8)));
            assertThat(desk.type("start", "columns", "-").out()).startsWith("# Its data is piped in, so run it with --allow input\n").contains("  input: {file: \"-\", header-row: 3}\n");
        } finally {
            System.setIn(before);
        }
    }

    @Test
    public void patternsThatSuitTheDataAreListed() throws IOException {
        desk.with("data.csv", "station,made\nWeir,3\nPool,-4\n").with("none.csv", "a,b\nx,y\n");
        assertThat(desk.type("start", "DESK/data.csv").out()).startsWith("columns     One bar a category, coloured by a rule: made by station\n").contains("diverging").doesNotContain("to-target", "\nring ", "tornado", "variance", "range");
        assertThat(desk.type("start", "DESK/none.csv").err()).startsWith("gorge: DESK/none.csv: suits no pattern");
        assertThat(desk.type("start")).isEqualTo(new Desk.Answer(2, "", "gorge: start: the data file is missing: gorge start DATA lists the patterns that suit it\n"));
        Files.write(desk.path("odd.csv"), new byte[] {'a', ',', 'b', '\n', (byte) 0x81, ',', '1', '\n'});
        assertThat(desk.type("start", "columns", "DESK/odd.csv").err()).startsWith("gorge: DESK/odd.csv:2: has bytes that are no text in UTF-8");
        assertThat(desk.type("start", "columns").err()).isEqualTo("gorge: start: the data file is missing: gorge start columns DATA\n");
    }

    @Test
    public void auditIsJsonToo() {
        desk.with("t.csv", "name,v\na,1\n").with("b.yaml", "brief: 1\ndata: {t: t.csv}\ncharts:\n  c: {pattern: columns, category: name, value: v, classify: {split: {at: 1}}}\n");
        assertThat(desk.type("check", "DESK/b.yaml", "--as", "json").out().replaceAll("\\s+", " ")).isEqualTo("{ \"c\" : { \"holds\" : true, \"identities\" : [ "
                + "{ \"statement\" : \"each v is in exactly one class\", \"rows\" : 1, \"held\" : 1, \"failures\" : [ ] }, "
                + "{ \"statement\" : \"below + above = v\", \"rows\" : 1, \"held\" : 1, \"failures\" : [ ] } ], "
                + "\"notes\" : [ { \"sentence\" : \"equal to the limit, counted as above\", \"rows\" : [ \"a (1)\" ] } ] } } ");
    }

    @Test
    public void failedIdentityStopsTheDrawingUnlessItIsWantedAllTheSame() {
        desk.with("t.csv", "item,kind,v\nOpening,start,30\nRain,change,20\nClosing,total,51\n")
                .with("b.yaml", "brief: 1\ndata: {t: t.csv}\ncharts:\n  c: {pattern: waterfall, category: item, value: v, kind: kind}\n");
        assertThat(desk.type("check", "DESK/b.yaml")).matches(answer -> answer.code() == 1 && answer.out().contains(
                "  FAILS  on 0 of 1 row: each stated total is the level that the movements reach\n         Closing: the pieces come to 50, not 51 (a difference of -1)\n"));
        assertThat(desk.type("draw", "DESK/b.yaml", "-o", "DESK/c.svg")).matches(answer -> answer.code() == 1 && answer.out().isEmpty()
                && answer.err().endsWith("gorge: nothing was drawn, because an identity fails; --even-if-wrong draws it stamped\n"));
        assertThat(desk.files()).doesNotContain("c.svg");
        assertThat(desk.type("draw", "DESK/b.yaml", "-o", "DESK/c.svg", "--even-if-wrong").code()).isZero();
        assertThat(desk.path("c.svg")).content().contains("NOT PROVED");
    }
}
