package dev.trellisgorge.tables;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Table;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;

/**
 * What the first rows of a large file tell, where they are as plain as can be: an engine that reads such files by itself then reads the same
 * cells, if all others are as plain. Immutable and thread-safe.
 */
public sealed interface FileHead permits TextHead, JsonHead {

    /** The first rows, of numbers, dates, texts or truths. */
    Table rows();

    /** A reading of a file whose head this is. @param progress told how far it is, from any thread @throws BadInput where it can't be read */
    PlainRows rows(Path file, Progress progress);

    /** The same, and some of its rows are read before anybody asks for them. */
    default PlainRows rowsAhead(Path file, Progress progress) {
        return new AheadRows(rows(file, progress), fields());
    }

    /** Whether a file whose head this is goes on as plainly to its end, so that whoever reads it reads the same cells. Reads all of it. @throws BadInput where it can't be read */
    default boolean isOfAll(Path file) {
        try (PlainRows rows = rows(file, Progress.NONE)) {
            return rows.areReadToTheEnd(fields());
        } catch (IOException e) {
            throw new InputFile(file, file.toString(), Progress.NONE).unreadable(e);
        }
    }

    /** The columns and their kinds. */
    default List<Field> fields() {
        return rows().columns().stream().map(column -> Field.of(column.name(), column.kind())).toList();
    }

    /**
     * Looks at a file.
     *
     * @return empty where no engine reads such a file alike: it is neither delimited text nor JSON, or its first rows are not plain
     */
    static Optional<FileHead> of(Path file, Layout layout) {
        return switch (FileKind.of(file.toString())) {
            case TEXT -> TextHead.of(file, layout).map(FileHead.class::cast);
            case JSON -> JsonHead.of(file, layout).map(FileHead.class::cast);
            default -> Optional.empty();
        };
    }
}
