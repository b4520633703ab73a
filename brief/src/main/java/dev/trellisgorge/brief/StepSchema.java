package dev.trellisgorge.brief;

import static dev.trellisgorge.brief.SchemaKeys.EXPRESSION;
import static dev.trellisgorge.brief.SchemaKeys.NAMES;
import static dev.trellisgorge.brief.SchemaKeys.ONE_OR_SEVERAL;
import static dev.trellisgorge.brief.SchemaKeys.TEXT;
import static dev.trellisgorge.brief.SchemaKeys.TEXTS_BY_NAME;
import static dev.trellisgorge.brief.SchemaKeys.TRUTH;
import static dev.trellisgorge.brief.SchemaKeys.byName;
import static dev.trellisgorge.brief.SchemaKeys.choice;
import static dev.trellisgorge.brief.SchemaKeys.either;
import static dev.trellisgorge.brief.SchemaKeys.schema;
import static dev.trellisgorge.brief.SchemaKeys.titled;
import static dev.trellisgorge.brief.SchemaKeys.whole;

import dev.trellisgorge.shape.Total;
import dev.trellisgorge.table.CalendarUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** The schema of the steps that shape a table. */
final class StepSchema {
    private final List<Object> steps = new ArrayList<>();

    private StepSchema() {
    }

    static Map<String, Object> step() {
        StepSchema all = new StepSchema();
        all.rows();
        all.periods();
        all.columns();
        return titled("Steps", schema("description", "A step makes a table of the one before it, and each is a mapping of its one key. check tells what a step left out or added.",
                "oneOf", all.steps));
    }

    private void step(String name, Map<String, Object> takes, String means) {
        steps.add(titled(name, new SchemaKeys().required(name, takes, means).mapping()));
    }

    private void rows() {
        step("keep", EXPRESSION, "Keeps the rows on which the condition is true; where it can't be told, the row goes.");
        step("join", new SchemaKeys()
                .required("table", TEXT, "The other table, by its name in data.")
                .required("on", either(TEXT, NAMES, TEXTS_BY_NAME), "The key column, several of them, or {here: there} where they are named differently.")
                .optional("way", choice("left", "inner"), "left keeps rows without a match, their cells missing, as by default; inner drops them.")
                .optional("rename", TEXTS_BY_NAME, "Other names for columns of the other table, {old: new}, where both tables have them.")
                .optional("many", TRUTH, "Whether a row may match several rows and is doubled then; an error by default.").mapping(),
                "Puts another table's columns beside the rows. Keys without a match are reported.");
        SchemaKeys folds = new SchemaKeys().optional("by", ONE_OR_SEVERAL, "The key columns; one row in all by default.");
        for (Total.Fold fold : Total.Fold.values()) {
            folds.optional(fold.toString(), ONE_OR_SEVERAL, meaning(fold));
        }
        step("total", folds.mapping(), "One row a key, in the order in which the keys come. Ratios are derived afterwards. A column that is totalled in two ways gets the way "
                + "after its name: mwh sum, mwh mean.");
        step("order", new SchemaKeys().required("by", EXPRESSION, "The key; ties stand as they stood, and missing keys are last.")
                .optional("order", choice("ascending", "descending"), "ascending by default.").mapping(), "Sorts the rows.");
        step("top", whole(1, Integer.MAX_VALUE), "Keeps the first rows, so many.");
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

    private void periods() {
        step("period", new SchemaKeys().required("of", TEXT, "A column of dates.")
                .required("unit", choice((Object[]) CalendarUnit.values()), "The length of the period.")
                .optional("as", TEXT, "The new column's name; the unit by default.")
                .optional("fill", TRUTH, "Whether a row is added for each period between the first and the last that has none; false by default.")
                .optional("by", ONE_OR_SEVERAL, "Key columns: rows are added for each key on its own.").mapping(),
                "Adds the period in which a date lies, as ISO 8601 writes it: 2031-03-01, 2031-W09, 2031-03, 2031-Q1, 2031.");
        step("previous", new SchemaKeys().required("of", TEXT, "The column to look back in.")
                .optional("as", TEXT, "The new column's name; previous and the column's by default.")
                .optional("period", TEXT, "A column of periods or dates: the cell of the calendar period before, missing where that has no row. Of the row before by default.")
                .optional("unit", choice((Object[]) CalendarUnit.values()), "How long those periods are; found from their cells by default, which those of a database are not looked at for.")
                .optional("by", ONE_OR_SEVERAL, "Key columns: the one before with the same keys.").mapping(), "Adds what stood in a column before.");
    }

    private void columns() {
        step("add", byName(EXPRESSION), "Adds columns by their names; each may read the ones before it.");
        step("pivot", new SchemaKeys().required("by", ONE_OR_SEVERAL, "The key columns, which stay.")
                .required("names", TEXT, "The column whose cells become the new columns' names.")
                .required("values", TEXT, "The column whose cells they hold.")
                .optional("columns", NAMES, "The names that get a column, in that order, so that the columns are known before the table is read; every name that stands there by default.").mapping(), "Turns rows to columns: one row a key, one column a name.");
        step("unpivot", new SchemaKeys().optional("columns", ONE_OR_SEVERAL, "The columns to turn; or a pattern of their names in which * stands for anything: 20*, which takes the next year too.")
                .optional("all-but", ONE_OR_SEVERAL, "Or the columns that are not turned; all others are.")
                .optional("names", TEXT, "The new column of their names; name by default.")
                .optional("values", TEXT, "The new column of their cells; value by default.").mapping(), "Turns columns to rows: one row for each of them.");
        step("rename", TEXTS_BY_NAME, "Gives columns other names: {old: new}.");
        step("choose", ONE_OR_SEVERAL, "Keeps these columns, in that order.");
    }
}
