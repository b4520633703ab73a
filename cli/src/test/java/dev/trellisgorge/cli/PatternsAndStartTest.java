package dev.trellisgorge.cli;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.pattern.PatternType;
import dev.trellisgorge.pattern.Patterns;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
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
            {"columns", "station,target,made\nWeir,5,3\n", "# drawn: made; there is also target (a target or limit, by its name)\n"}, {"to-target", "Station;Soll;Ist\nWehr;100;90\n", "value: Ist\n    target: Soll\n"},
            {"to-target", "site,budget,spent\nWeir,10,8\n", "value: spent\n    target: budget\n"}, {"to-target", "ville,objectif,produit\nLac,10,8\n", "value: produit\n    target: objectif\n"},
            {"marker", "site,forecast,made\nWeir,10,8\n", "columns: made\n    points: forecast\n"}, {"variance", "month,plan,made\n2031-01,5,3\n2031-02,5,4\n", "value: made\n    against: plan\n"},
            {"variance", "month,made\n2031-01,3\n2031-02,4\n", "against: {previous: row}"}, {"waterfall", "item,what,v\nOpening,start,3\nRain,change,2\nClosing,total,5\n", "kind: what\n"},
            {"columns", "year,v\n2030,4\n2031,5\n", "category: year\n    value: v\n"}, {"columns", "Jahr;Wert\n2030;4,5\n2031;5,5\n", "category: Jahr\n    value: Wert\n"},
            {"columns", "month,station,v\n2031-01-01,Weir,1\n2031-01-01,Pool,2\n2031-02-01,Weir,3\n2031-02-01,Pool,4\n", "slice: {month: 2031-02-01}\n"}};
    }

    @Test(dataProvider = "realLooking")
    public void firstBriefTakesColumnsForWhatTheySay(String pattern, String data, String expected) {
        desk.with("data.csv", data);
        assertThat(desk.type("start", pattern, "DESK/data.csv", "-o", "DESK/first.yaml").err()).isEmpty();
        assertThat(desk.path("first.yaml")).content().contains(expected);
        assertThat(desk.type("draw", "DESK/first.yaml", "-o", "DESK/o.svg").code()).isZero();
    }

    @Test
    public void patternsThatSuitTheDataAreListed() {
        desk.with("data.csv", "station,made\nWeir,3\nPool,-4\n").with("none.csv", "a,b\nx,y\n");
        assertThat(desk.type("start", "DESK/data.csv").out()).startsWith("columns     One bar a category, coloured by a rule\n").contains("diverging").doesNotContain("to-target", "\nring ", "tornado");
        assertThat(desk.type("start", "DESK/none.csv").err()).startsWith("gorge: DESK/none.csv: suits no pattern");
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
