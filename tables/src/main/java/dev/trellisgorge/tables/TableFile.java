package dev.trellisgorge.tables;

import dev.trellisgorge.engine.Temporaries;
import dev.trellisgorge.engine.Writing;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.table.Table;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;

/** Reads a table from a file of any kind that is known: the ending says which. */
public final class TableFile {
    private TableFile() {
    }

    /**
     * Reads {@code .json} as an array of objects or an object of arrays, {@code .ndjson} and {@code .jsonl} as an object a line,
     * {@code .xlsx} and {@code .ods} as workbooks, and all else as delimited text.
     *
     * @param name what the table is to be called
     * @throws BadInput where the file can't be read or is not of its kind, with file and line
     */
    public static Table read(String name, Path file, Layout layout, Progress progress) {
        InputFile source = new InputFile(file, file.toString(), progress);
        if (Files.exists(file) && !Files.isRegularFile(file) && !Files.isDirectory(file)) {
            throw new BadInput(source.place(), "is a device or a pipe, which may have no end; give a file, or '" + FileKind.STANDARD_INPUT + "' and pipe it in");
        }
        return switch (FileKind.of(source.shown())) {
            case JSON -> JsonTable.read(name, source, layout);
            case SHEET -> FileKind.ending(source.shown()).equals("ods") ? OpenDocumentTable.read(name, source, layout) : WorkbookTable.read(name, source, layout);
            default -> DelimitedText.read(name, source, layout);
        };
    }

    /** The same, and nobody waits for it. */
    public static Table read(String name, Path file, Layout layout) {
        return read(name, file, layout, Progress.NONE);
    }

    /** The same with everything found. */
    public static Table read(String name, Path file) {
        return read(name, file, Layout.FOUND);
    }

    /**
     * Reads a stream to its end: JSON where its first sign is a bracket, delimited text else. It is held in a file of its own
     * meanwhile, as its start is looked at first.
     */
    public static Table read(String name, InputStream in, Layout layout, Progress progress) {
        String shown = FileKind.SHOWN_INPUT;
        try {
            Path held = Temporaries.make();
            try {
                Files.copy(in, held, StandardCopyOption.REPLACE_EXISTING);
                InputFile source = new InputFile(held, shown, progress);
                return startsAsJson(held) ? JsonTable.read(name, source, layout) : DelimitedText.read(name, source, layout);
            } finally {
                Temporaries.remove(held);
            }
        } catch (IOException e) {
            throw new BadInput(Place.inFile(shown), "can't be read into the folder for temporary files, '" + Temporaries.folder() + "': " + Writing.reason(e));
        }
    }

    private static boolean startsAsJson(Path file) throws IOException {
        try (InputStream in = Files.newInputStream(file)) {
            int sign = in.read();
            while (sign == ' ' || sign == '\n' || sign == '\r' || sign == '\t') {
                sign = in.read();
            }
            return sign == '[' || sign == '{';
        }
    }
}
