package dev.trellisgorge.tables;

import dev.trellisgorge.table.CalendarUnit;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Numbers;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;
import java.time.temporal.ChronoField;
import java.time.temporal.IsoFields;
import java.time.temporal.TemporalAccessor;
import java.time.temporal.TemporalQueries;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Reads the cells of one column as figures of one kind. Made for each column anew, as what a cell means may depend on those before. */
abstract class CellReader {
    private final Kind kind;
    private final String one;

    /** @param one what a cell is: {@code number} */
    private CellReader(Kind kind, String one) {
        this.kind = kind;
        this.one = one;
    }

    /** The figure of a cell that is not blank; empty where it is none. */
    abstract OptionalDouble read(String cell);

    /** The figure plainly written. */
    abstract String written(double figure);

    /** Why a cell is none of these, for readers. */
    String refusal(String cell) {
        return "'" + cell.strip() + "' is no " + one;
    }

    /** What may help the first time, after the refusal; empty where nothing does. */
    String hint() {
        return "";
    }

    Column column(String name, double[] figures) {
        return Column.owning(name, kind, figures);
    }

    Kind kind() {
        return kind;
    }

    /** Whether it reads days or periods. */
    boolean isOfTime() {
        return kind == Kind.DATE || kind == Kind.TEXT;
    }

    String one() {
        return one;
    }

    /**
     * Numbers as people write them.
     *
     * @param codes whether an integer that begins with a zero is a number too; else it is a code, such as a meter's
     */
    static CellReader numbers(char decimal, boolean codes) {
        return new NumberReader(new WrittenNumber(decimal), codes);
    }

    /** Days: ISO 8601, with a time of day or without, or in one of the patterns. */
    static CellReader days(List<DateTimeFormatter> patterns) {
        return new CellReader(Kind.DATE, "date") {
            @Override
            OptionalDouble read(String cell) {
                OptionalDouble iso = Kinds.figure(Kind.DATE, cell);
                if (iso.isEmpty() && cell.length() > ISO_DAY && TIME.matcher(cell.substring(ISO_DAY)).matches()) {
                    iso = Kinds.figure(Kind.DATE, cell.substring(0, ISO_DAY));
                }
                return iso.isPresent() ? iso : parsed(patterns, cell).map(found -> found.query(TemporalQueries.localDate()))
                        .map(day -> OptionalDouble.of(day.toEpochDay())).orElse(OptionalDouble.empty());
            }

            @Override
            String hint() {
                return patterns.isEmpty() ? "; write 2031-03-31, or say how dates are written with 'dates'" : "";
            }

            @Override
            String written(double day) {
                return LocalDate.ofEpochDay((long) day).toString();
            }
        };
    }

    /** The hours from midnight to a date-time's time of day, as it is written; 0 where it has none, empty where it is no date. @param patterns beside ISO 8601 */
    static OptionalDouble hours(List<DateTimeFormatter> patterns, String cell) {
        if (days(patterns).read(cell).isEmpty()) {
            return OptionalDouble.empty();
        }
        Matcher iso = TIME.matcher(cell.substring(Math.min(ISO_DAY, cell.length())));
        Optional<LocalTime> time = iso.matches() ? Optional.of(LocalTime.parse(iso.group(1).replace(',', '.'))) : parsed(patterns, cell).map(found -> found.query(TemporalQueries.localTime()));
        return OptionalDouble.of(time.map(of -> of.toNanoOfDay() / NANOSECONDS_OF_AN_HOUR).orElse(0.0));
    }

    /** Calendar periods of one length in one of the patterns, which become texts as ISO 8601 writes them. */
    static CellReader periods(CalendarUnit unit, List<DateTimeFormatter> patterns) {
        return new CellReader(Kind.TEXT, unit.name().toLowerCase(Locale.ROOT)) {
            @Override
            OptionalDouble read(String cell) {
                Optional<TemporalAccessor> found = parsed(patterns, cell);
                return found.isEmpty() ? CalendarUnit.of(Column.texts("", cell)) == unit ? unit.index(cell) : OptionalDouble.empty()
                        : first(found.get()).map(day -> OptionalDouble.of(unit.index(day))).orElse(OptionalDouble.empty());
            }

            private Optional<LocalDate> first(TemporalAccessor found) {
                if (!found.isSupported(ChronoField.YEAR) || found.query(TemporalQueries.localDate()) != null) {
                    return Optional.empty();
                }
                boolean month = found.isSupported(ChronoField.MONTH_OF_YEAR);
                boolean quarter = !month && found.isSupported(IsoFields.QUARTER_OF_YEAR);
                CalendarUnit written = month ? CalendarUnit.MONTH : quarter ? CalendarUnit.QUARTER : CalendarUnit.YEAR;
                int firstMonth = month ? found.get(ChronoField.MONTH_OF_YEAR) : quarter ? (int) found.getLong(IsoFields.QUARTER_OF_YEAR) * 3 - 2 : 1;
                return written == unit ? Optional.of(LocalDate.of(found.get(ChronoField.YEAR), firstMonth, 1)) : Optional.empty();
            }

            @Override
            String written(double period) {
                return unit.written(period);
            }

            @Override
            Column column(String name, double[] periods) {
                return Column.texts(name, Arrays.stream(periods).mapToObj(period -> Double.isNaN(period) ? null : unit.written(period)).toArray(String[]::new));
            }
        };
    }

    /** The words {@code true} and {@code false}. */
    static CellReader truths() {
        return new CellReader(Kind.TRUTH, "truth") {
            @Override
            OptionalDouble read(String cell) {
                return Kinds.figure(Kind.TRUTH, cell);
            }

            @Override
            String written(double truth) {
                return truth == 1 ? "true" : "false";
            }

            @Override
            String refusal(String cell) {
                return "'" + cell.strip() + "' is neither true nor false";
            }
        };
    }

    private static final int ISO_DAY = 10;
    private static final double NANOSECONDS_OF_AN_HOUR = 3.6e12;
    private static final Pattern TIME = Pattern.compile("[T ]((?:[01]\\d|2[0-3]):[0-5]\\d(?::[0-5]\\d(?:[.,]\\d{1,9})?)?)(Z|[+-]\\d{2}(:?\\d{2})?)?");

    private static Optional<TemporalAccessor> parsed(List<DateTimeFormatter> patterns, String cell) {
        for (DateTimeFormatter pattern : patterns) {
            try {
                return Optional.of(pattern.parse(cell));
            } catch (DateTimeParseException e) {
                // another pattern may take it
            } catch (DateTimeException e) {
                return Optional.empty();
            }
        }
        return Optional.empty();
    }

    /** Numbers of one currency, and all of them per cent or none. */
    private static final class NumberReader extends CellReader {
        private final WrittenNumber written;
        private final boolean codes;
        private String moneyCell = "";
        private String money = "";
        private String shareCell = "";
        private String plainCell = "";

        NumberReader(WrittenNumber written, boolean codes) {
            super(Kind.NUMBER, "number");
            this.written = written;
            this.codes = codes;
        }

        @Override
        OptionalDouble read(String cell) {
            Optional<WrittenNumber.Figure> figure = codes || !Kinds.isCode(cell) ? written.read(cell) : Optional.empty();
            if (figure.isEmpty() || isOtherMoney(figure.get()) || isOtherShare(figure.get())) {
                return OptionalDouble.empty();
            }
            if (money.isEmpty() && !figure.get().money().isEmpty()) {
                money = figure.get().money();
                moneyCell = cell;
            }
            if (figure.get().value() != 0 && figure.get().share()) {
                shareCell = cell;
            } else if (figure.get().value() != 0) {
                plainCell = cell;
            }
            return OptionalDouble.of(figure.get().value());
        }

        private boolean isOtherMoney(WrittenNumber.Figure figure) {
            return !money.isEmpty() && !figure.money().isEmpty() && !figure.money().equals(money);
        }

        /** Zero is zero either way. */
        private boolean isOtherShare(WrittenNumber.Figure figure) {
            return figure.value() != 0 && !(figure.share() ? plainCell : shareCell).isEmpty();
        }

        @Override
        String refusal(String cell) {
            Optional<WrittenNumber.Figure> figure = written.read(cell);
            if (figure.isEmpty()) {
                return super.refusal(cell);
            }
            String shown = "'" + cell.strip() + "'";
            return isOtherMoney(figure.get()) ? shown + " is in another currency than '" + moneyCell + "'"
                    : isOtherShare(figure.get()) ? shown + " is " + (figure.get().share() ? "per cent and '" + plainCell + "' is not" : "not per cent and '" + shareCell + "' is")
                    : shown + (Kinds.isInexact(cell.strip()) ? " has more digits than a number keeps, as codes do" : " begins with a zero, as codes do");
        }

        @Override
        String written(double figure) {
            return Numbers.shortest(figure);
        }
    }
}
