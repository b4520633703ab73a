package dev.trellisgorge.tables;

import dev.trellisgorge.file.Temporaries;
import dev.trellisgorge.file.AtomicFiles;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.table.Table;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Optional;
import java.util.List;

/** Reads a table from a file of any kind that is known: the ending says which. */
public final class TableFile {
    /** Bytes of delimited text from which on its parts are read side by side. */
    private static final long LARGE = 1 << 20;

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
        return read(name, file, file.toString(), layout, progress);
    }

    /** The same. @param shown what messages call the file; it ends as the file's name does */
    public static Table read(String name, Path file, String shown, Layout layout, Progress progress) {
        InputFile source = new InputFile(file, shown, progress);
        if (Files.exists(file) && !Files.isRegularFile(file) && !Files.isDirectory(file)) {
            throw new BadInput(source.place(), ProblemKind.UNREADABLE, "is a device or a pipe, which may have no end; give a file, or '" + FileKind.STANDARD_INPUT + "' and pipe it in");
        }
        return switch (FileKind.of(source.shown())) {
            case JSON -> JsonTable.read(name, source, layout);
            case SHEET -> FileKind.ending(source.shown()).equals("ods") ? OpenDocumentTable.read(name, source, layout) : WorkbookTable.read(name, source, layout);
            case PARQUET -> throw new BadInput(source.place(), ProblemKind.UNSUPPORTED, "is a Parquet file, which a brief reads: name it in 'data'");
            default -> text(name, source, layout);
        };
    }

    /** A large file is read in parts side by side, for as long as it is plain. */
    private static Table text(String name, InputFile source, Layout layout) {
        Optional<TextHead> head = size(source.path()) >= LARGE ? TextHead.of(source.path(), layout) : Optional.empty();
        return head.flatMap(plain -> PlainTable.read(name, source, plain)).orElseGet(() -> DelimitedText.read(name, source, layout));
    }

    private static long size(Path file) {
        try {
            return Files.size(file);
        } catch (IOException e) {
            return 0; // what is wrong with it is reported where it is read
        }
    }

    /**
     * Reads a file whose layout nobody knows: title lines above a header, the charset, dates as they are written, a total row and
     * the sheet are looked for, and reported. Errors as for {@link #read}.
     */
    public static Found find(String name, Path file, Progress progress) {
        InputFile source = new InputFile(file, file.toString(), progress);
        return new Finder(name, source, FileKind.of(source.shown()), layout -> read(name, file, layout, progress)).find();
    }

    /** The same of a stream, which is read to its end. */
    public static Found find(String name, InputStream in, Progress progress) {
        return held(in, progress, source -> {
            FileKind kind = startsAsJson(source.path()) ? FileKind.JSON : FileKind.TEXT;
            return new Finder(name, source, kind, layout -> kind == FileKind.JSON ? JsonTable.read(name, source, layout) : DelimitedText.read(name, source, layout)).find();
        });
    }

    /** The names of a workbook's sheets; none where it can't be read. */
    static List<String> sheets(InputFile source) {
        return FileKind.ending(source.shown()).equals("ods") ? OpenDocumentTable.sheets(source) : WorkbookTable.sheets(source);
    }

    /** The same, without progress reporting. */
    public static Table read(String name, Path file, Layout layout) {
        return read(name, file, layout, Progress.NONE);
    }

    /** The same with everything found. */
    public static Table read(String name, Path file) {
        return read(name, file, Layout.FOUND);
    }

    /**
     * Reads a stream to its end: JSON where its first character is a bracket, delimited text else. It is held in a file of its own
     * meanwhile, as its start is looked at first.
     */
    public static Table read(String name, InputStream in, Layout layout, Progress progress) {
        return held(in, progress, source -> {
            if (startsAsJson(source.path())) {
                return JsonTable.read(name, source, layout);
            } else if (layout.at().isPresent()) {
                throw new BadInput(source.place(), ProblemKind.CONFLICT, "is no JSON, of which 'at' says where its rows are");
            }
            return DelimitedText.read(name, source, layout);
        });
    }

    /** Something that reads a file. */
    private interface Reading<T> {
        T read(InputFile source) throws IOException;
    }

    private static <T> T held(InputStream in, Progress progress, Reading<T> reading) {
        String shown = FileKind.SHOWN_INPUT;
        try {
            Path held = Temporaries.make();
            try {
                Files.copy(in, held, StandardCopyOption.REPLACE_EXISTING);
                return reading.read(new InputFile(held, shown, progress));
            } finally {
                Temporaries.remove(held);
            }
        } catch (IOException e) {
            throw new BadInput(Place.inFile(shown), ProblemKind.NOT_WRITABLE, "can't be read into " + Temporaries.NAMED + ": " + AtomicFiles.reason(e));
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
