package dev.trellisgorge.tables;

import java.util.List;
import java.util.Locale;

/** The kinds of files that tables are read from; the ending says which. */
public enum FileKind {
    TEXT("delimited text"), JSON("JSON"), SHEET("a workbook"),
    /** Columns of typed cells, which an embedded engine reads. */
    PARQUET("Parquet"),
    /** Standard input: text or JSON, as its first character says. */
    ANY("standard input");

    /** The name that stands for standard input. */
    public static final String STANDARD_INPUT = "-";

    static final String SHOWN_INPUT = "standard input";
    static final List<String> TEXT_ENDINGS = List.of(".csv", ".tsv", ".tab", ".txt", ".dat");

    private final String phrase;

    FileKind(String phrase) {
        this.phrase = phrase;
    }

    /** {@code .json}, {@code .ndjson} and {@code .jsonl} are JSON, {@code .xlsx}, {@code .xlsm}, {@code .xltx}, {@code .xltm} and {@code .ods} workbooks, {@code .parquet} is Parquet, {@code -} is any, all else text. */
    public static FileKind of(String file) {
        return file.equals(STANDARD_INPUT) ? ANY : switch (ending(file)) {
            case "json", "ndjson", "jsonl" -> JSON;
            case "xlsx", "xlsm", "xltx", "xltm", "xls", "xlsb", "ods" -> SHEET;
            case "parquet" -> PARQUET;
            default -> TEXT;
        };
    }

    /** Whether a file's name says that it is delimited text, or it has none. */
    static boolean isNamedText(String file) {
        return file.equals(SHOWN_INPUT) || TEXT_ENDINGS.contains("." + ending(file));
    }

    static String ending(String file) {
        return file.substring(file.lastIndexOf('.') + 1).toLowerCase(Locale.ROOT);
    }

    /** As a message calls it. */
    public String phrase() {
        return phrase;
    }
}
