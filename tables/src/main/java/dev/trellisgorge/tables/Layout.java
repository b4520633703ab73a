package dev.trellisgorge.tables;

import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.table.Kind;
import java.nio.charset.Charset;
import java.time.format.DateTimeFormatter;
import java.util.Collection;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.Consumer;

/**
 * How a file of delimited text or a workbook is laid out and how its cells are written, where that is not to be found from the
 * file itself. Immutable; each method gives a changed copy.
 */
public final class Layout {
    /** Everything is found. */
    public static final Layout FOUND = new Layout(new Parts());

    private final Parts parts;

    /** What becomes of a last row that is the total of the ones above. */
    public enum TotalRow {
        /** It stays, and is reported. */
        REPORT,
        /** It stays, and nothing is said. */
        KEEP,
        /** It goes; it is an error where there is none. */
        DROP
    }

    /** Which rows of a sheet are read. */
    public enum Rows {
        /** All, and those that are hidden are reported. */
        ALL,
        /** Those that a reader of the sheet sees: none that are hidden, or left out by a filter. */
        VISIBLE
    }

    /** What times of day and durations are counted in. */
    public enum TimeUnit {
        HOURS(24), DAYS(1);

        private final double aDay;

        TimeUnit(double aDay) {
            this.aDay = aDay;
        }

        double of(double days) {
            return aDay == 1 ? days : Math.round(days * aDay * 3600 * 1000) / (3600 * 1000.0); // to the millisecond, as a fraction of a day is seldom exact
        }

        @Override
        public String toString() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /** The fields, so that each method states its one change. Those of a layout never change. */
    private static final class Parts implements Cloneable {
        private Optional<Character> delimiter = Optional.empty();
        private Optional<Charset> charset = Optional.empty();
        private Optional<String> sheet = Optional.empty();
        private Optional<String> range = Optional.empty();
        private Optional<JsonPath> at = Optional.empty();
        private OptionalInt headerRow = OptionalInt.empty();
        private OptionalInt headerRows = OptionalInt.empty();
        private Optional<Character> decimal = Optional.empty();
        private List<DateTimeFormatter> dates = List.of();
        private Set<String> missing = Set.of("-", "\u2013", "n/a", "N/A");
        private Map<String, Kind> kinds = Map.of();
        private TotalRow totalRow = TotalRow.REPORT;
        private Rows rows = Rows.ALL;
        private Map<String, TimeUnit> times = Map.of();
        private Map<String, String> timesOfDay = Map.of();
        private Limits limits = Limits.STANDARD;

        private Parts copy() {
            try {
                return (Parts) clone();
            } catch (CloneNotSupportedException e) {
                throw new IllegalStateException(e);
            }
        }
    }

    private Layout(Parts parts) {
        this.parts = parts;
    }

    private Layout with(Consumer<Parts> change) {
        Parts changed = parts.copy();
        change.accept(changed);
        return new Layout(changed);
    }

    /** Whether a character can divide cells: no letter, digit or quote, and no control character but the tab. */
    public static boolean canDelimit(char character) {
        return character == '\t' || !Character.isLetterOrDigit(character) && !Character.isISOControl(character) && !Character.isSurrogate(character) && character != '"';
    }

    /**
     * What divides the cells of a text; comma, semicolon, tab or bar, found from the first records, by default.
     *
     * @throws IllegalArgumentException where the character {@linkplain #canDelimit can't}
     */
    public Layout delimiter(char character) {
        if (!canDelimit(character)) {
            throw new IllegalArgumentException("a delimiter is no letter, digit, quote or end of line");
        }
        return with(c -> c.delimiter = Optional.of(character));
    }

    /** Of a text; the one that a byte-order mark says, or UTF-8, by default. */
    public Layout charset(Charset of) {
        return with(c -> c.charset = Optional.of(of));
    }

    /** Of a workbook; the first one by default. */
    public Layout sheet(String name) {
        return with(c -> c.sheet = Optional.of(name));
    }

    /** The cells of a sheet that the table stands on, its header first: {@code B3:F40}, or whole columns, {@code B:F}. */
    public Layout range(String cells) {
        return with(c -> c.range = Optional.of(cells));
    }

    /** Where in a JSON document its rows are. */
    public Layout at(JsonPath path) {
        return with(c -> c.at = Optional.of(path));
    }

    /**
     * The line on which the header starts, 1 for the first; what is above it is passed over. Where it is not said: the first
     * line of a text; of a sheet the first row with as many cells side by side as any of its first rows has.
     */
    public Layout headerRow(int line) {
        return with(c -> c.headerRow = OptionalInt.of(line));
    }

    /**
     * How many rows of a sheet the header takes; a column is named by all of its header cells, from the top. Where it is not
     * said: as many as its merged cells span.
     */
    public Layout headerRows(int rows) {
        return with(c -> c.headerRows = OptionalInt.of(rows));
    }

    /** The decimal sign, {@code .} or {@code ,}; the other one groups. Where it is not said, the one that all cells of a column take. */
    public Layout decimal(char character) {
        return with(c -> c.decimal = Optional.of(character));
    }

    /**
     * How dates are written beside ISO 8601; a column takes one of them. A pattern of months, quarters or years alone gives texts
     * as ISO 8601 writes these periods: {@code 2031-03}, {@code 2031-Q1}, {@code 2031}.
     */
    public Layout dates(DateTimeFormatter... patterns) {
        return with(c -> c.dates = List.of(patterns));
    }

    /** What stands for a missing cell in columns of numbers, dates and truths, beside a blank; a dash and {@code n/a} by default. */
    public Layout missing(Collection<String> words) {
        return with(c -> c.missing = Set.copyOf(words));
    }

    /** What columns hold, by their names; a cell that is not that is an error then. Found from the cells by default. */
    public Layout kinds(Map<String, Kind> ofColumns) {
        return with(c -> c.kinds = Map.copyOf(ofColumns));
    }

    public Layout totalRow(TotalRow what) {
        return with(c -> c.totalRow = what);
    }

    /** Which rows of a sheet are read; all by default. */
    public Layout rows(Rows which) {
        return with(c -> c.rows = which);
    }

    /** What times of day and durations are counted in, by the names of their columns, which hold numbers then; hours by default. */
    public Layout times(Map<String, TimeUnit> ofColumns) {
        return with(c -> c.times = Map.copyOf(ofColumns));
    }

    /** Columns of hours from midnight, made of columns of dates that have a time of day: their names by those of the dates. */
    public Layout timesOfDay(Map<String, String> ofDates) {
        return with(c -> c.timesOfDay = Collections.unmodifiableMap(new LinkedHashMap<>(ofDates)));
    }

    /** What the file may hold at most; {@link Limits#STANDARD} by default. */
    public Layout within(Limits most) {
        return with(c -> c.limits = most);
    }

    /** The columns of which the layout says the kind must be there; {@code header} has the ones that are. */
    void checkKinds(Place place, List<String> header) {
        Problems problems = new Problems();
        parts.kinds.keySet().stream().filter(name -> !header.contains(name)).sorted()
                .forEach(name -> problems.add(place, ProblemKind.UNKNOWN_NAME, "there is no column '" + name + "', whose kind is said. " + Nearest.hint(name, header)));
        parts.timesOfDay.forEach((name, made) -> {
            if (!header.contains(name)) {
                problems.add(place, ProblemKind.UNKNOWN_NAME, "there is no column '" + name + "', whose time of day is asked for. " + Nearest.hint(name, header));
            }
            if (header.contains(made)) {
                problems.add(place, ProblemKind.CONFLICT, "there is a column '" + made + "' already; give the times of day of '" + name + "' another name");
            }
        });
        problems.throwIfAny();
    }

    Optional<Character> delimiter() {
        return parts.delimiter;
    }

    Optional<Charset> charset() {
        return parts.charset;
    }

    Optional<String> sheet() {
        return parts.sheet;
    }

    Optional<String> range() {
        return parts.range;
    }

    Optional<JsonPath> at() {
        return parts.at;
    }

    OptionalInt headerRow() {
        return parts.headerRow;
    }

    OptionalInt headerRows() {
        return parts.headerRows;
    }

    Optional<Character> decimal() {
        return parts.decimal;
    }

    List<DateTimeFormatter> dates() {
        return parts.dates;
    }

    boolean isMissing(String cell) {
        return parts.missing.contains(cell);
    }

    /** The kinds that are stated, by the names of columns. */
    public Map<String, Kind> kinds() {
        return parts.kinds;
    }

    Optional<Kind> kind(String column) {
        return Optional.ofNullable(parts.kinds.get(column));
    }

    Rows rows() {
        return parts.rows;
    }

    TimeUnit timeUnit(String column) {
        return parts.times.getOrDefault(column, TimeUnit.HOURS);
    }

    boolean saysTimeUnit(String column) {
        return parts.times.containsKey(column);
    }

    Map<String, String> timesOfDay() {
        return parts.timesOfDay;
    }

    TotalRow totalRow() {
        return parts.totalRow;
    }

    Limits limits() {
        return parts.limits;
    }

    /** Whether nothing is said of it that a reader of plain text, one that knows of no layouts, would not read alike. */
    public boolean isPlain() {
        return parts.charset.isEmpty() && parts.at.isEmpty() && parts.headerRow.isEmpty() && parts.decimal.isEmpty() && parts.dates.isEmpty() && parts.timesOfDay.isEmpty() && parts.kinds.isEmpty() && parts.missing.equals(FOUND.parts.missing) && parts.totalRow != TotalRow.DROP;
    }
}
