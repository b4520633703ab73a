package dev.trellisgorge.audit;

import dev.trellisgorge.formula.ColumnReferences;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.table.CalendarUnit;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.CompensatedSum;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Numbers;
import dev.trellisgorge.table.Table;
import java.text.DecimalFormatSymbols;
import java.time.LocalDate;
import java.time.Month;
import java.time.format.TextStyle;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/** Holds the words of a title that are stated, and not worked out, against the rows: names, months and figures that these contradict. */
final class Claims {
    /** Shorter names and figures stand in too many sentences. */
    private static final int LEAST_NAME = 3;
    private static final double LEAST_FIGURE = 100;
    private static final Pattern YEAR = Pattern.compile("\\d{4}");

    private final PlainChart chart;
    private final String words;

    private Claims(PlainChart chart) {
        this.chart = chart;
        this.words = chart.plan().title() + " \n " + chart.plan().subtitle();
    }

    static List<Note> notes(PlainChart chart) {
        Claims claims = new Claims(chart);
        return claims.words.isBlank() || chart.data().rowCount() == 0 ? List.of() : Stream.of(claims.names(), claims.months(), claims.figures()).flatMap(Optional::stream).toList();
    }

    /** Categories of the uncut table that the chart has no row of. */
    private Optional<Note> names() {
        Table whole = chart.data().rows().whole();
        Optional<String> base = chart.plan().category().filter(column -> whole.schema().has(column) && whole.column(column).kind() == Kind.TEXT);
        if (base.isEmpty()) {
            return Optional.empty();
        }
        Column all = whole.column(base.get());
        Set<String> charted = new HashSet<>(written(chart.data().category()).toList());
        List<String> gone = written(all).distinct().filter(name -> name.length() >= LEAST_NAME && !charted.contains(name) && says(name)
                && charted.stream().noneMatch(other -> other.contains(name))).toList();
        return gone.isEmpty() ? Optional.empty() : Optional.of(new Note("the title names what is no row of the chart", gone));
    }

    private boolean says(String name) {
        return Pattern.compile("(?<![\\p{L}\\p{N}])" + Pattern.quote(name) + "(?![\\p{L}\\p{N}])").matcher(words).find();
    }

    /** Months, with their year where it stands after them, in which no date of the rows lies; May without a year may be another word. */
    private Optional<Note> months() {
        List<LocalDate> days = chart.data().rows().columns().stream().flatMap(column -> days(column)).toList();
        if (days.isEmpty()) {
            return Optional.empty();
        }
        Set<String> wrong = new LinkedHashSet<>();
        for (Locale locale : Set.of(Locale.ENGLISH, chart.plan().locale())) {
            for (Month month : Month.values()) {
                Matcher said = Pattern.compile("(?<!\\p{L})" + Pattern.quote(month.getDisplayName(TextStyle.FULL, locale)) + "(?:\\s+(\\d{4}))" + (month == Month.MAY ? "" : "?") + "(?!\\p{L})").matcher(words);
                while (said.find()) {
                    Optional<Integer> year = Optional.ofNullable(said.group(1)).map(Integer::valueOf);
                    if (days.stream().noneMatch(day -> day.getMonth() == month && year.stream().allMatch(y -> y == day.getYear()))) {
                        wrong.add(said.group());
                    }
                }
            }
        }
        return wrong.isEmpty() ? Optional.empty() : Optional.of(new Note("the title names a month that no row is of", List.copyOf(wrong)));
    }

    private static Stream<LocalDate> days(Column column) {
        if (column.kind() == Kind.DATE) {
            return IntStream.range(0, column.size()).mapToObj(column::date).flatMap(Optional::stream);
        }
        return column.kind() == Kind.TEXT ? written(column).map(CalendarUnit::days).flatMap(Optional::stream).filter(days -> days.unit().compareTo(CalendarUnit.MONTH) <= 0).map(CalendarUnit.Days::first)
                : Stream.empty();
    }

    private static Stream<String> written(Column column) {
        return IntStream.range(0, column.size()).filter(column::isPresent).mapToObj(column::written);
    }

    /** Figures that are no cell, no sum, no mean and no setting of the chart. */
    private Optional<Note> figures() {
        List<Double> known = known();
        List<String> wrong = new ArrayList<>();
        DecimalFormatSymbols signs = DecimalFormatSymbols.getInstance(chart.plan().locale());
        String grouping = String.valueOf(signs.getGroupingSeparator());
        String point = String.valueOf(signs.getDecimalSeparator());
        Matcher said = figure(Pattern.quote(grouping), Pattern.quote(point)).matcher(words);
        while (said.find()) {
            OptionalDouble figure = Numbers.parse(said.group().replace(grouping, "").replace(point, "."));
            int decimals = said.group().contains(point) ? said.group().length() - said.group().indexOf(point) - 1 : 0;
            if (figure.isPresent() && figure.getAsDouble() >= LEAST_FIGURE && !YEAR.matcher(said.group()).matches()
                    && known.stream().noneMatch(each -> Math.abs(Math.abs(each) - figure.getAsDouble()) <= 0.5 * Math.pow(10, -decimals) + 1e-9)) {
                wrong.add(said.group());
            }
        }
        return wrong.isEmpty() ? Optional.empty() : Optional.of(new Note("the title says a figure that is no cell, sum, mean or setting of the chart", wrong));
    }

    /** A figure as the chart's locale writes it, with its groups or without. */
    private static Pattern figure(String grouping, String point) {
        return Pattern.compile("(?<![\\p{L}\\d.,])\\d+(?:" + grouping + "\\d{3})*(?:" + point + "\\d+)?(?![\\d\\p{L}]|[.,]\\d)");
    }

    private List<Double> known() {
        List<Double> known = new ArrayList<>();
        List<Column> columns = Stream.concat(chart.data().rows().columns().stream(), chart.plan().columns().stream().map(column -> chart.data().column(column.name()))).toList();
        for (Column column : columns) {
            if (column.kind() == Kind.NUMBER) {
                double[] cells = IntStream.range(0, column.size()).mapToDouble(column::number).filter(cell -> !Double.isNaN(cell)).toArray();
                IntStream.range(0, cells.length).forEach(i -> known.add(cells[i]));
                double sum = CompensatedSum.of(IntStream.range(0, cells.length).mapToDouble(i -> cells[i]));
                known.addAll(cells.length == 0 ? List.of() : List.of(sum, sum / cells.length));
            }
        }
        chart.data().settings().values().values().stream().filter(value -> value.kind() == Kind.NUMBER).forEach(value -> known.add(value.number(0)));
        known.addAll(chart.plan().columns().stream().flatMap(column -> ColumnReferences.figures(column.formula()).stream()).toList());
        return known;
    }
}
