package dev.trellisgorge.tables;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import de.siegmar.fastcsv.reader.CsvRecordHandler;
import de.siegmar.fastcsv.reader.FieldMismatchStrategy;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Source;
import dev.trellisgorge.table.Table;
import java.io.IOException;
import java.io.Reader;
import java.io.UncheckedIOException;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.Supplier;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Reads delimited text (RFC 4180): UTF-8, or what a byte-order mark or the layout says, a header row, and comma, semicolon,
 * tab or bar, found from the first records, or the character that a first line such as {@code sep=;} says. An empty or blank cell is
 * missing. Empty lines are passed over.
 *
 * <p>A column is of one kind: numbers, ISO dates, or {@code true}/{@code false} where every cell that is there is
 * one; else text. Cells that are numbers or dates as people write them are read as such, and the table's notes tell which
 * ({@link Layout} says how they are written where that can't be found). So they do of a last row that is a total.
 *
 * <p>Thread-safe: it holds no state.
 */
public final class DelimitedText {
    private static final int LISTED = 5;
    private static final Pattern STARTING_LINE = Pattern.compile("(?i)record starting at line (\\d+)");
    private static final String MARK = "\uFEFF";
    /** A first line that some spreadsheet programs write and heed. */
    private static final Pattern DELIMITER_LINE = Pattern.compile(MARK + "?(?i:sep)=([^\\p{L}\\p{N}\"])\\r?\\n");

    private DelimitedText() {
    }

    /**
     * @param name what the table is to be called
     * @throws BadInput where the file can't be read, is not UTF-8, is empty, has a header alone, names two columns
     *                  alike or one not at all, has a row with more or fewer cells than the header, or a quote that
     *                  is never closed; with the line of each
     */
    public static Table read(String name, Path file) {
        return read(name, new InputFile(file, file.toString(), Progress.NONE), Layout.FOUND);
    }

    static Table read(String name, InputFile source, Layout layout) {
        try {
            Charset charset = layout.charset().isPresent() ? layout.charset().get() : EncodedText.marked(source.path());
            return read(name, source, layout, charset);
        } catch (IOException e) {
            throw source.unreadable(e);
        }
    }

    private static Table read(String name, InputFile source, Layout given, Charset charset) throws IOException {
        Place place = source.place();
        try {
            String sample = sample(source.path(), charset);
            Matcher said = DELIMITER_LINE.matcher(sample);
            Layout layout = said.lookingAt() && given.headerRow().isEmpty() && Layout.canDelimit(said.group(1).charAt(0)) ? given.delimiter(given.delimiter().orElse(said.group(1).charAt(0))).headerRow(2) : given;
            char delimiter = layout.delimiter().orElseGet(() -> Delimiter.of(below(sample, layout.headerRow().orElse(1))));
            Set<Integer> texts = new HashSet<>();
            Optional<Table> table = Optional.empty();
            while (table.isEmpty()) {
                try (CsvReader<CsvRecord> records = records(source, charset, delimiter, layout.limits())) {
                    table = table(name, place, records, layout, texts);
                }
            }
            return table.get();
        } catch (CsvParseException e) {
            throw malformed(place, e.getMessage(), given.limits());
        } catch (CharacterCodingException e) {
            throw odd(source, charset);
        } catch (UncheckedIOException e) {
            throw e.getCause() instanceof CharacterCodingException ? odd(source, charset) : source.unreadable(e.getCause());
        }
    }

    private static BadInput odd(InputFile source, Charset charset) throws IOException {
        return new BadInput(Place.inFile(source.shown(), EncodedText.oddLine(source.path(), charset), 0), ProblemKind.UNREADABLE,
                "has bytes that are no text in " + charset.name() + "; save the file as UTF-8, or say its 'charset'");
    }

    /** What starts on a line. */
    static String below(String text, int line) {
        int from = 0;
        for (int passed = 1; passed < line; passed++) {
            int end = text.indexOf('\n', from);
            from = end < 0 ? text.length() : end + 1;
        }
        return text.substring(from);
    }

    /** The library says the line, and which limit was passed, in words. */
    private static BadInput malformed(Place place, String message, Limits limits) {
        Matcher line = STARTING_LINE.matcher(message);
        Place record = line.find() ? Place.inFile(place.file(), Integer.parseInt(line.group(1)), 0) : place;
        return new BadInput(record, ProblemKind.UNREADABLE, message.startsWith("Unclosed") ? "a quote is opened in this row and never closed"
                : message.contains("max field size") ? "a cell has more than the " + limits.characters() + " characters that are read"
                : message.contains("limit") && message.endsWith("fields") ? "a row has more than the " + limits.columns() + " cells that are read"
                : "is no delimited text: " + message);
    }

    /** The first characters of the file: enough to see what divides its cells. */
    static String sample(Path file, Charset charset) throws IOException {
        char[] buffer = new char[1 << 14];
        int filled = 0;
        try (Reader reader = EncodedText.reader(Files.newInputStream(file), charset)) {
            int read;
            while (filled < buffer.length && (read = reader.read(buffer, filled, buffer.length - filled)) > 0) {
                filled += read;
            }
        }
        return new String(buffer, 0, filled);
    }

    private static CsvReader<CsvRecord> records(InputFile source, Charset charset, char delimiter, Limits limits) throws IOException {
        return CsvReader.builder().fieldSeparator(delimiter).allowUnclosedQuote(false)
                .missingFieldStrategy(FieldMismatchStrategy.IGNORE).extraFieldStrategy(FieldMismatchStrategy.IGNORE)
                .build(CsvRecordHandler.builder().maxFields(limits.columns()).maxFieldSize(limits.characters()).build(), EncodedText.reader(source.open(), charset));
    }

    /**
     * @param texts the columns that are known to hold texts
     * @return empty where columns turned out to hold texts too late; then {@code texts} has them too. So that few readings are
     *         enough however many columns turn, it reads on for as many rows again to find the others
     */
    private static Optional<Table> table(String name, Place place, CsvReader<CsvRecord> records, Layout layout, Set<Integer> texts) {
        int headerRow = layout.headerRow().orElse(1);
        List<String> header = null;
        int headerLine = 0;
        List<GrowingColumn> growing = new ArrayList<>();
        Lines lines = new Lines();
        Problems problems = new Problems();
        int ragged = 0;
        Set<Integer> turned = new HashSet<>();
        int readTo = Integer.MAX_VALUE;
        for (CsvRecord record : records) {
            int line = Math.toIntExact(record.getStartingLineNumber());
            if (line < headerRow) {
                continue; // a title above the header
            }
            if (header == null) {
                headerLine = line;
                header = header(record, place, problems);
                layout.checkKinds(Place.inFile(place.file(), line, 0), header);
                for (int i = 0; i < header.size(); i++) {
                    growing.add(new GrowingColumn(layout, layout.kind(header.get(i)), texts.contains(i)));
                }
            } else if (record.getFieldCount() == header.size()) {
                lines.add(line);
                if ((long) lines.size() * header.size() > layout.limits().cells()) {
                    throw new BadInput(Place.inFile(place.file(), line, 0), ProblemKind.TOO_LARGE, "the file has more cells than the " + layout.limits().cells() + " that are read");
                }
                take(record, growing, turned);
                readTo = turned.isEmpty() ? readTo : Math.min(readTo, lines.size() * 2);
                if (lines.size() >= readTo) {
                    break;
                }
            } else if (++ragged <= LISTED) {
                problems.add(Place.inFile(place.file(), line, 0), ProblemKind.DATA, "the row has " + cells(record.getFieldCount())
                        + ", the header has " + header.size());
            }
        }
        if (texts.addAll(turned)) {
            return Optional.empty();
        }
        if (header == null) {
            throw new BadInput(place, ProblemKind.UNREADABLE, headerRow > 1 ? "ends above line " + headerRow + ", where the header is to stand" : "is empty; a table starts with a header row");
        }
        if (ragged > LISTED) {
            problems.add(place, ProblemKind.DATA, "the same on " + (ragged - LISTED) + " more rows");
        }
        if (lines.size() == 0 && problems.isEmpty()) {
            problems.add(place, ProblemKind.NO_ROWS, "has a header and no row below it");
        }
        List<Supplier<Column>> columns = new ArrayList<>();
        WrittenCells written = new WrittenCells(layout);
        int[] starts = lines.all();
        secondTable(growing, starts).ifPresent(row -> written.anotherTable(row, "line " + starts[row]));
        for (int i = 0; i < header.size(); i++) {
            GrowingColumn column = growing.get(i);
            String title = header.get(i);
            if (!title.isEmpty()) {
                columns.add(() -> column.column(title, written, row -> Place.inFile(place.file(), starts[row], 0)));
            } else if (!column.isBlank()) {
                problems.add(Place.inFile(place.file(), headerLine, 0), ProblemKind.DATA, "column " + (i + 1) + " has no name in the header");
            }
        }
        problems.throwIfAny();
        return Optional.of(written.table(name, new Source(place.file(), starts), columns));
    }

    /** A row of texts alone, below a blank line and where figures stood before. */
    private static OptionalInt secondTable(List<GrowingColumn> columns, int[] lines) {
        int before = 0;
        for (int row = 1; row + 1 < lines.length; row++) {
            int at = row;
            int figures = before;
            boolean blank = columns.stream().allMatch(column -> column.isBlank(at));
            boolean gap = lines[row] > lines[before] + 1 || row > before + 1;
            if (gap && !blank && columns.stream().filter(column -> !column.isBlank(at)).count() > 1 && columns.stream().allMatch(column -> column.isBlank(at) || column.isText(at))
                    && columns.stream().anyMatch(column -> !column.isBlank(at) && !column.isBlank(figures) && !column.isText(figures))) {
                return OptionalInt.of(row);
            }
            before = blank ? before : row;
        }
        return OptionalInt.empty();
    }

    private static void take(CsvRecord record, List<GrowingColumn> growing, Set<Integer> turned) {
        for (int i = 0; i < growing.size(); i++) {
            if ((turned.isEmpty() || !turned.contains(i)) && !growing.get(i).add(record.getField(i))) {
                turned.add(i);
            }
        }
    }

    static String cells(int count) {
        return count == 1 ? "1 cell" : count + " cells";
    }

    private static List<String> header(CsvRecord record, Place place, Problems problems) {
        if (record.getFieldCount() == 1 && !FileKind.isNamedText(place.file())) {
            throw new BadInput(place, ProblemKind.UNREADABLE, "looks like no table: nothing divides its first line into columns, and its name doesn't end in "
                    + String.join(", ", FileKind.TEXT_ENDINGS) + "; rename it if it is one");
        }
        List<String> names = new ArrayList<>();
        Map<String, Integer> seen = new HashMap<>();
        int line = Math.toIntExact(record.getStartingLineNumber());
        for (String field : record.getFields()) {
            String name = (names.isEmpty() && field.startsWith(MARK) ? field.substring(1) : field).strip();
            names.add(name);
            Integer before = name.isEmpty() ? null : seen.putIfAbsent(name, names.size());
            if (before != null) {
                problems.add(Place.inFile(place.file(), line, 0), ProblemKind.DATA, "columns " + before + " and " + names.size() + " are both named '" + name + "'");
            }
        }
        return names;
    }
}
