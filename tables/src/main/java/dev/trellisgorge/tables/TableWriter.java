package dev.trellisgorge.tables;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.util.DefaultIndenter;
import com.fasterxml.jackson.core.util.DefaultPrettyPrinter;
import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.QuoteStrategies;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import java.io.IOException;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.function.UnaryOperator;

/**
 * Writes tables for other programs, in UTF-8. Numbers are in the shortest form that reads back to the same
 * double. Streams are flushed and left open. Thread-safe: it holds no state.
 */
public final class TableWriter {
    private static final String FORMULA_SIGNS = "=+-@\t\r\n";

    private TableWriter() {
    }

    /** RFC 4180: commas, a header row, lines that end in CR LF; a missing cell is an empty field, an empty text a quoted one. */
    public static void csv(Table table, OutputStream out) throws IOException {
        csv(table, UnaryOperator.identity(), out);
    }

    /** The same, with {@code '} before each text and name that begins with a character that a reader of the file may take for a formula's. */
    public static void csvWithoutFormulas(Table table, OutputStream out) throws IOException {
        csv(table, text -> !text.isEmpty() && FORMULA_SIGNS.indexOf(text.charAt(0)) >= 0 ? "'" + text : text, out);
    }

    private static void csv(Table table, UnaryOperator<String> texts, OutputStream out) throws IOException {
        Writer text = new OutputStreamWriter(out, StandardCharsets.UTF_8);
        CsvWriter writer = CsvWriter.builder().quoteStrategy(QuoteStrategies.EMPTY).build(text);
        writer.writeRecord(table.columnNames().stream().map(texts).toList());
        String[] record = new String[table.columns().size()];
        for (int row = 0; row < table.rowCount(); row++) {
            for (int i = 0; i < record.length; i++) {
                Column column = table.columns().get(i);
                record[i] = !column.isPresent(row) ? null : column.kind() == Kind.TEXT ? texts.apply(column.written(row)) : column.written(row);
            }
            writer.writeRecord(record);
        }
        writer.flush();
        text.flush();
    }

    /**
     * One JSON object: each name with an array of its table's rows, each an object by column; a missing cell is
     * null, dates are ISO text.
     */
    public static void json(Map<String, Table> tables, OutputStream out) throws IOException {
        JsonGenerator json = generator(out);
        json.writeStartObject();
        for (Map.Entry<String, Table> entry : tables.entrySet()) {
            json.writeArrayFieldStart(entry.getKey());
            for (int row = 0; row < entry.getValue().rowCount(); row++) {
                row(entry.getValue(), row, json);
            }
            json.writeEndArray();
        }
        json.writeEndObject();
        json.writeRaw('\n');
        json.flush();
    }

    /** Writes JSON that people can read too, and leaves the stream open. */
    static JsonGenerator generator(OutputStream out) throws IOException {
        DefaultPrettyPrinter lines = new DefaultPrettyPrinter();
        lines.indentArraysWith(DefaultIndenter.SYSTEM_LINEFEED_INSTANCE.withLinefeed("\n"));
        lines.indentObjectsWith(new DefaultIndenter("  ", "\n"));
        JsonGenerator json = new JsonFactory().createGenerator(out).setPrettyPrinter(lines);
        json.disable(JsonGenerator.Feature.AUTO_CLOSE_TARGET);
        return json;
    }

    private static void row(Table table, int row, JsonGenerator json) throws IOException {
        json.writeStartObject();
        for (Column column : table.columns()) {
            json.writeFieldName(column.name());
            if (!column.isPresent(row)) {
                json.writeNull();
            } else if (column.kind() == Kind.NUMBER) {
                json.writeNumber(column.written(row));
            } else if (column.kind() == Kind.TRUTH) {
                json.writeBoolean(column.number(row) == 1);
            } else {
                json.writeString(column.written(row));
            }
        }
        json.writeEndObject();
    }
}
