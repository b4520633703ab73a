package dev.trellisgorge.tables;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonLocation;
import com.fasterxml.jackson.core.JsonParseException;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.JsonToken;
import com.fasterxml.jackson.core.StreamReadConstraints;
import com.fasterxml.jackson.core.StreamReadFeature;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Source;
import dev.trellisgorge.table.Table;
import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Supplier;

/**
 * Reads JSON (RFC 8259) as a table: an array of objects, an object of arrays of one length, or objects one after another
 * (a line each); of a part of a document where a path leads to it. A key that an object does not have, and null, are missing. The keys of an object in a row
 * are columns by both names: {@code plant.river}.
 *
 * <p>A column holds numbers, or true and false; or what its texts are where all of them are numbers or dates as people write
 * them, which is reported; else texts, numbers among them as they are written. An array in a row is refused, and so is a key that an object has twice.
 */
final class JsonTable {
    /** So many keys are looked through for the nearest. */
    private static final int MOST_NEAR = 100;

    private final String shown;
    private final JsonParser parser;
    private final Layout layout;
    private final Set<String> texts;
    private final Map<String, JsonColumn> columns = new LinkedHashMap<>();
    private final Lines lines = new Lines();
    private final int most;
    private int deepest;

    private JsonTable(int most, String shown, JsonParser parser, Layout layout, Set<String> texts) {
        this.most = most;
        this.shown = shown;
        this.parser = parser;
        this.layout = layout;
        this.texts = texts;
    }

    /** A column turned out to hold texts after figures that were taken. */
    private static final class TextsAfterAll extends Exception {
        TextsAfterAll() {
            super(null, null, false, false);
        }
    }

    static Table read(String name, InputFile source, Layout layout) {
        return first(Integer.MAX_VALUE, name, source, layout);
    }

    /** The first rows of a file, where it holds rows and not columns. */
    static Table first(int most, String name, InputFile source, Layout layout) {
        JsonFactory factory = JsonFactory.builder().enable(StreamReadFeature.STRICT_DUPLICATE_DETECTION)
                .streamReadConstraints(StreamReadConstraints.builder().maxStringLength(layout.limits().characters()).build()).build();
        Set<String> texts = new HashSet<>();
        while (true) {
            try (InputStream in = source.open(); JsonParser parser = factory.createParser(in)) {
                return new JsonTable(most, source.shown(), parser, layout, texts).table(name);
            } catch (TextsAfterAll e) {
                // once more, knowing that
            } catch (JsonProcessingException e) {
                JsonLocation at = e.getLocation();
                Place place = at == null ? source.place() : Place.inFile(source.shown(), at.getLineNr(), at.getColumnNr());
                throw new BadInput(place, ProblemKind.UNREADABLE, sentence(e));
            } catch (IOException e) {
                throw source.unreadable(e);
            }
        }
    }

    private static String sentence(JsonProcessingException e) {
        String message = e.getOriginalMessage();
        if (message.startsWith("Duplicate field")) {
            return "the key '" + message.replaceAll("(?s).*'(.*)'.*", "$1") + "' stands here a second time";
        }
        String first = message.lines().findFirst().orElse("").replaceFirst(" \\(start marker.*", "");
        if (!(e instanceof JsonParseException)) {
            return "is no JSON: " + first + " (the limit of the reader)";
        }
        // Without what stands there: the file may be none that its reader should see.
        return "is no JSON: " + (first.startsWith("Unexpected end") ? "it ends too early" : first.startsWith("Unrecognized token") || first.startsWith("Unexpected character")
                ? "an unexpected character or word; texts stand in double quotes" : first.replaceAll("['(].*", "").strip());
    }

    private Table table(String name) throws IOException, TextsAfterAll {
        JsonToken first = parser.nextToken();
        if (first == null) {
            throw new BadInput(Place.inFile(shown), ProblemKind.UNREADABLE, "is empty; a table is an array of objects, an object of arrays, or an object a line");
        }
        if (layout.at().isPresent()) {
            part(layout.at().get());
        } else if (first == JsonToken.START_ARRAY) {
            items();
            if (lines.size() < most) {
                end();
            }
        } else if (first == JsonToken.START_OBJECT) {
            objects();
        } else {
            throw at("a table is an array of objects, an object of arrays, or an object a line");
        }
        if (columns.isEmpty()) {
            throw new BadInput(Place.inFile(shown), ProblemKind.NO_ROWS, "has no row");
        }
        columns.entrySet().removeIf(column -> column.getValue().isEmpty() && columns.keySet().stream().anyMatch(other -> other.startsWith(column.getKey() + "."))); // null for an object
        layout.checkKinds(Place.inFile(shown), List.copyOf(columns.keySet()));
        int rows = lines.size() == 0 ? columns.values().stream().mapToInt(JsonColumn::size).max().orElse(0) : lines.size();
        int[] starts = lines.all();
        WrittenCells written = new WrittenCells(layout);
        List<Supplier<Column>> made = new ArrayList<>();
        columns.forEach((key, column) -> made.add(() -> column.filled(rows).column(key, layout, written,
                row -> row < starts.length ? Place.inFile(shown, starts[row], 0) : Place.inFile(shown).within("row " + (row + 1)))));
        return written.table(name, new Source(shown, starts), made);
    }

    private void items() throws IOException, TextsAfterAll {
        while (lines.size() < most && parser.nextToken() != JsonToken.END_ARRAY) {
            row("an item of the array must be an object, a row");
        }
    }

    /** What a path leads to. */
    private void part(JsonPath path) throws IOException, TextsAfterAll {
        Set<String> near = new LinkedHashSet<>();
        if (!follow(path, 0, near)) {
            throw new BadInput(Place.inFile(shown), ProblemKind.UNKNOWN_NAME, "there is nothing at " + path + ". " + (near.isEmpty() ? "" : Nearest.hint(((JsonPath.Name) path.segments().get(deepest)).name(), near)).strip());
        }
        end();
    }

    /** @param near takes the keys that stand where a name of the path was not found, at the deepest place @return whether something stands there */
    private boolean follow(JsonPath path, int from, Set<String> near) throws IOException, TextsAfterAll {
        if (from == path.segments().size()) {
            value(path);
            return true;
        }
        JsonPath.Segment segment = path.segments().get(from);
        boolean object = parser.currentToken() == JsonToken.START_OBJECT;
        if (!object && parser.currentToken() != JsonToken.START_ARRAY) {
            return false;
        }
        boolean found = false;
        JsonToken end = object ? JsonToken.END_OBJECT : JsonToken.END_ARRAY;
        List<String> keys = new ArrayList<>();
        for (int i = 0; parser.nextToken() != end; i++) {
            boolean matches = segment instanceof JsonPath.Every || segment instanceof JsonPath.Index index && !object && index.at() == i || segment instanceof JsonPath.Name name && object && name.name().equals(parser.currentName());
            if (object) {
                keys.add(parser.currentName());
                parser.nextToken();
            }
            if (matches) {
                found |= follow(path, from + 1, near);
            } else {
                parser.skipChildren();
            }
        }
        if (!found && object && segment instanceof JsonPath.Name && from >= deepest && near.size() < MOST_NEAR) {
            if (from > deepest) {
                near.clear();
            }
            deepest = from;
            near.addAll(keys);
        }
        return found;
    }

    /** A row, or where the path leads to one value a table. */
    private void value(JsonPath path) throws IOException, TextsAfterAll {
        if (path.isOfSeveral() || parser.currentToken() != JsonToken.START_ARRAY && parser.currentToken() != JsonToken.START_OBJECT) {
            row("what stands at " + path + " must be objects, which are rows");
        } else if (parser.currentToken() == JsonToken.START_ARRAY) {
            items();
        } else {
            int line = parser.currentTokenLocation().getLineNr();
            JsonToken key = parser.nextToken();
            if (key == JsonToken.FIELD_NAME && parser.nextToken() == JsonToken.START_ARRAY) {
                columns();
            } else {
                lines.add(line);
                cells(key, "");
            }
        }
    }

    private void end() throws IOException {
        if (parser.nextToken() != null) {
            throw at("something stands after the end of the table");
        }
    }

    /** One object of arrays, or several objects; the first value of the first one says which. */
    private void objects() throws IOException, TextsAfterAll {
        JsonToken key = parser.nextToken();
        if (key == JsonToken.FIELD_NAME && parser.nextToken() == JsonToken.START_ARRAY) {
            if (most < Integer.MAX_VALUE) {
                throw at("holds columns");
            }
            columns();
            end();
            return;
        }
        lines.add(parser.currentTokenLocation().getLineNr());
        cells(key, "");
        while (lines.size() < most && parser.nextToken() != null) {
            row("a line must be an object, a row");
        }
    }

    private void columns() throws IOException, TextsAfterAll {
        String first = parser.currentName();
        for (JsonToken token = JsonToken.START_ARRAY; token != JsonToken.END_OBJECT; token = parser.nextToken()) {
            String key = parser.currentName();
            if (token == JsonToken.FIELD_NAME && parser.nextToken() != JsonToken.START_ARRAY) {
                throw at("'" + key + "' must be an array, a column, as '" + first + "' is");
            }
            JsonColumn column = made(key);
            columns.put(key, column);
            while (parser.nextToken() != JsonToken.END_ARRAY) {
                cell(column, key);
            }
            if (column.size() != columns.get(first).size()) {
                throw at("'" + key + "' has " + DelimitedText.cells(column.size()) + ", and '" + first + "' " + columns.get(first).size());
            }
        }
    }

    private void row(String otherwise) throws IOException, TextsAfterAll {
        if (parser.currentToken() != JsonToken.START_OBJECT) {
            throw at(otherwise);
        }
        lines.add(parser.currentTokenLocation().getLineNr());
        cells(parser.nextToken() == JsonToken.FIELD_NAME ? next() : JsonToken.END_OBJECT, "");
    }

    private JsonToken next() throws IOException {
        parser.nextToken();
        return JsonToken.FIELD_NAME;
    }

    /** The cells of a row; the parser stands on the value of the first key. @param of the names of the objects that they are in, each with a point */
    private void cells(JsonToken key, String of) throws IOException, TextsAfterAll {
        JsonToken at = key;
        while (at == JsonToken.FIELD_NAME) {
            String name = of + parser.currentName();
            if (parser.currentToken() == JsonToken.START_OBJECT && most == Integer.MAX_VALUE) {
                cells(parser.nextToken() == JsonToken.FIELD_NAME ? next() : JsonToken.END_OBJECT, name + ".");
            } else {
                JsonColumn column = columns.containsKey(name) ? columns.get(name) : made(name);
                columns.put(name, column);
                if (column.size() == lines.size()) {
                    throw at("the column '" + name + "' stands in this row a second time");
                }
                cell(column.filled(lines.size() - 1), name);
            }
            at = parser.nextToken();
            if (at == JsonToken.FIELD_NAME) {
                parser.nextToken();
            }
        }
    }

    private JsonColumn made(String key) {
        if (columns.size() == layout.limits().columns()) {
            throw at("'" + key + "' is a column more than the " + layout.limits().columns() + " that are read");
        }
        return new JsonColumn(texts.contains(key) || layout.kind(key).filter(kind -> kind == Kind.TEXT).isPresent());
    }

    private void cell(JsonColumn column, String key) throws IOException, TextsAfterAll {
        if ((long) columns.size() * column.size() > layout.limits().cells()) {
            throw at("the file has more cells than the " + layout.limits().cells() + " that are read");
        }
        boolean taken = switch (parser.currentToken()) {
            case VALUE_NULL -> {
                column.addMissing();
                yield true;
            }
            case VALUE_STRING -> column.addText(parser.getText());
            case VALUE_TRUE, VALUE_FALSE -> column.addFigure(Kind.TRUTH, parser.getText(), parser.getBooleanValue() ? 1 : 0);
            case VALUE_NUMBER_INT, VALUE_NUMBER_FLOAT -> Kinds.isInexact(parser.getText()) ? column.addText(parser.getText()) : column.addFigure(Kind.NUMBER, parser.getText(), parser.getDoubleValue());
            default -> throw at("'" + key + "' holds " + (parser.currentToken() == JsonToken.START_ARRAY ? "an array" : "an object")
                    + ", and a cell holds one value; take it apart first");
        };
        if (!taken) {
            texts.add(key);
            throw new TextsAfterAll();
        }
    }

    private BadInput at(String sentence) {
        JsonLocation at = parser.currentTokenLocation();
        return new BadInput(Place.inFile(shown, at.getLineNr(), at.getColumnNr()), ProblemKind.UNREADABLE, sentence);
    }
}
