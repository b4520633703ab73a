package dev.trellisgorge.table;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.time.temporal.IsoFields;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.Predicate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.IntStream;

/** The calendar periods (ISO 8601; weeks start on Monday). Each period has a number, and the next one has the next number. */
public enum CalendarUnit {
    DAY, WEEK, MONTH, QUARTER, YEAR;

    private static final Pattern TEXT = Pattern.compile("(\\d{4})(?:-(?:(\\d{2})|[Qq]([1-4])|[Ww](\\d{2})))?");
    private static final int MONDAY = 3; // 1970-01-01 was a Thursday

    /** The number of the period that a day lies in. */
    public double index(LocalDate day) {
        int month = day.getYear() * 12 + day.getMonthValue() - 1;
        return switch (this) {
            case DAY -> day.toEpochDay();
            case WEEK -> Math.floorDiv(day.toEpochDay() + MONDAY, 7);
            case MONTH -> month;
            case QUARTER -> Math.floorDiv(month, 3);
            case YEAR -> day.getYear();
        };
    }

    /** The same of an ISO date, or of a period that is no shorter: {@code 2031-03}, {@code 2031-Q1}, {@code 2031-W09}, {@code 2031}. */
    public OptionalDouble index(String text) {
        CalendarUnit written = unit(text);
        return written == null || written.ordinal() > ordinal() ? OptionalDouble.empty() : OptionalDouble.of(index(start(text, written)));
    }

    /** The first day of the period with this number. */
    public LocalDate start(double index) {
        long number = (long) index;
        return switch (this) {
            case DAY -> LocalDate.ofEpochDay(number);
            case WEEK -> LocalDate.ofEpochDay(number * 7 - MONDAY);
            case MONTH -> LocalDate.of((int) Math.floorDiv(number, 12), Math.floorMod(number, 12) + 1, 1);
            case QUARTER -> LocalDate.of((int) Math.floorDiv(number, 4), Math.floorMod(number, 4) * 3 + 1, 1);
            case YEAR -> LocalDate.of((int) number, 1, 1);
        };
    }

    /** The period with this number as ISO 8601 writes it, quarters as {@code 2031-Q1}; {@link #index(String)} reads it back. */
    public String written(double index) {
        LocalDate start = start(index);
        return switch (this) {
            case DAY -> start.toString();
            case WEEK -> String.format(Locale.ROOT, "%04d-W%02d", start.get(IsoFields.WEEK_BASED_YEAR), start.get(IsoFields.WEEK_OF_WEEK_BASED_YEAR));
            case MONTH -> start.toString().substring(0, 7);
            case QUARTER -> String.format(Locale.ROOT, "%04d-Q%d", start.getYear(), start.get(IsoFields.QUARTER_OF_YEAR));
            case YEAR -> String.format(Locale.ROOT, "%04d", start.getYear());
        };
    }

    /** The number of the period that a cell of dates, or of texts that name periods, lies in; NaN where it is missing or names none. */
    public double index(Column column, int row) {
        if (!column.isPresent(row)) {
            return Double.NaN;
        }
        return column.kind() == Kind.DATE ? index(column.date(row).orElseThrow())
                : column.kind() == Kind.TEXT ? index(column.written(row)).orElse(Double.NaN) : Double.NaN;
    }

    /**
     * The unit that a column of dates or periods goes by: the one its texts are written in; for dates the longest at
     * whose start (or for months, end) all of them lie; days where nothing else fits or the column is neither.
     */
    public static CalendarUnit of(Column column) {
        List<String> cells = IntStream.range(0, column.size()).filter(column::isPresent).mapToObj(column::written).toList();
        if (column.kind() != Kind.DATE) {
            return cells.stream().map(CalendarUnit::unit).filter(unit -> unit != null).findFirst().orElse(DAY);
        }
        List<LocalDate> days = cells.stream().map(LocalDate::parse).toList();
        if (all(days, day -> day.getDayOfYear() == 1)) {
            return YEAR;
        }
        if (all(days, day -> day.getDayOfMonth() == 1 && day.getMonthValue() % 3 == 1)) {
            return QUARTER;
        }
        if (all(days, day -> day.getDayOfMonth() == 1) || all(days, day -> day.getDayOfMonth() == day.lengthOfMonth())) {
            return MONTH;
        }
        return days.size() > 2 && all(days, day -> day.getDayOfWeek() == days.get(0).getDayOfWeek()) ? WEEK : DAY;
    }

    /**
     * The days of a period.
     *
     * @param unit  how long it is
     * @param first inclusive
     * @param last  inclusive
     */
    public record Days(CalendarUnit unit, LocalDate first, LocalDate last) {
        public Days {
            Objects.requireNonNull(unit, "unit");
            Objects.requireNonNull(first, "first");
            Objects.requireNonNull(last, "last");
        }
    }

    /** The days of an ISO date or of a period: {@code 2031-03}, {@code 2031-Q1}, {@code 2031-W09}, {@code 2031}; empty where the text names none. */
    public static Optional<Days> days(String text) {
        return Optional.ofNullable(unit(text)).map(unit -> {
            LocalDate first = start(text, unit);
            return new Days(unit, first, unit.start(unit.index(first) + 1).minusDays(1));
        });
    }

    private static boolean all(List<LocalDate> days, Predicate<LocalDate> test) {
        return days.stream().allMatch(test);
    }

    private static CalendarUnit unit(String text) {
        Matcher period = TEXT.matcher(text);
        if (period.matches()) {
            boolean month = period.group(2) != null && !period.group(2).equals("00") && period.group(2).compareTo("12") <= 0;
            if (period.group(2) != null && !month) {
                return null;
            }
            if (period.group(4) != null && !hasWeek(Integer.parseInt(period.group(1)), Integer.parseInt(period.group(4)))) {
                return null;
            }
            return month ? MONTH : period.group(3) != null ? QUARTER : period.group(4) != null ? WEEK : YEAR;
        }
        try {
            LocalDate.parse(text);
            return DAY;
        } catch (DateTimeParseException e) {
            return null;
        }
    }

    /** A year has 52 weeks or 53; the 28th of December always lies in its last. */
    private static boolean hasWeek(int year, int week) {
        return week >= 1 && week <= LocalDate.of(year, 12, 28).get(IsoFields.WEEK_OF_WEEK_BASED_YEAR);
    }

    private static LocalDate start(String text, CalendarUnit unit) {
        String year = text.substring(0, 4);
        return switch (unit) {
            case DAY -> LocalDate.parse(text);
            case WEEK -> LocalDate.of(Integer.parseInt(year), 1, 4).with(DayOfWeek.MONDAY)
                    .plusWeeks(Integer.parseInt(text.substring(6)) - 1L);
            case MONTH -> LocalDate.parse(text + "-01");
            case QUARTER -> LocalDate.of(Integer.parseInt(year), Integer.parseInt(text.substring(6)) * 3 - 2, 1);
            case YEAR -> LocalDate.of(Integer.parseInt(year), 1, 1);
        };
    }
}
