package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.formula.NumberPattern;
import dev.trellisgorge.formula.Textual;
import dev.trellisgorge.formula.ValueFormatter;
import dev.trellisgorge.formula.Calendar.Part;
import dev.trellisgorge.formula.Condition.Relation;
import dev.trellisgorge.table.CalendarUnit;
import dev.trellisgorge.table.Kind;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.IntFunction;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/** Texts, dates and periods in the SpreadsheetML formula language: what a sheet has no short form for. Thread-safe. */
final class SheetTexts {
    private static final String EPOCH = "DATE(1970,1,1)";
    private static final String LENGTHS = "ROW($1:$255)";
    private static final Pattern DATE_PART = Pattern.compile("'((?:[^']|'')*)'|([A-Za-z])\\2*|[^A-Za-z']+");

    private SheetTexts() {
    }

    /** A text in double quotes. */
    static String quoted(String text) {
        return "\"" + text.replace("\"", "\"\"") + "\"";
    }

    static String date(LocalDate date) {
        return "DATE(" + date.getYear() + "," + date.getMonthValue() + "," + date.getDayOfMonth() + ")";
    }

    /** The signs of comparison pass over capitals and follow the reader's language, so texts are compared character by character. */
    static String compared(Relation relation, String a, String b) {
        if (relation == Relation.EQUAL) {
            return "EXACT(" + a + "," + b + ")";
        } else if (relation == Relation.UNEQUAL) {
            return "NOT(EXACT(" + a + "," + b + "))";
        }
        String first = "SUMPRODUCT(1*EXACT(LEFT(" + a + "," + LENGTHS + "),LEFT(" + b + "," + LENGTHS + ")))+1";
        return code(a, first) + relation.sign() + code(b, first);
    }

    /** The code point of the character at a place; below all others where the text has ended. */
    private static String code(String text, String at) {
        return "IFERROR(_xlfn.UNICODE(MID(" + text + "," + at + ",1)),-1)";
    }

    /** A cell of any kind as {@link Textual.Text} writes it. */
    static String written(String cell, Kind kind) {
        return switch (kind) {
            case TEXT -> cell;
            case DATE -> date(cell, "yyyy-MM-dd", Locale.ROOT);
            case TRUTH -> "IF(" + cell + ",\"true\",\"false\")";
            case NUMBER -> "\"\"&" + cell;
        };
    }

    /** The number of a calendar period, as {@link CalendarUnit#index} counts. */
    static String period(String cell, CalendarUnit unit, boolean text) {
        return text ? ofText(cell, unit) : ofDate(cell, unit);
    }

    static String field(String cell, Part part, boolean text) {
        if (!text) {
            return part == Part.QUARTER ? "INT((MONTH(" + cell + ")+2)/3)" : part + "(" + cell + ")";
        }
        String index = ofText(cell, CalendarUnit.valueOf(part.name()));
        return switch (part) {
            case YEAR -> index;
            case QUARTER -> "(MOD(" + index + ",4)+1)";
            case MONTH -> "(MOD(" + index + ",12)+1)";
            case DAY -> "DAY(" + index + "+" + EPOCH + ")";
        };
    }

    private static String ofDate(String date, CalendarUnit unit) {
        String month = "(YEAR(" + date + ")*12+MONTH(" + date + ")-1)";
        return switch (unit) {
            case DAY -> "(" + date + "-" + EPOCH + ")";
            case WEEK -> "INT((" + date + "-" + EPOCH + "+3)/7)";
            case MONTH -> month;
            case QUARTER -> "INT(" + month + "/3)";
            case YEAR -> "YEAR(" + date + ")";
        };
    }

    /** Of an ISO date, or of a period that is no longer than {@code unit}; an error for anything else. */
    private static String ofText(String text, CalendarUnit unit) {
        String year = "LEFT(" + text + ",4)+0";
        String month = "MID(" + text + ",6,2)+0";
        String day = "DATE(" + year + "," + month + ",MID(" + text + ",9,2)+0)";
        String monday = "(DATE(" + year + ",1,4)-WEEKDAY(DATE(" + year + ",1,4),2)+1+(MID(" + text + ",7,2)-1)*7)";
        String number = "IF(LEN(" + text + ")=10," + ofDate(day, unit) + ",";
        int open = 1;
        if (unit.compareTo(CalendarUnit.WEEK) >= 0) {
            number += "IF(UPPER(MID(" + text + ",6,1))=\"W\"," + ofDate(monday, unit) + ",";
            open++;
        }
        if (unit.compareTo(CalendarUnit.QUARTER) >= 0) {
            number += "IF(UPPER(MID(" + text + ",6,1))=\"Q\"," + ofDate("DATE(" + year + ",MID(" + text + ",7,1)*3-2,1)", unit) + ",";
            open++;
        }
        if (unit.compareTo(CalendarUnit.MONTH) >= 0) {
            number += "IF(LEN(" + text + ")=7," + ofDate("DATE(" + year + "," + month + ",1)", unit) + ",";
            open++;
        }
        if (unit == CalendarUnit.YEAR) {
            number += "IF(LEN(" + text + ")=4," + year + ",";
            open++;
        }
        return "IFERROR(" + number + "NA()" + ")".repeat(open) + ",NA())";
    }

    /** The first day of an ISO date or of a period; an error for anything else. */
    static String firstDay(String text) {
        String year = "LEFT(" + text + ",4)+0";
        String sixth = "MID(" + text + ",6,1)";
        String isYear = "AND(TEXT(" + year + ",\"0000\")=LEFT(" + text + ",4),OR(LEN(" + text + ")=4,MID(" + text + ",5,1)=\"-\"))";
        return "IF(NOT(" + isYear + "),NA(),IF(LEN(" + text + ")=4,DATE(" + year + ",1,1),IF(LEN(" + text + ")=10,DATE(" + year + ",MID(" + text + ",6,2)+0,MID(" + text + ",9,2)+0),IF(LEN(" + text + ")=8,"
                + "DATE(" + year + ",1,4)-WEEKDAY(DATE(" + year + ",1,4),2)+1+(MID(" + text + ",7,2)-1)*7,IF(UPPER(" + sixth + ")=\"Q\",DATE(" + year + ",MID(" + text
                + ",7,1)*3-2,1),DATE(" + year + ",MID(" + text + ",6,2)+0,1))))))";
    }

    /** A date by a CLDR pattern of years, quarters, months, days and weekdays, as {@link Textual.Formatted} writes it. */
    static String date(String cell, String pattern, Locale locale) {
        List<String> parts = new ArrayList<>();
        Matcher matcher = DATE_PART.matcher(pattern);
        while (matcher.find()) {
            String part = matcher.group();
            parts.add(matcher.group(1) != null ? quoted(part.equals("''") ? "'" : matcher.group(1).replace("''", "'"))
                    : matcher.group(2) == null ? quoted(part) : field(cell, part, locale));
        }
        return "(" + String.join("&", parts) + ")";
    }

    private static String field(String cell, String part, Locale locale) {
        int letters = part.length();
        return switch (part.charAt(0)) {
            case 'y', 'u' -> letters == 2 ? "RIGHT(YEAR(" + cell + "),2)" : padded("YEAR(" + cell + ")", letters);
            case 'Q', 'q' -> letters <= 2 ? padded(field(cell, Part.QUARTER, false), letters)
                    : named(field(cell, Part.QUARTER, false), 4, quarter -> name(part, LocalDate.of(2000, quarter * 3, 1), locale));
            case 'M', 'L' -> letters <= 2 ? padded("MONTH(" + cell + ")", letters) : named("MONTH(" + cell + ")", 12, month -> name(part, LocalDate.of(2000, month, 1), locale));
            case 'E' -> named("WEEKDAY(" + cell + ",2)", 7, day -> name(part, LocalDate.of(2000, 1, 2 + day), locale)); // a Sunday, the 2nd
            default -> padded("DAY(" + cell + ")", letters);
        };
    }

    private static String name(String part, LocalDate day, Locale locale) {
        return ValueFormatter.dates(part, locale).format(day);
    }

    private static String padded(String number, int digits) {
        return digits == 1 ? number : "TEXT(" + number + "," + quoted("0".repeat(digits)) + ")";
    }

    private static String named(String number, int count, IntFunction<String> name) {
        return "CHOOSE(" + number + "," + IntStream.rangeClosed(1, count).mapToObj(i -> quoted(name.apply(i))).collect(Collectors.joining(",")) + ")";
    }

    /** A number by a pattern; the signs for decimals and groups are those of the reader of the sheet. */
    static String number(String cell, NumberPattern pattern) {
        if (pattern.isExponential()) {
            return "(\"\"&" + cell + ")";
        }
        String rounded = rounded(cell, pattern);
        String scaled = "ABS(" + rounded + ")" + (pattern.shift() == 0 ? "" : "*" + (int) Math.pow(10, pattern.shift()));
        String figure = "FIXED(" + scaled + "," + decimals(scaled, pattern) + "," + (pattern.groups() > 0 ? "FALSE" : "TRUE") + ")";
        return "IF(" + rounded + "<0," + affixed(pattern.negative(), figure) + "," + affixed(pattern.positive(), figure) + ")";
    }

    private static String affixed(NumberPattern.Around around, String figure) {
        return (around.before().isEmpty() ? "" : quoted(around.before()) + "&") + figure + (around.after().isEmpty() ? "" : "&" + quoted(around.after()));
    }

    /** A formula that rounds a cell as the pattern does, so that nothing is written as less than zero that rounds to it. */
    static String rounded(String cell, NumberPattern pattern) {
        return pattern.isExponential() ? cell : "ROUND(" + cell + "," + pattern.digits() + ")";
    }

    /** How many decimals a figure is written with: the fewest that show it, of those that the pattern allows. */
    private static String decimals(String scaled, NumberPattern pattern) {
        int most = pattern.mostDecimals();
        String decimals = String.valueOf(most);
        for (int fewer = most - 1; fewer >= pattern.leastDecimals(); fewer--) {
            decimals = "IF(ROUND(" + scaled + "," + most + ")=ROUND(" + scaled + "," + fewer + ")," + fewer + "," + decimals + ")";
        }
        return decimals;
    }
}
