package dev.trellisgorge.tables;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.test.Folder;
import java.util.stream.IntStream;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Rows that stand somewhere in a JSON document, and objects in them. */
public class JsonPathTest {
    private static final String DOCUMENT = """
            {"made": "2031-04-02", "odd name": [{"v": 1}], "years": [
              {"year": 2030, "plants": [{"name": "Fern Pool", "mwh": 120, "site": {"river": "Wend", "at": {"km": 3}}}, {"name": "Mill Race", "mwh": 80, "site": null}]},
              {"year": 2031, "plants": [{"name": "Low Lock", "mwh": 12345678901234567, "site": {"river": "Arle"}}]}],
             "columns": {"name": ["a", "b"], "v": [1, 2]}, "one": {"name": "a", "v": 5}, "nothing": []}
            """;

    private Folder folder;

    @BeforeMethod
    public void make() {
        folder = new Folder();
    }

    @AfterMethod
    public void clean() {
        folder.close();
    }

    private Table at(String path) {
        return TableFile.read("t", folder.file("t.json", DOCUMENT), Layout.FOUND.at(JsonPath.of(path).orElseThrow()));
    }

    private static String written(Table table) {
        return table.columnNames() + IntStream.range(0, table.rowCount()).mapToObj(row -> table.columns().stream().map(column -> column.isPresent(row) ? column.written(row) : "-").toList().toString()).toList().toString();
    }

    @DataProvider
    Object[][] paths() {
        String plants = "[name, mwh, site.river, site.at.km][[Fern Pool, 120, Wend, 3], [Mill Race, 80, -, -]";
        return new Object[][] {{"$.years[0].plants[*]", plants + "]"}, {"$.years[0].plants", plants + "]"}, {"$.years[*].plants[*]", plants + ", [Low Lock, 12345678901234567, Arle, -]]"}, {"$['years'][0][\"plants\"][ * ]", plants + "]"},
            {"$.years[*]['plants'][0]", "[name, mwh, site.river, site.at.km][[Fern Pool, 120, Wend, 3], [Low Lock, 12345678901234567, Arle, -]]"}, {"$['odd name']", "[v][[1]]"}, {"$.columns", "[name, v][[a, 1], [b, 2]]"}, {"$.one", "[name, v][[a, 5]]"}};
    }

    @Test(dataProvider = "paths")
    public void rowsAreWhatThePathLeadsTo(String path, String expected) {
        assertThat(written(at(path))).isEqualTo(expected);
    }

    @Test
    public void cellsKeepTheirLinesAndKinds() {
        Table table = at("$.years[0].plants[*]");
        assertThat(table.column("mwh").kind()).isEqualTo(Kind.NUMBER);
        assertThat(table.rowPlace(1).toString()).endsWith("t.json:2");
        assertThat(at("$.years[*].plants[*]").column("mwh").kind()).as("one is a code").isEqualTo(Kind.TEXT);
    }

    @DataProvider
    Object[][] mistakes() {
        return new Object[][] {{"$.yeers[*]", "there is nothing at $.yeers[*]. Did you mean 'years'?"}, {"$.years[*].plant[*]", "there is nothing at $.years[*].plant[*]. Did you mean 'plants'?"}, {"$.years[7]", "there is nothing at $.years[7]."},
            {"$.made", ":1:10: what stands at $.made must be objects, which are rows"}, {"$.years[*].year", ":2:12: what stands at $.years[*].year must be objects, which are rows"}, {"$.nothing", "has no row"}};
    }

    @Test(dataProvider = "mistakes")
    public void pathThatLeadsToNoRowsSaysSo(String path, String message) {
        assertThatThrownBy(() -> at(path)).isInstanceOf(BadInput.class).hasMessageContaining(message);
    }

    @Test
    public void otherQueriesAreNoPaths() {
        for (String query : new String[] {"", "items", "$..items", "$.items[?@.v > 1]", "$.items[0:2]", "$.items[-1]", "$.items[0,1]", "$.items[*", "$.items extra", "$.1a"}) {
            assertThat(JsonPath.of(query)).as(query).isEmpty();
        }
        assertThat(JsonPath.of("$")).isPresent();
        assertThat(JsonPath.of("$.a['it\\'s'].\u00f6l").orElseThrow().segments()).containsExactly(new JsonPath.Name("a"), new JsonPath.Name("it's"), new JsonPath.Name("\u00f6l"));
    }
}
