package dev.trellisgorge.tables;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonLocation;
import com.fasterxml.jackson.core.JsonParseException;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.JsonToken;
import com.fasterxml.jackson.core.StreamReadFeature;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Source;
import dev.trellisgorge.table.Table;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Reads JSON (RFC 8259) as a table: an array of objects, an object of arrays of one length, or objects one after another
 * (a line each). A key that an object does not have, and null, are missing.
 *
 * <p>A column holds numbers, or true and false, or dates where every text in it is an ISO date; else texts, numbers among them
 * as they are written. What is nested is refused, and so is a key that an object has twice.
 */
final class JsonTable {
    private final String shown;
    private final JsonParser parser;
    private final Map<String, JsonColumn> columns = new LinkedHashMap<>();
    private final List<Integer> lines = new ArrayList<>();

    private JsonTable(String shown, JsonParser parser) {
        this.shown = shown;
        this.parser = parser;
    }

    /** @param shown what messages call the file */
    static Table read(String name, Path file, String shown) {
        JsonFactory factory = JsonFactory.builder().enable(StreamReadFeature.STRICT_DUPLICATE_DETECTION).build();
        try (InputStream in = Files.newInputStream(file); JsonParser parser = factory.createParser(in)) {
            return new JsonTable(shown, parser).table(name);
        } catch (JsonProcessingException e) {
            JsonLocation at = e.getLocation();
            Place place = at == null ? Place.inFile(shown) : Place.inFile(shown, at.getLineNr(), at.getColumnNr());
            throw new BadInput(place, sentence(e));
        } catch (IOException e) {
            throw DelimitedText.unreadable(Place.inFile(shown), file, e);
        }
    }

    private static String sentence(JsonProcessingException e) {
        String message = e.getOriginalMessage();
        if (message.startsWith("Duplicate field")) {
            return "the key '" + message.replaceAll("(?s).*'(.*)'.*", "$1") + "' stands here a second time";
        }
        String first = message.lines().findFirst().orElse("");
        return "is no JSON: " + (e instanceof JsonParseException ? first : first + " (the limit of the reader)");
    }

    private Table table(String name) throws IOException {
        JsonToken first = parser.nextToken();
        if (first == null) {
            throw new BadInput(Place.inFile(shown), "is empty; a table is an array of objects, an object of arrays, or an object a line");
        }
        if (first == JsonToken.START_ARRAY) {
            while (parser.nextToken() != JsonToken.END_ARRAY) {
                row("an item of the array must be an object, a row");
            }
            end();
        } else if (first == JsonToken.START_OBJECT) {
            objects();
        } else {
            throw at("a table is an array of objects, an object of arrays, or an object a line");
        }
        if (columns.isEmpty()) {
            throw new BadInput(Place.inFile(shown), "has no row");
        }
        int rows = lines.isEmpty() ? columns.values().stream().mapToInt(JsonColumn::size).max().orElse(0) : lines.size();
        List<Column> made = new ArrayList<>();
        columns.forEach((key, column) -> made.add(column.filled(rows).column(key)));
        return Table.of(name, new Source(shown, lines.stream().mapToInt(Integer::intValue).toArray()), made);
    }

    private void end() throws IOException {
        if (parser.nextToken() != null) {
            throw at("something stands after the end of the table");
        }
    }

    /** One object of arrays, or several objects; the first value of the first one says which. */
    private void objects() throws IOException {
        JsonToken key = parser.nextToken();
        if (key == JsonToken.FIELD_NAME && parser.nextToken() == JsonToken.START_ARRAY) {
            arrays();
            return;
        }
        lines.add(parser.currentTokenLocation().getLineNr());
        cells(key);
        while (parser.nextToken() != null) {
            row("a line must be an object, a row");
        }
    }

    private void arrays() throws IOException {
        String first = parser.currentName();
        for (JsonToken token = JsonToken.START_ARRAY; token != JsonToken.END_OBJECT; token = parser.nextToken()) {
            String key = parser.currentName();
            if (token == JsonToken.FIELD_NAME && parser.nextToken() != JsonToken.START_ARRAY) {
                throw at("'" + key + "' must be an array, a column, as '" + first + "' is");
            }
            JsonColumn column = new JsonColumn();
            while (parser.nextToken() != JsonToken.END_ARRAY) {
                cell(column, key);
            }
            columns.put(key, column);
            if (column.size() != columns.get(first).size()) {
                throw at("'" + key + "' has " + column.size() + " cells, and '" + first + "' " + columns.get(first).size());
            }
        }
        end();
    }

    private void row(String otherwise) throws IOException {
        if (parser.currentToken() != JsonToken.START_OBJECT) {
            throw at(otherwise);
        }
        lines.add(parser.currentTokenLocation().getLineNr());
        cells(parser.nextToken() == JsonToken.FIELD_NAME ? next() : JsonToken.END_OBJECT);
    }

    private JsonToken next() throws IOException {
        parser.nextToken();
        return JsonToken.FIELD_NAME;
    }

    /** The cells of a row; the parser stands on the value of the first key. */
    private void cells(JsonToken key) throws IOException {
        JsonToken at = key;
        while (at == JsonToken.FIELD_NAME) {
            String name = parser.currentName();
            cell(columns.computeIfAbsent(name, n -> new JsonColumn()).filled(lines.size() - 1), name);
            at = parser.nextToken();
            if (at == JsonToken.FIELD_NAME) {
                parser.nextToken();
            }
        }
    }

    private void cell(JsonColumn column, String key) throws IOException {
        switch (parser.currentToken()) {
            case VALUE_NULL -> column.addMissing();
            case VALUE_STRING -> column.addText(parser.getText());
            case VALUE_TRUE, VALUE_FALSE -> column.addTruth(parser.getBooleanValue());
            case VALUE_NUMBER_INT, VALUE_NUMBER_FLOAT -> column.addNumber(parser.getText(), parser.getDoubleValue());
            default -> throw at("'" + key + "' holds " + (parser.currentToken() == JsonToken.START_ARRAY ? "an array" : "an object")
                    + ", and a cell holds one value; take it apart first");
        }
    }

    private BadInput at(String sentence) {
        JsonLocation at = parser.currentTokenLocation();
        return new BadInput(Place.inFile(shown, at.getLineNr(), at.getColumnNr()), sentence);
    }
}
