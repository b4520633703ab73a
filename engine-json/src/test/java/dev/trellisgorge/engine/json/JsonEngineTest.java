package dev.trellisgorge.engine.json;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.networknt.schema.JsonSchema;
import com.networknt.schema.JsonSchemaFactory;
import com.networknt.schema.SpecVersion;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.chart.Size;
import dev.trellisgorge.engine.Engines;
import dev.trellisgorge.engine.Options;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.engine.Tile;
import dev.trellisgorge.pattern.Figure;
import dev.trellisgorge.pattern.Gallery;
import dev.trellisgorge.pattern.Gallery.Example;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.table.Column;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class JsonEngineTest {
    private static final JsonSchema SCHEMA = JsonSchemaFactory.getInstance(SpecVersion.VersionFlag.V202012)
            .getSchema(JsonEngine.class.getResourceAsStream("plain-charts.schema.json"));
    private static final ObjectMapper MAPPER = new ObjectMapper();

    private static JsonNode drawn(Page page) {
        try {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            Engines.draw(List.of(page), "json", Options.of(new Size(640, 400)), out);
            return MAPPER.readTree(out.toByteArray());
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    @DataProvider
    Object[][] all() {
        return Gallery.all().stream().map(example -> new Object[] {example}).toArray(Object[][]::new);
    }

    @Test(dataProvider = "all")
    public void everyPatternFollowsTheSchemaWithItsCellsAndSeriesInOrder(Example example) {
        PlainChart chart = example.plain();
        JsonNode json = drawn(Page.of(chart));
        assertThat(SCHEMA.validate(json)).isEmpty();
        JsonNode drawn = json.at("/pages/0/tiles/0/chart");
        assertThat(drawn.get("rows").asInt()).isEqualTo(chart.data().rowCount());
        chart.plan().columns().stream().filter(column -> !chart.plan().wording().contains(column.name())).forEach(column -> {
            Column cells = chart.data().column(column.name());
            JsonNode found = drawn.get("columns").get(column.name()).get("cells");
            for (int row = 0; row < cells.size(); row++) {
                assertThat(found.get(row).isNull()).isEqualTo(!cells.isPresent(row));
                assertThat(found.get(row).isNumber() ? found.get(row).asDouble() : 0).isEqualTo(found.get(row).isNumber() ? cells.number(row) : 0);
            }
        });
        List<String> names = drawn.get("drawing").findValues("column").stream().map(JsonNode::asText).filter(name -> !name.startsWith("label of ")).toList();
        assertThat(names).containsAll(chart.withoutEmptySeries().series().stream().map(Series::column).toList());
        for (int row = 0; row < chart.data().rowCount() && drawn.has("categories"); row++) {
            assertThat(drawn.get("categories").get(row).asText()).isEqualTo(chart.categoryText(row));
        }
    }

    @Test
    public void schemaRefusesWhatIsNotOfTheForm() {
        JsonNode json = drawn(Page.of(Gallery.all().get(0).plain()));
        ((ObjectNode) json.at("/pages/0/tiles/0/chart")).put("colour", "blue");
        assertThat(SCHEMA.validate(json)).isNotEmpty();
    }

    @Test
    public void boardHoldsItsChartsAndFigures() {
        Tile figure = new Tile.OfFigure(Figure.of("size").total(Figure.Total.GREATEST).title("Most").text("MWh").over(Gallery.ROWS, Gallery.SETTINGS));
        JsonNode json = drawn(new Page("board", "The board", 2, List.of(Tile.of(Gallery.all().get(0).plain()), figure)));
        assertThat(SCHEMA.validate(json)).isEmpty();
        assertThat(json.at("/pages/0/width").asInt()).isEqualTo(640);
        assertThat(json.at("/pages/0/tiles/1/figure").toString()).isEqualTo("{\"title\":\"Most\",\"value\":520.5,\"written\":\"520.5\",\"text\":\"MWh\"}");
    }
}
