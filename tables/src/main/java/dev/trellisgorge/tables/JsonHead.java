package dev.trellisgorge.tables;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;

/**
 * The head of a JSON file of rows.
 *
 * @param rows   the first ones
 * @param lines  whether each stands on a line of its own; else they are the items of an array
 * @param limits how much is read; whoever reads the whole of it refuses what is more
 */
public record JsonHead(Table rows, boolean lines, Limits limits) implements FileHead {
    private static final int ROWS = 2_000;

    public JsonHead {
        Objects.requireNonNull(rows, "rows");
        Objects.requireNonNull(limits, "limits");
    }

    @Override
    public PlainRows rows(Path file, Progress progress) {
        InputFile source = new InputFile(file, file.toString(), progress);
        try {
            return JsonParts.of(source, this);
        } catch (IOException e) {
            throw source.unreadable(e);
        }
    }

    /**
     * Looks at a file.
     *
     * @return empty where the rows are not plain: an object of arrays, a cell that is read otherwise than it is written, a column without a cell, keys that differ in upper and lower case alone
     */
    static Optional<JsonHead> of(Path file, Layout layout) {
        try {
            int first = first(file);
            if (!layout.isPlain() || first != '[' && first != '{') {
                return Optional.empty();
            }
            Table rows = JsonTable.first(ROWS, "head", new InputFile(file, file.toString(), Progress.NONE), layout.totalRow(Layout.TotalRow.KEEP));
            boolean plain = rows.notes().isEmpty() && isTold(rows.columnNames()) && rows.columns().stream().allMatch(JsonHead::isFilled);
            return plain ? Optional.of(new JsonHead(rows, first == '{', layout.limits())) : Optional.empty();
        } catch (BadInput | IOException e) {
            return Optional.empty(); // whoever reads the whole of it says what is wrong
        }
    }

    private static int first(Path file) throws IOException {
        try (InputStream in = Files.newInputStream(file)) {
            return in.read();
        }
    }

    private static boolean isFilled(Column column) {
        return IntStream.range(0, column.size()).anyMatch(column::isPresent);
    }

    private static boolean isTold(List<String> names) {
        Set<String> all = new HashSet<>();
        return names.stream().allMatch(name -> !name.isBlank() && all.add(name.toLowerCase(Locale.ROOT)));
    }
}
