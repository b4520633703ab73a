package dev.trellisgorge.tables;

import dev.trellisgorge.table.Numbers;
import java.util.Objects;
import java.util.regex.Pattern;

/** What stands in a cell of a sheet besides numbers, dates, truths and texts. */
sealed interface SheetCell {

    /** A time of day or a duration, in days. */
    record Time(double days) implements SheetCell {
        private static final long SECONDS = 86_400;

        /** As people write it: {@code 8:30}, {@code 26:05:10}. */
        @Override
        public String toString() {
            long seconds = Math.round(Math.abs(days) * SECONDS);
            String minutes = (days < 0 ? "-" : "") + seconds / 3600 + ":" + String.format("%02d", seconds / 60 % 60);
            return seconds % 60 == 0 ? minutes : minutes + ":" + String.format("%02d", seconds % 60);
        }
    }

    /** Nothing that could be read: an error value, or a formula that nobody has worked out. */
    record Unreadable(String why) implements SheetCell {
        public Unreadable {
            Objects.requireNonNull(why, "why");
        }

        /** Whether it is what a formula comes to, and not a formula that can't be worked out here. */
        boolean isResult() {
            return isError(why) && !why.equals(UNKNOWN_NAME);
        }

        @Override
        public String toString() {
            return why;
        }
    }

    /** What a formula comes to that names what is not there, or what a program does not know. */
    String UNKNOWN_NAME = "#NAME?";
    /** Error values: of OpenFormula and SpreadsheetML, and as programs write those that have no name there. */
    Pattern ERROR = Pattern.compile("#(DIV/0!|N/A|NAME\\?|NULL!|NUM!|REF!|VALUE!)|Err:\\d{3}");

    static boolean isError(String text) {
        return ERROR.matcher(text).matches();
    }

    /** As a text column has it. */
    static String written(Object cell) {
        return cell instanceof Double number ? Numbers.shortest(number) : String.valueOf(cell);
    }
}
