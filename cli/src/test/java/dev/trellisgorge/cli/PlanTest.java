package dev.trellisgorge.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Files;
import java.util.List;
import java.util.stream.StreamSupport;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

public class PlanTest extends AtDesk {
    private static final ObjectMapper JSON = new ObjectMapper();

    @BeforeMethod
    void prepare() {
        desk.withDemo();
    }

    @Test
    public void stepsColumnsAndIdentitiesAreSaidInOrder() throws Exception {
        desk.with("demo/untitled.yaml", Files.readString(desk.path("demo/generation.yaml")).replaceAll("(?m)^    (title|subtitle):.*\n", ""));
        assertThat(desk.type("plan", "DESK/demo/untitled.yaml", "--chart", "march")).isEqualTo(new Desk.Answer(0, """
                march
                  from the table generation
                    1. keep the rows whose month is :month
                  rows: one for each station, in the order in which they first stand in generation
                  columns of the table: month (date), station (text), generated_mwh (number), licensed_mwh (number)
                  computed
                    below                  = CASE WHEN generated_mwh < :goal THEN generated_mwh END
                                             series
                    above                  = CASE WHEN generated_mwh >= :goal THEN generated_mwh END
                                             series
                    unjudged               = CASE WHEN generated_mwh IS NOT NULL AND :goal IS NULL THEN generated_mwh END
                                             series
                    label of below         = generated_mwh
                                             for labels and the drawing, read by words beside below
                    label of above         = generated_mwh
                                             for labels and the drawing, read by words beside above
                    label of unjudged      = generated_mwh
                                             for labels and the drawing, read by words beside unjudged
                    words beside below     = FORMAT("label of below", '#,##0')
                                             for labels and the drawing
                    words beside above     = FORMAT("label of above", '#,##0')
                                             for labels and the drawing
                    words beside unjudged  = FORMAT("label of unjudged", '#,##0')
                                             for labels and the drawing
                  must hold
                    each generated_mwh is in exactly one class
                    below + above + unjudged = generated_mwh
                  reported where it applies
                    equal to the limit, counted as above
                    above the limit by rounding alone
                    below the limit by rounding alone
                    no limit to compare with, so unjudged
                """, ""));
    }

    @Test
    public void everyDemoBriefHasAPlanWithTheSeriesThatItIsComputedTo() throws Exception {
        for (String brief : List.of("board", "energy", "fish", "flow", "generation", "levels", "looks", "monthly", "readings", "storage", "targets")) {
            assertThat(desk.type("plan", "DESK/demo/" + brief + ".yaml").err()).as(brief).isEmpty();
            ObjectNode plans = (ObjectNode) JSON.readTree(desk.type("plan", "DESK/demo/" + brief + ".yaml", "--as", "json").out());
            assertThat(plans.remove("figure 1") != null).as("the board alone has figures").isEqualTo(brief.equals("board"));
            plans.remove(List.of("figure 2", "figure 3"));
            JsonNode series = JSON.readTree(desk.type("series", "DESK/demo/" + brief + ".yaml", "--as", "json").out());
            assertThat(plans.fieldNames()).toIterable().as(brief).containsExactlyElementsOf(series::fieldNames);
            plans.properties().forEach(plan -> {
                List<String> planned = StreamSupport.stream(plan.getValue().get("columns").spliterator(), false).filter(column -> column.get("use").asText().equals("series"))
                        .map(column -> column.get("name").asText()).toList();
                assertThat(planned).as(brief).isNotEmpty();
                assertThat(plan.getValue().get("identities")).isNotEmpty();
                assertThat(series.get(plan.getKey()).toString()).as(plan.getKey()).contains(planned);
            });
        }
    }

    @Test
    public void nothingIsComputedForAPlan() throws Exception {
        // A category that stands twice is refused when the chart is computed, and not before.
        Files.writeString(desk.path("twice.csv"), "station,mwh\nWeir,1\nWeir,2\n");
        desk.with("b.yaml", "brief: 1\ndata: {t: twice.csv}\ncharts:\n  c: {pattern: columns, category: station, value: mwh}\n");
        assertThat(desk.type("plan", "DESK/b.yaml").code()).isZero();
        assertThat(desk.type("series", "DESK/b.yaml").code()).isEqualTo(2);
    }

    @Test
    public void mistakesInStepsAreFoundWithoutTheirRows() {
        desk.with("t.csv", "station,mwh\nWeir,1\n").with("b.yaml", "brief: 1\ndata: {t: t.csv}\nshape:\n  - keep: station > 3\ncharts:\n  c: {pattern: columns, category: station, value: mwh}\n");
        assertThat(desk.type("plan", "DESK/b.yaml")).satisfies(answer -> {
            assertThat(answer.code()).isEqualTo(2);
            assertThat(answer.err()).startsWith("gorge: DESK/b.yaml:4");
        });
        assertThat(desk.type("plan", "DESK/demo/generation.yaml", "--chart", "mach").err()).contains("Did you mean 'march'?");
    }
}
