package dev.trellisgorge.brief;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.tables.Limits;
import dev.trellisgorge.tables.Progress;
import dev.trellisgorge.test.Folder;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What a program that reads briefs hears: what sort of mistake it is, in the library's words, and nothing of the machine's folders. */
public class ProblemKindTest {
    private static final String DATA = "brief: 1\ndata: {march: march.csv}\n";
    private static final String CHART = "charts: {c: {pattern: columns, category: station, value: mwh}}\n";

    private Folder folder;
    private Folder elsewhere;

    @BeforeClass
    void write() {
        folder = new Folder();
        elsewhere = new Folder();
        folder.file("march.csv", "station,mwh,open\nWeir,520,2031-03-01\nLeat,100,2031-03-02\n");
        folder.file("ragged.csv", "station,mwh\nWeir,520,1\nLeat\n");
        folder.file("none.csv", "station,mwh\n");
        folder.file("text.xlsx", "station,mwh\n");
        elsewhere.file("secret.csv", "station,mwh\nWeir,520\n");
    }

    @AfterClass
    void leave() {
        folder.close();
        elsewhere.close();
    }

    @DataProvider
    Object[][] briefs() {
        return new Object[][] {
            {ProblemKind.UNKNOWN_NAME, DATA + CHART.replace("mwh", "mhw")},
            {ProblemKind.UNKNOWN_NAME, DATA + CHART.replace("pattern: columns", "pattern: colums")},
            {ProblemKind.UNKNOWN_NAME, DATA + CHART.replace("value", "valeu")},
            {ProblemKind.UNKNOWN_NAME, DATA + "shape: [{join: {with: april, on: station}}]\n" + CHART},
            {ProblemKind.UNKNOWN_NAME, DATA.replace("march.csv", "april.csv") + CHART},
            {ProblemKind.MISSING, DATA},
            {ProblemKind.MISSING, DATA + "charts: {}\n"},
            {ProblemKind.MISSING, DATA.replace("march.csv", "{table: generation}") + CHART},
            {ProblemKind.INVALID, DATA + CHART.replace("}}", ", rank: {top: 0}}}")},
            {ProblemKind.INVALID, DATA + CHART.replace("}}", ", orientation: upright}}")},
            {ProblemKind.CONFLICT, DATA + CHART.replace("}}", ", rank: {rest: Others}}}")},
            {ProblemKind.CONFLICT, DATA + DATA + CHART},
            {ProblemKind.SYNTAX, DATA + CHART.replace("value: mwh", "value: mwh *")},
            {ProblemKind.SYNTAX, "brief: [1\n"},
            {ProblemKind.SYNTAX, "- 1\n"},
            {ProblemKind.WRONG_TYPE, DATA + CHART.replace("value: mwh", "value: open")},
            {ProblemKind.WRONG_TYPE, DATA + "shape: [{keep: mwh + 1}]\n" + CHART},
            {ProblemKind.DATA, DATA.replace("march.csv", "ragged.csv") + CHART},
            {ProblemKind.DATA, DATA.replace("march.csv", "{file: march.csv, kinds: {station: number}}") + CHART},
            {ProblemKind.NO_ROWS, DATA.replace("march.csv", "none.csv") + CHART},
            {ProblemKind.NO_ROWS, DATA + "shape: [{keep: mwh > 1000}]\n" + CHART},
            {ProblemKind.UNREADABLE, DATA.replace("march.csv", "text.xlsx") + CHART},
            {ProblemKind.UNREADABLE, DATA.replace("march.csv", ".") + CHART},
            {ProblemKind.UNSUPPORTED, DATA.replace("brief: 1", "brief: 2") + CHART},
            {ProblemKind.TOO_LARGE, DATA + CHART.replace("}}", ", title: '" + "a".repeat(40_000) + "'}}")},
            {ProblemKind.NOT_ALLOWED, DATA.replace("march.csv", elsewhere.path("secret.csv").toString()) + CHART},
            {ProblemKind.NOT_ALLOWED, DATA.replace("march.csv", "'-'") + CHART},
            {ProblemKind.NOT_ALLOWED, DATA.replace("march.csv", "{jdbc: 'jdbc:h2:mem:x', query: SELECT 1}") + CHART},
        };
    }

    private BadInput refused(String brief, Overrides overrides) {
        Path file = folder.file("month.yaml", brief);
        return catchThrowableOfType(BadInput.class, () -> {
            try (Brief read = Brief.read(file, overrides, AccessPolicy.OWN_FOLDER.limits(Limits.STANDARD), Progress.NONE)) {
                read.compute(read.charts());
                read.each(List.of("open"));
            }
        });
    }

    @Test(dataProvider = "briefs")
    public void kindTellsTheSortOfMistake(ProblemKind kind, String brief) {
        BadInput bad = refused(brief, Overrides.NONE);
        assertThat(bad.problems()).as(bad.getMessage()).extracting(problem -> problem.kind()).contains(kind);
    }

    @Test(dataProvider = "briefs")
    public void messageNamesNoFolderOfTheMachineAndNoOptionOfACommand(ProblemKind kind, String brief) {
        String said = refused(brief, Overrides.NONE).getMessage();
        assertThat(said.replace(elsewhere.path("secret.csv").getParent().toString() + "' is", "")).doesNotContain(folder.path().toString(), elsewhere.path().toString());
        assertThat(said).doesNotContainPattern("(^|\\s)--[a-z]").doesNotContain("gorge ");
    }

    private static Overrides overrides(Map<String, String> settings, Map<String, Path> data, String where, String locale, Overrides.There there) {
        return new Overrides(settings, data, Optional.ofNullable(where), Optional.ofNullable(locale), there, InputNames.CALLS);
    }

    private static Overrides.There there(Map<String, String> tables, String zone) {
        return new Overrides.There(Optional.empty(), tables, Optional.empty(), Optional.ofNullable(zone), false, false);
    }

    @DataProvider
    Object[][] calls() {
        return new Object[][] {
            {"Overrides.settings", overrides(Map.of("goal", "1"), Map.of(), null, null, Overrides.There.NOWHERE)},
            {"Overrides.data", overrides(Map.of(), Map.of("april", folder.path("march.csv")), null, null, Overrides.There.NOWHERE)},
            {"Overrides.where", overrides(Map.of(), Map.of(), "mhw > 1", null, Overrides.There.NOWHERE)},
            {"Overrides.locale", overrides(Map.of(), Map.of(), null, "xx-ZZ-1", Overrides.There.NOWHERE)},
            {"Overrides.There.tables", overrides(Map.of(), Map.of(), null, null, there(Map.of("march", "generation"), null))},
            {"Overrides.There.zone", overrides(Map.of(), Map.of(), null, null, there(Map.of(), "UTC"))},
            {"Overrides.There.zone", overrides(Map.of(), Map.of(), null, null, there(Map.of(), "Europe/Nowhere"))},
        };
    }

    @Test(dataProvider = "calls")
    public void mistakeInWhatTheProgramGivesNamesTheCall(String call, Overrides overrides) {
        BadInput bad = refused(DATA + CHART, overrides);
        assertThat(bad.problems()).as(bad.getMessage()).extracting(problem -> problem.place().toString()).contains(call);
        assertThat(bad.getMessage()).doesNotContain("--");
    }

    @Test
    public void programMayNameThingsInItsOwnWords() {
        InputNames words = new InputNames() {
            @Override
            public String of(Input input) {
                return "the form's field " + input.name().toLowerCase(java.util.Locale.ROOT);
            }

            @Override
            public String allowing(AccessPolicy.Kind kind, String what) {
                return "ask the administrator";
            }

            @Override
            public String file(Path file, Path inside) {
                return "the uploaded file";
            }
        };
        Overrides given = new Overrides(Map.of("goal", "1"), Map.of(), Optional.empty(), Optional.empty(), Overrides.There.NOWHERE, words);
        assertThat(refused(DATA + CHART, given)).hasMessageStartingWith("the form's field settings: ");
        assertThat(refused(DATA.replace("march.csv", "'-'") + CHART, new Overrides(Map.of(), Map.of(), Optional.empty(), Optional.empty(), Overrides.There.NOWHERE, words)))
                .hasMessage("the uploaded file:2:15: the brief reads standard input; if you trust the brief, ask the administrator");
    }

    @Test
    public void statementsAloneNeedNoDatabaseAndRowsDo() {
        Path file = folder.file("there.yaml", DATA.replace("march.csv", "{table: generation, kinds: {station: text, mwh: number}}") + CHART);
        Brief brief = Brief.read(file);
        BadInput bad = catchThrowableOfType(BadInput.class, () -> brief.table());
        assertThat(bad).hasMessageContaining("Overrides.There.on").hasMessageNotContaining("--on");
        assertThat(bad.problems().get(0).kind()).isEqualTo(ProblemKind.MISSING);
    }
}
