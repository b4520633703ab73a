package dev.trellisgorge.tables;

import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Numbers;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.YearMonth;
import java.util.Locale;
import java.util.OptionalDouble;

/** Finds the kind of a column from its cells. */
final class Kinds {
    /** All integers of so many digits are doubles. */
    private static final int SURE_DIGITS = 15;
    /** What is longer is infinite as a double, which is reported. */
    private static final int MOST_DIGITS = 300;

    private Kinds() {
    }

    /** What a cell without blanks around it is by itself. */
    static Kind of(String cell) {
        for (Kind kind : new Kind[] {Kind.NUMBER, Kind.DATE, Kind.TRUTH}) {
            if (figure(kind, cell).isPresent()) {
                return kind;
            }
        }
        return Kind.TEXT;
    }

    /** Whether an integer is a code and no figure, as those of meters and accounts are: it begins with a zero that says nothing of its size, or a double would change it. */
    static boolean isCode(String cell) {
        return startsWithZero(cell) || isInexact(cell);
    }

    /** Whether digits alone, with a minus before them at most, are no number that a double keeps: neither its own nor the shortest that reads back to it. */
    static boolean isInexact(String cell) {
        int from = cell.startsWith("-") ? 1 : 0;
        if (cell.length() - from <= SURE_DIGITS || cell.length() > MOST_DIGITS) {
            return false;
        }
        for (int i = from; i < cell.length(); i++) {
            if (cell.charAt(i) < '0' || cell.charAt(i) > '9') {
                return false;
            }
        }
        double nearest = Double.parseDouble(cell);
        BigDecimal written = new BigDecimal(cell);
        return written.compareTo(Numbers.decimal(nearest)) != 0 && written.compareTo(new BigDecimal(nearest)) != 0;
    }

    private static boolean startsWithZero(String cell) {
        if (cell.length() < 2 || cell.charAt(0) != '0') {
            return false;
        }
        for (int i = 1; i < cell.length(); i++) {
            if (cell.charAt(i) < '0' || cell.charAt(i) > '9') {
                return false;
            }
        }
        return true;
    }

    /** Empty where the cell is not of that kind. */
    static OptionalDouble figure(Kind kind, String cell) {
        return switch (kind) {
            case NUMBER -> isCode(cell) ? OptionalDouble.empty() : Numbers.parse(cell);
            case DATE -> day(cell);
            case TRUTH -> switch (cell.toLowerCase(Locale.ROOT)) {
                case "true" -> OptionalDouble.of(1);
                case "false" -> OptionalDouble.of(0);
                default -> OptionalDouble.empty();
            };
            case TEXT -> OptionalDouble.empty();
        };
    }

    /** An ISO date, read character by character, as a library's parser takes ten times as long. */
    private static OptionalDouble day(String cell) {
        if (cell.length() != 10 || cell.charAt(4) != '-' || cell.charAt(7) != '-') {
            return OptionalDouble.empty();
        }
        int year = digits(cell, 0, 4);
        int month = digits(cell, 5, 7);
        int day = digits(cell, 8, 10);
        boolean there = year >= 0 && month >= 1 && month <= 12 && day >= 1 && (day <= 28 || day <= YearMonth.of(year, month).lengthOfMonth());
        return there ? OptionalDouble.of(LocalDate.of(year, month, day).toEpochDay()) : OptionalDouble.empty();
    }

    /** The number that some characters are; -1 where one is no digit. */
    private static int digits(String text, int from, int to) {
        int number = 0;
        for (int i = from; i < to; i++) {
            int digit = text.charAt(i) - '0';
            if (digit < 0 || digit > 9) {
                return -1;
            }
            number = number * 10 + digit;
        }
        return number;
    }
}
