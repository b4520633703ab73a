package dev.trellisgorge.brief;

import static dev.trellisgorge.brief.JsonSchemas.COUNT;
import static dev.trellisgorge.brief.JsonSchemas.ONE_OR_SEVERAL;
import static dev.trellisgorge.brief.JsonSchemas.TEXT;
import static dev.trellisgorge.brief.JsonSchemas.byName;
import static dev.trellisgorge.brief.JsonSchemas.choice;
import static dev.trellisgorge.brief.JsonSchemas.described;
import static dev.trellisgorge.brief.JsonSchemas.either;
import static dev.trellisgorge.brief.JsonSchemas.ref;
import static dev.trellisgorge.brief.JsonSchemas.schema;
import static dev.trellisgorge.brief.JsonSchemas.titled;

import dev.trellisgorge.sql.Dialect;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.tables.Layout;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Stream;

/** The schema of the raw tables. */
final class SourceSchema {
    private static final String KINDS = "In a database a column is of the kind that its type says; 'number' of whole numbers that would be codes, as a figure keeps fewer digits, and 'text' of whole or decimal numbers are what can be stated instead.";
    private static final Map<String, Object> SIGN = schema("type", "string", "minLength", 1, "maxLength", 1);

    private static final Map<String, Object> KIND_OR_UNIT = choice(Stream.concat(Stream.of(Kind.values()), Stream.of(Layout.TimeUnit.values())).map(each -> each.name().toLowerCase(Locale.ROOT)).toList());
    private static final String OWN_STEPS = "Steps that this table goes through before all else, as to be totalled before it is joined; they join the other tables as those are read.";

    private static final MappingKeys HEADER = MappingKeys.NONE.optional("header-row", COUNT, "The line on which the header starts, where a title stands above it; 1 is the first. Of a sheet it is found.");
    /** How delimited text is laid out, a sheet, JSON, and the cells of all three. */
    static final MappingKeys OF_TEXTS = MappingKeys.NONE.optional("delimiter", SIGN, "What divides the cells of a text. Comma, semicolon, tab and bar are found, and a first line such as sep=; counts.")
            .optional("charset", TEXT, "Of a text: UTF-8, UTF-16, ISO-8859-1, windows-1252 … A byte-order mark counts; UTF-8 else.").and(HEADER);
    static final MappingKeys OF_SHEETS = MappingKeys.NONE.optional("sheet", TEXT, "Of a workbook; the first by default.")
            .optional("range", TEXT, "The cells of a sheet that the table stands on, its header first: B3:F40, whole columns, B:F, or the name that the workbook has for a range or a list object.").and(HEADER)
            .optional("header-rows", COUNT, "How many rows the header of a sheet takes. Found from merged cells; a column is named by all of its header cells.")
            .optional("rows", choice(Layout.Rows.class), "Of a sheet: all, and a note says which are hidden, or visible, those that are neither hidden nor filtered out.");
    static final MappingKeys OF_JSON = MappingKeys.NONE.optional("at", TEXT, "Of JSON: where its rows are in the document, as a path of RFC 9535 that is made of names, [*] and places in arrays: $.items[*]. An object in a row becomes columns such as plant.river.");
    static final MappingKeys OF_CELLS = MappingKeys.NONE.optional("kinds", byName(KIND_OR_UNIT), "What columns hold, by their names. A cell that is not that is an error, with its place; by default the cells "
                        + "tell. A column of codes (00123) is text. hours and days are numbers: what the times of day and durations of a sheet are counted in, hours by default.")
            .optional("locale", TEXT, "How figures and the names of months are written, as a language and a country: de-DE, en-GB.")
            .optional("decimal", schema("enum", List.of(".", ",")), "The decimal sign, the other one groups; the one that all cells of a column take by default.")
            .optional("dates", ONE_OR_SEVERAL, "How dates are written beside ISO 8601: dd.MM.yyyy. A pattern of months, quarters or years alone (MM/yyyy, QQQ yyyy) gives 2031-03, 2031-Q1.")
            .optional("times-of-day", byName(TEXT), "Columns of hours from midnight, made of dates that have a time of day: by the names of the dates, what they are to be called, as in {seen: hour}. A column of dates itself has no times.")
            .optional("missing", ONE_OR_SEVERAL, "What stands for a missing cell in columns of numbers, dates and truths, beside a blank; - and n/a by default.")
            .optional("total-row", choice(Layout.TotalRow.class), "A last row that is the total of the rows above: report (the default), keep, or drop.");
    static final MappingKeys FILE = MappingKeys.NONE.required("file", schema("type", "string"), "The file, as it is named from the brief's folder; in it or below, unless --allow folder=DIRECTORY lets it be elsewhere. - is standard input, where --allow input lets it.")
            .and(OF_TEXTS).and(OF_SHEETS).and(OF_JSON).and(OF_CELLS)
            .optional("shape", ref("shape"), OWN_STEPS);
    static final MappingKeys QUERY = MappingKeys.NONE.required("jdbc", TEXT, "The URL of the database, where --allow database lets it be asked; its driver is on the class path.")
            .required("query", TEXT, "The query, in the database's SQL.")
            .optional("user", TEXT, "Who logs in, where the database asks.")
            .optional("password-variable", TEXT, "The environment variable that holds the password, where --allow environment=NAME lets it be read.")
            .optional("kinds", byName(choice(Kind.class)), KINDS)
            .optional("shape", ref("shape"), OWN_STEPS);
    static final MappingKeys THERE = MappingKeys.NONE.optional("table", TEXT, "The table or view, with its schema where it needs one: plant.generation.")
            .optional("query", TEXT, "Or a query of that database that gives the rows; it reads tables, and no files.")
            .optional("rows-by", TEXT, "The column that numbers the rows. Without one they are in no order, and a step or column that reads their order is an error.")
            .optional("kinds", byName(choice(Kind.class)), "What its columns hold, by their names, for gorge sql where no database is asked. " + KINDS)
            .optional("shape", ref("shape"), OWN_STEPS);
    static final MappingKeys RUN_ON = MappingKeys.NONE.required("url", TEXT, "jdbc:…, spark://HOST:PORT, or duckdb: and the file of an embedded database, in memory where none is named; where --allow database lets it be asked.")
            .optional("user", TEXT, "Who logs in, where the database asks.")
            .optional("password-variable", TEXT, "The environment variable that holds the password, where --allow environment=NAME lets it be read.")
            .optional("dialect", choice(Dialect.names()), "What the database speaks, where the URL does not tell.");

    private SourceSchema() {
    }

    static Map<String, Object> source() {
        Map<String, Object> alone = schema("title", "A file alone", "description", "A file beside the brief, its layout found: .json, .ndjson or .jsonl, a workbook (.xlsx, .ods), "
                + "or delimited text under any other ending; - is standard input, where --allow input lets it.", "type", "string");
        Map<String, Object> file = titled("A file and its layout", described(FILE.schema(), "Cells are numbers, dates, true or false, or text. Figures as people write them are read as such (1,234.5, € 12, 25%, (70), 70-), and check reports which. "
                + "A key that says nothing of such a file is an error."));
        Map<String, Object> query = titled("A query", described(QUERY.schema(), "What a query gives, by any JDBC driver; its rows come over."));
        Map<String, Object> there = titled("A table of the database", described(THERE.schema(), "Rows that stay in the database that run-on or --on names: steps and series are computed there."));
        return titled("Data", described(either(alone, file, query, there), "A raw table."));
    }

    static Map<String, Object> runOn() {
        Map<String, Object> alone = schema("title", "A URL alone", "description", "The URL of the database.", "type", "string");
        return titled("Where it is computed", described(either(alone, titled("A URL and a login", described(RUN_ON.schema(), "A database that asks who comes."))), "The database in which steps and series are computed, of files too: they are copied into it."));
    }
}
