package dev.trellisgorge.formula;

import dev.trellisgorge.table.CalendarUnit;

/** The numbers of calendar periods ({@link CalendarUnit#index}) in the SpreadsheetML formula language. */
final class SheetPeriods {
    private static final String EPOCH = "DATE(1970,1,1)";

    private SheetPeriods() {
    }

    static String ofDate(String date, CalendarUnit unit) {
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
    static String ofText(String text, CalendarUnit unit) {
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
}
