package dev.trellisgorge.brief;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.networknt.schema.JsonSchema;
import com.networknt.schema.JsonSchemaFactory;
import com.networknt.schema.SpecVersion;
import dev.trellisgorge.pattern.Patterns;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Stream;
import org.snakeyaml.engine.v2.api.Load;
import org.snakeyaml.engine.v2.api.LoadSettings;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class BriefSchemaTest {
    private static final JsonSchema SCHEMA = JsonSchemaFactory.getInstance(SpecVersion.VersionFlag.V202012).getSchema(written());
    private static final String CHART = "brief: 1\ndata: {t: t.csv}\ncharts:\n  c: {pattern: columns, category: a, value: b%s}\n";

    private static String written() {
        try {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            BriefSchema.write(out);
            return out.toString(StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    private static JsonNode json(String yaml) {
        return new ObjectMapper().valueToTree(new Load(LoadSettings.builder().build()).loadFromString(yaml));
    }

    @DataProvider
    Object[][] briefs() throws IOException {
        try (Stream<Path> files = Files.list(Path.of("..", "demo"))) {
            return files.filter(file -> file.toString().endsWith(".yaml")).map(file -> new Object[] {file}).toArray(Object[][]::new);
        }
    }

    @Test(dataProvider = "briefs")
    public void everyDemoBriefFollowsIt(Path brief) throws IOException {
        assertThat(SCHEMA.validate(json(Files.readString(brief)))).isEmpty();
    }

    @DataProvider
    Object[][] patterns() {
        return Patterns.all().stream().map(type -> new Object[] {type.brief()}).toArray(Object[][]::new);
    }

    @Test(dataProvider = "patterns")
    public void everyPatternsOwnBriefFollowsIt(String chart) {
        String indented = String.join("\n", Arrays.stream(chart.split("\n")).map(line -> "    " + line).toList());
        assertThat(SCHEMA.validate(json("brief: 1\ndata: {t: t.csv}\ncharts:\n  c:\n" + indented + "\n"))).as(chart).isEmpty();
    }

    @DataProvider
    Object[][] steps() {
        return Stream.of("keep: a > 1", "add: {x: a + 1}", "join: {table: t, on: [a, b], way: inner, many: true}", "join: {table: t, on: {a: b}}",
                "total: {by: [a], sum: b, mean: [b]}", "period: {of: d, unit: month, as: m, fill: true, by: [a]}", "previous: {of: a, period: m}",
                "pivot: {by: a, names: b, values: c}", "unpivot: {columns: [a, b]}", "order: {by: a, order: descending}", "top: 3", "rename: {a: b}", "choose: [a]")
                .map(step -> new Object[] {step}).toArray(Object[][]::new);
    }

    @Test(dataProvider = "steps")
    public void everyStepFollowsIt(String step) {
        assertThat(SCHEMA.validate(json(CHART.formatted("") + "shape:\n  - " + step + "\n"))).isEmpty();
        assertThat(SCHEMA.validate(json(CHART.formatted(", shape: [{" + step + "}]")))).isEmpty();
    }

    @DataProvider
    Object[][] sources() {
        return Stream.of("t.csv", "{file: t.csv, delimiter: ';', charset: UTF-8, header-row: 2, total-row: drop, shape: [{top: 3}]}",
                "{file: t.xlsx, sheet: April, range: 'B3:F9', header-row: 3, header-rows: 2}", "{file: t.csv, kinds: {a: text, b: number, d: date, ok: truth}}",
                "{file: t.csv, locale: de-DE, decimal: ',', dates: dd.MM.yyyy, missing: none}", "{file: t.csv, dates: [dd.MM.yyyy, MM/yyyy], missing: [none, '?']}",
                "{jdbc: 'jdbc:h2:mem:x', query: SELECT 1, user: u, password-variable: P}").map(source -> new Object[] {source}).toArray(Object[][]::new);
    }

    @Test(dataProvider = "sources")
    public void everyKindOfTableFollowsIt(String source) {
        assertThat(SCHEMA.validate(json(CHART.formatted("").replace("t: t.csv", "t: " + source)))).isEmpty();
    }

    @DataProvider
    Object[][] mistakes() {
        return Stream.of("brief: 2\ndata: {t: t.csv}\ncharts: {c: {pattern: columns, category: a, value: b}}", "brief: 1\ncharts: {}", CHART.formatted(", titel: x"),
                CHART.formatted(", classify: {split: {at: 1}, sign: {}}"), CHART.formatted(", classify: {splt: {at: 1}}"), CHART.formatted(", orientation: up"),
                CHART.formatted(", colors: {below: \"#12\"}"), CHART.formatted(", labels: {at: top}"), CHART.formatted("").replace("columns", "colums"),
                CHART.formatted("").replace(", value: b", ""), CHART.formatted("") + "shape: [{keep: a > 1, top: 2}]", CHART.formatted("") + "shape: [{sort: a}]",
                CHART.formatted("") + "shape: [{period: {of: d, unit: fortnight}}]", CHART.formatted("") + "settings: {goal: [high]}",
                CHART.formatted("") + "board: {tiles: []}", CHART.formatted(", title: \"{a\""), CHART.formatted(", title: \"a}\""), CHART.formatted(", scale: [1]"), CHART.formatted(", legend: up"), CHART.formatted("") + "theme: {scale: [0, 1]}", CHART.formatted(", slice: {a: {form: 1}}"), CHART.formatted("") + "board: {tiles: [{figure: a, total: som}]}",
                CHART.formatted("").replace("t: t.csv", "t: {file: t.csv, shet: x}"),
                CHART.formatted("").replace("t: t.csv", "t: {file: t.csv, kinds: {a: figure}}"), CHART.formatted("").replace("t: t.csv", "t: {file: t.csv, header-row: 0}"), CHART.formatted("").replace("t: t.csv", "t: {jdbc: x}"))
                .map(brief -> new Object[] {brief}).toArray(Object[][]::new);
    }

    @Test(dataProvider = "mistakes")
    public void whatTheReaderRefusesItRefusesToo(String brief) {
        assertThat(SCHEMA.validate(json(brief))).isNotEmpty();
    }

    @DataProvider
    Object[][] singleMistakes() {
        String board = CHART.formatted("") + "board: {tiles: [%s]}";
        String variance = CHART.formatted("").replace("columns", "variance").replace("value: b", "value: b, against: %s%s");
        return Stream.of(CHART.formatted(", titel: x"), CHART.formatted(", labels: {fromat: x}"), CHART.formatted(", cap: {shair: 0.5}"), CHART.formatted(", text: {bold: titel}"), variance.formatted("{previous: fortnight}", ""), variance.formatted("{previous: row, of: b}", ""),
                variance.formatted("c", ", as: percnt"), variance.formatted("c", ", as: [percent, amont]"), CHART.formatted("").replace("columns", "dial").replace("category: a, ", "").replace("value: b", "value: b, scale: [0, 1], bands: [{name: low, to: 1, too: 1}]"), CHART.formatted(", labels: [{at: end}, {at: top}]"), CHART.formatted(", classify: {split: {at: 1, att: 1}}"), CHART.formatted(", classify: {splt: {at: 1}}"),
                CHART.formatted(", axis: {figurs: shown}"), CHART.formatted(", beside: [b, {figure: b, fromat: x}]"), CHART.formatted(", rank: {bye: b}"), CHART.formatted(", slice: {a: {from: 1, too: 2}}"), CHART.formatted("").replace("columns", "colums"),
                CHART.formatted("").replace(", value: b", ""), CHART.formatted("") + "shape: [{sort: a}]", CHART.formatted("") + "shape: [{total: {bye: a}}]", CHART.formatted("") + "shape: [{join: {table: t, on: a, ways: inner}}]",
                CHART.formatted("") + "shape: [{unpivot: {collumns: [a]}}]", CHART.formatted("") + "shape: [{period: {of: d, unit: fortnight}}]", CHART.formatted("") + "settings: {goal: {value: 1, units: MWh}}",
                board.formatted("{chart: c, spam: 2}"), board.formatted("{figure: a, total: som}"), CHART.formatted("") + "run-on: {url: 'jdbc:h2:mem:x', usr: a}", CHART.formatted("").replace("t: t.csv", "t: {file: t.csv, shet: x}"),
                CHART.formatted("").replace("t: t.csv", "t: {file: t.csv, kinds: {a: figure}}"), CHART.formatted("").replace("t: t.csv", "t: {jdbc: x, query: y, usr: z}"), CHART.formatted("").replace("t: t.csv", "t: {table: x, rows-bye: y}"))
                .map(brief -> new Object[] {brief}).toArray(Object[][]::new);
    }

    /** An editor shows one line for one slip, and not one for each thing that the mapping could have been. */
    @Test(dataProvider = "singleMistakes")
    public void oneMistakeIsOneError(String brief) {
        assertThat(SCHEMA.validate(json(brief))).hasSize(1);
    }

    /** Each mapping says which keys it has and each list what is in it, down to the last. */
    @Test
    public void nothingIsLeftOpen() throws IOException {
        assertThat(open("", new ObjectMapper().readTree(written()))).isEmpty();
    }

    private static List<String> open(String path, JsonNode schema) {
        List<String> open = new ArrayList<>();
        boolean isSchema = !path.endsWith("/properties") && !path.endsWith("/$defs");
        if (isSchema && schema.path("type").asText().equals("object") && !schema.has("additionalProperties") && !schema.has("allOf") && !path.contains("/if")) {
            open.add(path);
        }
        if (isSchema && schema.path("type").asText().equals("array") && !schema.has("items") && !path.contains("/if")) {
            open.add(path);
        }
        schema.properties().forEach(field -> open.addAll(open(path + "/" + field.getKey(), field.getValue())));
        for (int i = 0; schema.isArray() && i < schema.size(); i++) {
            open.addAll(open(path + "/" + i, schema.get(i)));
        }
        return open;
    }
}
