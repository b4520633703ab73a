package dev.trellisgorge.brief;

import static dev.trellisgorge.brief.JsonSchemas.COUNT;
import static dev.trellisgorge.brief.JsonSchemas.EXPRESSION;
import static dev.trellisgorge.brief.JsonSchemas.NAMES;
import static dev.trellisgorge.brief.JsonSchemas.ONE_OR_SEVERAL;
import static dev.trellisgorge.brief.JsonSchemas.TEXT;
import static dev.trellisgorge.brief.JsonSchemas.TEXTS_BY_NAME;
import static dev.trellisgorge.brief.JsonSchemas.TRUTH;
import static dev.trellisgorge.brief.JsonSchemas.byName;
import static dev.trellisgorge.brief.JsonSchemas.choice;
import static dev.trellisgorge.brief.JsonSchemas.either;
import static dev.trellisgorge.brief.JsonSchemas.schema;
import static dev.trellisgorge.brief.JsonSchemas.titled;

import dev.trellisgorge.shape.Join;
import dev.trellisgorge.shape.Total;
import dev.trellisgorge.table.CalendarUnit;
import java.util.Map;

/** What the steps take that shape a table. */
final class StepSchema {
    static final MappingKeys JOIN = MappingKeys.NONE.required("table", TEXT, "The other table, by its name in data.")
            .required("on", either(TEXT, NAMES, TEXTS_BY_NAME), "The key column, several of them, or {here: there} where they are named differently.")
            .optional("way", choice(Join.Way.class), "left keeps rows without a match, their cells missing, as by default; inner drops them.")
            .optional("rename", TEXTS_BY_NAME, "Other names for columns of the other table, {old: new}, where both tables have them.")
            .optional("many", TRUTH, "Whether a row may match several rows and is doubled then; an error by default.");
    static final MappingKeys TOTAL = total();
    static final MappingKeys ORDER = MappingKeys.NONE.required("by", EXPRESSION, "The key; ties stand as they stood, and missing keys are last.")
            .optional("order", choice(ShapeReader.Way.class), "ascending by default.");
    static final MappingKeys PERIOD = MappingKeys.NONE.required("of", TEXT, "A column of dates.")
            .required("unit", choice(CalendarUnit.class), "The length of the period.")
            .optional("as", TEXT, "The new column's name; the unit by default.")
            .optional("fill", TRUTH, "Whether a row is added for each period between the first and the last that has none; false by default.")
            .optional("by", ONE_OR_SEVERAL, "Key columns: rows are added for each key on its own.");
    static final MappingKeys PREVIOUS = MappingKeys.NONE.required("of", TEXT, "The column to look back in.")
            .optional("as", TEXT, "The new column's name; previous and the column's by default.")
            .optional("period", TEXT, "A column of periods or dates: the cell of the calendar period before, missing where that has no row. Of the row before by default.")
            .optional("unit", choice(CalendarUnit.class), "How long those periods are; found from their cells by default, which those of a database are not looked at for.")
            .optional("by", ONE_OR_SEVERAL, "Key columns: the one before with the same keys.");
    static final MappingKeys PIVOT = MappingKeys.NONE.required("by", ONE_OR_SEVERAL, "The key columns, which stay.")
            .required("names", TEXT, "The column whose cells become the new columns' names.")
            .required("values", TEXT, "The column whose cells they hold.")
            .optional("columns", NAMES, "The names that get a column, in that order, so that the columns are known before the table is read; every name that stands there by default.");
    static final MappingKeys UNPIVOT = MappingKeys.NONE.optional("columns", ONE_OR_SEVERAL, "The columns to turn; or a pattern of their names in which * stands for anything: 20*, which takes the next year too.")
            .optional("all-but", ONE_OR_SEVERAL, "Or the columns that are not turned; all others are.")
            .optional("names", TEXT, "The new column of their names; name by default.")
            .optional("values", TEXT, "The new column of their cells; value by default.");

    /** Each step by its name. */
    static final MappingKeys ALL = MappingKeys.NONE.optional("keep", EXPRESSION, "Keeps the rows on which the condition is true; where it can't be told, the row goes.")
            .optional("add", byName(EXPRESSION), "Adds columns by their names; each may read the ones before it.")
            .optional("join", JOIN.schema(), "Puts another table's columns beside the rows. Keys without a match are reported.")
            .optional("total", TOTAL.schema(), "One row a key, in the order in which the keys come. Ratios are derived afterwards. A column that is totalled in two ways gets the way after its name: mwh sum, mwh mean.")
            .optional("order", ORDER.schema(), "Sorts the rows.")
            .optional("top", COUNT, "Keeps the first rows, so many.")
            .optional("period", PERIOD.schema(), "Adds the period in which a date lies, as ISO 8601 writes it: 2031-03-01, 2031-W09, 2031-03, 2031-Q1, 2031.")
            .optional("previous", PREVIOUS.schema(), "Adds what stood in a column before.")
            .optional("pivot", PIVOT.schema(), "Turns rows to columns: one row a key, one column a name.")
            .optional("unpivot", UNPIVOT.schema(), "Turns columns to rows: one row for each of them.")
            .optional("rename", TEXTS_BY_NAME, "Gives columns other names: {old: new}.")
            .optional("choose", ONE_OR_SEVERAL, "Keeps these columns, in that order.");

    private StepSchema() {
    }

    static Map<String, Object> step() {
        return titled("Steps", schema("description", "A step makes a table of the one before it, and each is a mapping of its one key. check reports what a step left out or added.",
                "oneOf", ALL.names().stream().map(name -> titled(name, MappingKeys.NONE.required(name, ALL.all().get(name), (String) ALL.all().get(name).get("description")).schema())).toList()));
    }

    private static MappingKeys total() {
        MappingKeys folds = MappingKeys.NONE.optional("by", ONE_OR_SEVERAL, "The key columns; one row in all by default.");
        for (Total.Fold fold : Total.Fold.values()) {
            folds = folds.optional(fold.toString(), ONE_OR_SEVERAL, meaning(fold));
        }
        return folds;
    }

    private static String meaning(Total.Fold fold) {
        return switch (fold) {
            case SUM -> "Columns to add up; missing cells count nothing, and a sum of missing cells alone is missing.";
            case MEAN -> "Columns to average over the cells that are there.";
            case COUNT -> "Columns of which to count the cells that are there.";
            case LEAST -> "Columns of which to take the least cell.";
            case GREATEST -> "Columns of which to take the greatest cell.";
            case FIRST -> "Columns of which to take the first cell that is there.";
            case LAST -> "Columns of which to take the last cell that is there.";
        };
    }
}
