package dev.trellisgorge.brief;

import static dev.trellisgorge.brief.JsonSchemas.EXPRESSION;
import static dev.trellisgorge.brief.JsonSchemas.TEXT;
import static dev.trellisgorge.brief.JsonSchemas.WORDS;
import static dev.trellisgorge.brief.JsonSchemas.choice;
import static dev.trellisgorge.brief.JsonSchemas.described;
import static dev.trellisgorge.brief.JsonSchemas.either;
import static dev.trellisgorge.brief.JsonSchemas.ref;
import static dev.trellisgorge.brief.JsonSchemas.schema;
import static dev.trellisgorge.brief.JsonSchemas.titled;
import static dev.trellisgorge.brief.JsonSchemas.whole;

import dev.trellisgorge.pattern.Figure;
import java.util.List;
import java.util.Map;

/** What the board of a brief and its tiles take. */
final class BoardSchema {
    private static final Map<String, Object> SPAN = either(whole(BoardReader.MOST_COLUMNS), schema("type", "array", "items", whole(BoardReader.MOST_COLUMNS), "minItems", 1, "maxItems", 2));
    private static final String SPANS = "How many places of the grid it takes: so many across, or [across, down]; 1 by default.";
    static final MappingKeys BOARD = MappingKeys.NONE.required("tiles", schema("type", "array", "minItems", 1, "items", ref("tile")), "What stands on it, row by row.")
            .optional("title", WORDS, "One line above all.").optional("subtitle", WORDS, "One line below the title.")
            .optional("source", WORDS, "One line at the foot: where the figures come from.")
            .optional("columns", whole(BoardReader.MOST_COLUMNS), "How many tiles stand beside each other; 2 by default.");
    static final MappingKeys CHART = MappingKeys.NONE.required("chart", TEXT, "The chart, by its name.").optional("span", SPAN, SPANS);
    static final MappingKeys FIGURE = MappingKeys.NONE.required("figure", EXPRESSION, "The figure.").optional("table", TEXT, ChartSchema.CHARTED)
            .optional("shape", ref("shape"), "Steps that go on from the table's, for this figure alone.")
            .optional("total", choice(Figure.Total.class), "How several rows become one figure; there must be one row by default.")
            .optional("title", WORDS, "One line above it.").optional("text", WORDS, "One line below it.").optional("format", TEXT, "A number pattern as CLDR has it: #,##0.0.")
            .optional("slice", ref("slice"), "Only some rows.").optional("span", SPAN, SPANS);

    private BoardSchema() {
    }

    static Map<String, Object> board() {
        return titled("Board", described(BOARD.schema(), "Several charts and big figures on one page. Charts that are not on it keep a page of their own."));
    }

    static Map<String, Object> tile() {
        return titled("Tiles", schema("description", "A tile of the board.", "oneOf", List.of(titled("A chart", described(TEXT, "A chart, by its name.")),
                titled("A chart of another size", described(CHART.schema(), "A chart that takes several places of the grid.")),
                titled("A figure", described(FIGURE.schema(), "One big figure; a row of figures alone is no higher than they need.")))));
    }
}
