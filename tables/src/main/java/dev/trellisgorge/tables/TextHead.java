package dev.trellisgorge.tables;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import dev.trellisgorge.file.Temporaries;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.RandomAccessFile;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.IntStream;

/**
 * The head of a file of delimited text.
 *
 * @param delimiter what divides the cells
 * @param rows      the first rows, of numbers, dates or texts
 * @param last      the last row's cells as they stand, which may be totals
 * @param limits    how much is read; whoever reads the whole of it refuses what is more
 */
public record TextHead(char delimiter, Table rows, List<String> last, Limits limits) implements FileHead {
    private static final int LINES = 2_000;
    private static final int TAIL = 1 << 16;
    private static final int LONGEST = 1 << 20;

    public TextHead {
        Objects.requireNonNull(rows, "rows");
        last = List.copyOf(last);
        Objects.requireNonNull(limits, "limits");
    }

    @Override
    public PlainRows rows(Path file, Progress progress) {
        InputFile source = new InputFile(file, file.toString(), progress);
        try {
            return TextParts.of(source, this);
        } catch (IOException e) {
            throw source.unreadable(e);
        }
    }

    /**
     * Looks at a file.
     *
     * @return empty where the lines are not plain: a cell that is read otherwise than it is written, a column without a cell or of truths, a mark or a layout at the start
     */
    static Optional<TextHead> of(Path file, Layout layout) {
        if (!layout.isPlain()) {
            return Optional.empty();
        }
        Path held = null;
        try {
            List<String> lines = lines(file);
            if (lines.size() < 2 || lines.get(0).startsWith("\uFEFF") || lines.get(0).toLowerCase(Locale.ROOT).startsWith("sep=")) {
                return Optional.empty();
            }
            held = Temporaries.make();
            Files.write(held, lines, StandardCharsets.UTF_8);
            char delimiter = layout.delimiter().orElseGet(() -> Delimiter.of(String.join("\n", lines.subList(0, Math.min(50, lines.size())))));
            Table table = DelimitedText.read("head", new InputFile(held, "head.csv", Progress.NONE), layout.delimiter(delimiter).totalRow(Layout.TotalRow.KEEP));
            boolean plain = table.notes().isEmpty() && table.columns().stream().allMatch(column -> column.kind() != Kind.TRUTH && IntStream.range(0, column.size()).anyMatch(column::isPresent));
            List<String> last = plain ? cells(lastLine(file), delimiter) : List.of();
            return plain && last.size() == table.columns().size() ? Optional.of(new TextHead(delimiter, table, last, layout.limits())) : Optional.empty();
        } catch (BadInput | IOException e) {
            return Optional.empty(); // whoever reads the whole of it says what is wrong
        } finally {
            if (held != null) {
                Temporaries.remove(held);
            }
        }
    }

    private static List<String> lines(Path file) throws IOException {
        List<String> lines = new ArrayList<>();
        long read = 0;
        try (BufferedReader reader = Files.newBufferedReader(file, StandardCharsets.UTF_8)) {
            for (String line = reader.readLine(); line != null && lines.size() < LINES && read < LONGEST; line = reader.readLine()) {
                lines.add(line);
                read += line.length();
            }
        }
        return lines;
    }

    private static String lastLine(Path file) throws IOException {
        try (RandomAccessFile bytes = new RandomAccessFile(file.toFile(), "r")) {
            byte[] tail = new byte[(int) Math.min(TAIL, bytes.length())];
            bytes.seek(bytes.length() - tail.length);
            bytes.readFully(tail);
            return new String(tail, StandardCharsets.UTF_8).stripTrailing().replaceAll("(?s).*[\\n\\r]", "");
        }
    }

    private static List<String> cells(String line, char delimiter) throws IOException {
        try (CsvReader<CsvRecord> records = CsvReader.builder().fieldSeparator(delimiter).ofCsvRecord(line)) {
            return records.stream().findFirst().map(CsvRecord::getFields).orElse(List.of());
        } catch (CsvParseException | UncheckedIOException e) {
            return List.of(); // a cell of several lines
        }
    }
}
