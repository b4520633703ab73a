package dev.trellisgorge.tables;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;
import java.time.format.ResolverStyle;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.IntStream;

/** Looks for how one file is laid out. */
final class Finder {
    private static final Charset WINDOWS = Charset.forName("windows-1252");
    private static final int MOST_TITLES = 20;
    private static final int RECORDS = 50;
    private static final double AGREEING = 0.9;
    /** Days, then months and quarters; where cells fit several, the first is taken. */
    private static final List<String> DATES = List.of("d.M.yyyy", "d/M/yyyy", "M/d/yyyy", "d-M-yyyy", "yyyy/M/d", "d.M.yy", "d MMM yyyy", "d MMMM yyyy", "d. MMMM yyyy", "d. MMM yyyy", "MMM d, yyyy", "MMMM d, yyyy", "d-MMM-yyyy",
            "MMM yyyy", "MMMM yyyy", "MMM-yyyy", "MMM yy", "MMM-yy", "M/yyyy", "M.yyyy", "QQQ yyyy", "yyyy QQQ");
    private static final List<Locale> LOCALES = List.of(Locale.ENGLISH, Locale.GERMANY, Locale.FRANCE, Locale.forLanguageTag("es-ES"), Locale.ITALY, Locale.forLanguageTag("nl-NL"), Locale.forLanguageTag("pt-PT"));

    private final String name;
    private final InputFile source;
    private final FileKind kind;
    private final Function<Layout, Table> reader;
    private final Map<String, List<String>> keys = new LinkedHashMap<>();
    private final List<String> comments = new ArrayList<>();
    private Layout layout = Layout.FOUND;

    /** @param reader reads the file by a layout */
    Finder(String name, InputFile source, FileKind kind, Function<Layout, Table> reader) {
        this.name = name;
        this.source = source;
        this.kind = kind;
        this.reader = reader;
    }

    /** @throws BadInput where the file can't be read in any of the ways that were tried; with what is wrong in the plain one */
    Found find() {
        if (kind == FileKind.TEXT && Files.isRegularFile(source.path())) {
            try {
                charset();
                titles();
            } catch (CharacterCodingException e) {
                layout = Layout.FOUND; // bytes that are no text in any of them: reading says where
            } catch (IOException e) {
                throw source.unreadable(e);
            }
        }
        Table table = kind == FileKind.SHEET ? sheet() : reader.apply(layout);
        if (kind != FileKind.JSON) {
            table = dates(table);
            table = total(table);
        }
        return new Found(table, keys, comments);
    }

    private void say(String key, List<String> values, String comment) {
        keys.put(key, values);
        comments.add(comment);
    }

    private void charset() throws IOException {
        if (EncodedText.marked(source.path()) != StandardCharsets.UTF_8) {
            return; // a byte-order mark says it
        }
        byte[] start;
        try (InputStream in = Files.newInputStream(source.path())) {
            start = in.readNBytes(1 << 12);
        }
        long evenZeros = IntStream.range(0, start.length).filter(at -> at % 2 == 0 && start[at] == 0).count();
        long oddZeros = IntStream.range(0, start.length).filter(at -> at % 2 == 1 && start[at] == 0).count();
        Optional<Charset> found = Optional.empty();
        if (oddZeros * 4 > start.length && evenZeros == 0) {
            found = Optional.of(StandardCharsets.UTF_16LE);
        } else if (evenZeros * 4 > start.length && oddZeros == 0) {
            found = Optional.of(StandardCharsets.UTF_16BE);
        } else if (!EncodedText.isAll(source.path(), StandardCharsets.UTF_8) && EncodedText.isAll(source.path(), WINDOWS)) {
            found = Optional.of(WINDOWS);
        }
        if (found.isPresent()) {
            layout = layout.charset(found.get());
            say("charset", List.of(found.get().name()), "its bytes are no UTF-8, so taken as " + found.get().name());
        }
    }

    /** Lines above the first one that could be a header: as many names as the rows below it have cells, all of them different. */
    private void titles() throws IOException {
        String sample = DelimitedText.sample(source.path(), layout.charset().isPresent() ? layout.charset().get() : EncodedText.marked(source.path()));
        if (sample.regionMatches(true, 0, "sep=", 0, 4)) {
            return; // what divides the cells is said, and the header is below
        }
        for (int line = 1; line <= MOST_TITLES; line++) {
            String below = DelimitedText.below(sample, line);
            if (below.isEmpty()) {
                return;
            }
            if (!below.startsWith("\n") && !below.startsWith("\r") && isTable(below)) {
                if (line > 1) {
                    layout = layout.headerRow(line);
                    say("header-row", List.of(String.valueOf(line)), "its header is on line " + line + "; what stands above is passed over");
                }
                return;
            }
        }
    }

    private static boolean isTable(String text) {
        List<CsvRecord> records = new ArrayList<>();
        try (CsvReader<CsvRecord> all = CsvReader.builder().fieldSeparator(Delimiter.of(text)).ofCsvRecord(text)) {
            for (CsvRecord record : all) {
                records.add(record);
                if (records.size() > RECORDS) {
                    break;
                }
            }
        } catch (IOException | CsvParseException e) {
            if (records.isEmpty()) {
                return false;
            }
        }
        if (records.size() < 2 || records.get(0).getFieldCount() < 2) {
            return false;
        }
        List<String> header = records.get(0).getFields();
        Set<String> names = new HashSet<>(header);
        long alike = records.stream().skip(1).filter(record -> record.getFieldCount() == header.size()).count();
        return names.size() == header.size() && header.stream().noneMatch(String::isBlank) && alike >= AGREEING * (records.size() - 1);
    }

    /** The first sheet with figures below a header. */
    private Table sheet() {
        List<String> sheets = TableFile.sheets(source);
        Optional<BadInput> first = Optional.empty();
        for (String sheet : sheets) {
            boolean isFirst = sheet.equals(sheets.get(0));
            try {
                Layout there = isFirst ? layout : layout.sheet(sheet);
                Table table = reader.apply(there);
                if (isFirst && sheets.size() == 1 || table.columns().stream().anyMatch(column -> column.kind() == Kind.NUMBER)) {
                    layout = there;
                    if (sheets.size() > 1) {
                        List<String> others = sheets.stream().filter(other -> !other.equals(sheet)).toList();
                        say("sheet", List.of(sheet), "its sheet '" + sheet + "'; there " + (others.size() == 1 ? "is" : "are") + " also " + String.join(", ", others));
                    }
                    return table;
                }
            } catch (BadInput unread) {
                first = first.or(() -> Optional.of(unread));
            }
        }
        if (first.isPresent()) {
            throw first.get();
        }
        return reader.apply(layout);
    }

    /** How columns that would be texts write their dates. */
    private Table dates(Table plain) {
        for (Locale locale : LOCALES) {
            Set<String> patterns = new LinkedHashSet<>();
            List<String> either = new ArrayList<>();
            for (Column column : plain.columns()) {
                List<String> cells = IntStream.range(0, column.size()).filter(column::isPresent).mapToObj(column::written).distinct().toList();
                if (column.kind() == Kind.TEXT && !cells.isEmpty() && cells.stream().allMatch(cell -> cell.chars().anyMatch(Character::isDigit))) {
                    List<String> fitting = DATES.stream().filter(pattern -> cells.stream().allMatch(cell -> isWritten(cell, pattern, locale))).toList();
                    fitting.stream().findFirst().ifPresent(patterns::add);
                    if (fitting.contains("d/M/yyyy") && fitting.contains("M/d/yyyy")) {
                        either.add(column.name());
                    }
                }
            }
            if (!patterns.isEmpty()) {
                Layout dated = layout.dates(patterns.stream().map(pattern -> formatter(pattern, locale)).toArray(DateTimeFormatter[]::new));
                Optional<Table> read = read(dated);
                if (read.isPresent()) {
                    layout = dated;
                    say("dates", List.copyOf(patterns), "its dates are written as " + String.join(" and ", patterns)
                            + (either.isEmpty() ? "" : "; if the month of " + String.join(", ", either) + " stands first, write M/d/yyyy"));
                    if (!locale.equals(Locale.ENGLISH)) {
                        keys.put("locale", List.of(locale.toLanguageTag()));
                    }
                    return read.get();
                }
            }
        }
        return plain;
    }

    private static DateTimeFormatter formatter(String pattern, Locale locale) {
        return DateTimeFormatter.ofPattern(pattern.replace('y', 'u'), locale).withResolverStyle(ResolverStyle.STRICT);
    }

    private static boolean isWritten(String cell, String pattern, Locale locale) {
        try {
            formatter(pattern, locale).parse(cell.strip());
            return true;
        } catch (DateTimeParseException e) {
            return false;
        }
    }

    private Table total(Table plain) {
        Layout dropped = layout.totalRow(Layout.TotalRow.DROP);
        Optional<Table> read = plain.rowCount() < 2 ? Optional.empty() : read(dropped);
        if (read.isEmpty() || read.get().rowCount() != plain.rowCount() - 1) {
            return plain;
        }
        layout = dropped;
        say("total-row", List.of("drop"), "its last row is the total of the others, so it is left out");
        return read.get();
    }

    private Optional<Table> read(Layout by) {
        try {
            return Optional.of(reader.apply(by));
        } catch (BadInput unread) {
            return Optional.empty();
        }
    }

    @Override
    public String toString() {
        return name + " " + keys;
    }
}
