package dev.trellisgorge.brief;

import dev.trellisgorge.brief.Mapping.Text;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.tables.FileKind;
import dev.trellisgorge.tables.JsonPath;
import dev.trellisgorge.tables.Layout;
import java.nio.charset.Charset;
import java.text.DecimalFormatSymbols;
import java.time.format.DateTimeFormatter;
import java.time.format.ResolverStyle;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.Stream;

/** Reads how a data file is laid out. */
final class LayoutReader {
    /** What a file of Parquet doesn't say of itself. */
    private static final List<String> OF_PARQUET = List.of("kinds");

    private final Mapping keys;
    private final Problems problems;

    LayoutReader(Mapping keys, Problems problems) {
        this.keys = keys;
        this.problems = problems;
    }

    /** What is wrong is reported, and then left to be found. */
    Layout read() {
        keys.allowing(SourceSchema.FILE);
        keys.text("file").ifPresent(file -> refuseOthers(FileKind.of(file.value())));
        Layout layout = Layout.FOUND;
        String oneSign = "must be one character, such as ';', and no letter, digit, quote or end of line";
        Optional<Character> delimiter = sign("delimiter", oneSign).filter(character -> {
            if (!Layout.canDelimit(character)) {
                keys.refuse("delimiter", ProblemKind.INVALID, oneSign);
            }
            return Layout.canDelimit(character);
        });
        layout = delimiter.isPresent() ? layout.delimiter(delimiter.get()) : layout;
        Optional<Charset> charset = keys.text("charset").flatMap(this::charset);
        layout = charset.isPresent() ? layout.charset(charset.get()) : layout;
        Optional<Text> sheet = keys.text("sheet");
        layout = sheet.isPresent() ? layout.sheet(sheet.get().value()) : layout;
        Optional<Text> range = keys.text("range");
        layout = range.isPresent() ? layout.range(range.get().value()) : layout;
        Optional<JsonPath> at = keys.text("at").flatMap(this::path);
        layout = at.isPresent() ? layout.at(at.get()) : layout;
        OptionalInt header = keys.whole("header-row", 1, Integer.MAX_VALUE, "must be a line, 1 for the first");
        layout = header.isPresent() ? layout.headerRow(header.getAsInt()) : layout;
        OptionalInt headers = keys.whole("header-rows", 1, Integer.MAX_VALUE, "must be how many rows the header takes, 1 or more");
        return cells(headers.isPresent() ? layout.headerRows(headers.getAsInt()) : layout);
    }

    private Optional<JsonPath> path(Text text) {
        Optional<JsonPath> path = JsonPath.of(text.value());
        if (path.isEmpty()) {
            problems.add(text.place(), ProblemKind.INVALID, "'" + text.value() + "' is no path to rows; one is made of names, [*] and places in arrays, as $.items[*] and $.years[0].plants[*] are");
        }
        return path;
    }

    /** A key that says nothing of such a file is a mistake, as nothing would come of it. */
    private void refuseOthers(FileKind kind) {
        List<String> all = SourceSchema.FILE.without("file").without("shape").names();
        List<String> known = switch (kind) {
            case TEXT -> SourceSchema.OF_CELLS.and(SourceSchema.OF_TEXTS).names();
            case SHEET -> SourceSchema.OF_CELLS.and(SourceSchema.OF_SHEETS).names();
            case JSON -> SourceSchema.OF_CELLS.and(SourceSchema.OF_JSON).names();
            case PARQUET -> OF_PARQUET;
            case ANY -> all;
        };
        all.stream().filter(key -> keys.has(key) && !known.contains(key)).forEach(key -> problems.add(keys.keyPlace(key), ProblemKind.CONFLICT, "'" + key + "' says nothing of "
                + kind.phrase() + ". Known here: " + String.join(", ", known.stream().map(each -> "'" + each + "'").toList()) + "."));
    }

    private Layout cells(Layout laidOut) {
        Layout layout = laidOut;
        Optional<Locale> locale = keys.text("locale").flatMap(this::locale);
        Optional<Character> decimal = sign("decimal", "must be '.' or ','").filter(character -> {
            if (character != '.' && character != ',') {
                keys.refuse("decimal", ProblemKind.INVALID, "must be '.' or ','");
            }
            return character == '.' || character == ',';
        }).or(() -> locale.flatMap(this::decimalOf));
        layout = decimal.isPresent() ? layout.decimal(decimal.get()) : layout;
        layout = layout.dates(oneOrSeveral("dates").stream().flatMap(text -> pattern(text, locale.orElse(Locale.ENGLISH)).stream()).toArray(DateTimeFormatter[]::new));
        layout = layout.kinds(kinds()).times(times()).timesOfDay(timesOfDay());
        Optional<Layout.Rows> rows = keys.choice("rows", Layout.Rows.class);
        layout = rows.isPresent() ? layout.rows(rows.get()) : layout;
        if (keys.has("missing")) {
            layout = layout.missing(oneOrSeveral("missing").stream().map(Text::value).toList());
        }
        Optional<Layout.TotalRow> total = keys.choice("total-row", Layout.TotalRow.class);
        return total.isPresent() ? layout.totalRow(total.get()) : layout;
    }

    /** What columns hold, by their names. */
    Map<String, Kind> kinds() {
        Map<String, Kind> kinds = new LinkedHashMap<>();
        keys.mapping("kinds").ifPresent(columns -> {
            for (String column : columns.keys()) {
                if (timeUnit(columns, column).isPresent()) {
                    kinds.put(column, Kind.NUMBER);
                } else {
                    columns.choice(column, Kind.class).ifPresent(kind -> kinds.put(column, kind));
                }
            }
        });
        return kinds;
    }

    private Map<String, Layout.TimeUnit> times() {
        Map<String, Layout.TimeUnit> times = new LinkedHashMap<>();
        keys.mapping("kinds").ifPresent(columns -> columns.keys().forEach(column -> timeUnit(columns, column).ifPresent(unit -> times.put(column, unit))));
        return times;
    }

    private Map<String, String> timesOfDay() {
        Map<String, String> made = new LinkedHashMap<>();
        keys.mapping("times-of-day").ifPresent(columns -> columns.keys().forEach(column -> columns.text(column).ifPresent(name -> {
            if (made.containsValue(name.value())) {
                problems.add(name.place(), ProblemKind.CONFLICT, "two columns would be named '" + name.value() + "'");
            }
            made.put(column, name.value());
        })));
        return made;
    }

    private static Optional<Layout.TimeUnit> timeUnit(Mapping columns, String column) {
        return columns.isSingle(column) ? columns.text(column).flatMap(text -> Stream.of(Layout.TimeUnit.values()).filter(unit -> unit.toString().equals(text.value())).findFirst()) : Optional.empty();
    }

    private List<Text> oneOrSeveral(String key) {
        return keys.isList(key) ? keys.texts(key) : keys.text(key).stream().toList();
    }

    private Optional<Character> sign(String key, String otherwise) {
        Optional<Text> text = keys.text(key);
        if (text.isPresent() && text.get().value().length() != 1) {
            keys.refuse(key, ProblemKind.INVALID, otherwise);
            return Optional.empty();
        }
        return text.map(one -> one.value().charAt(0));
    }

    private Optional<Charset> charset(Text name) {
        if (!Charset.availableCharsets().containsKey(name.value())) {
            problems.add(name.place(), ProblemKind.UNKNOWN_NAME, "there is no charset '" + name.value() + "'. " + Nearest.hint(name.value(),
                    List.of("UTF-8", "UTF-16", "ISO-8859-1", "windows-1252")));
            return Optional.empty();
        }
        return Optional.of(Charset.forName(name.value()));
    }

    /** By its BCP 47 tag. */
    private Optional<Locale> locale(Text tag) {
        Locale locale = Locale.forLanguageTag(tag.value().replace('_', '-'));
        if (!List.of(Locale.getAvailableLocales()).contains(locale) || locale.getLanguage().isEmpty()) {
            problems.add(tag.place(), ProblemKind.UNKNOWN_NAME, "there is no locale '" + tag.value() + "'; write a language and a country such as de-DE or en-GB");
            return Optional.empty();
        }
        return Optional.of(locale);
    }

    private Optional<Character> decimalOf(Locale locale) {
        char character = DecimalFormatSymbols.getInstance(locale).getDecimalSeparator();
        if (character != '.' && character != ',') {
            keys.refuse("locale", ProblemKind.UNSUPPORTED, "writes figures with '" + character + "' before decimals, and only '.' and ',' are read");
            return Optional.empty();
        }
        return Optional.of(character);
    }

    /** Whether letters stand in a pattern that mean something else than days, months and years, which is reported. */
    private boolean saysOtherwise(Text text) {
        String bare = text.value().replaceAll("'[^']*'", "");
        boolean dayOfYear = bare.contains("D") && bare.contains("M");
        boolean weekYear = bare.contains("Y") && !bare.contains("w");
        boolean minutes = bare.contains("m") && !bare.matches("(?s).*[hHkK].*");
        if (dayOfYear || weekYear || minutes) {
            String meant = text.value().replace('D', 'd').replace('Y', 'y').replace('m', 'M');
            List<String> read = Stream.of(dayOfYear ? "D is the day of the year" : "", weekYear ? "Y is the year that a week counts to" : "", minutes ? "m is minutes" : "").filter(part -> !part.isEmpty()).toList();
            problems.add(text.place(), ProblemKind.INVALID, "'" + text.value() + "' is no pattern of dates, as " + String.join(", and ", read) + "; write " + meant);
        }
        return dayOfYear || weekYear || minutes;
    }

    private Optional<DateTimeFormatter> pattern(Text text, Locale locale) {
        try {
            DateTimeFormatter pattern = DateTimeFormatter.ofPattern(text.value().replace('y', 'u'), locale).withResolverStyle(ResolverStyle.STRICT);
            return saysOtherwise(text) ? Optional.empty() : Optional.of(pattern);
        } catch (IllegalArgumentException e) {
            problems.add(text.place(), ProblemKind.INVALID, "'" + text.value() + "' is no date pattern; write one such as dd.MM.yyyy");
            return Optional.empty();
        }
    }
}
