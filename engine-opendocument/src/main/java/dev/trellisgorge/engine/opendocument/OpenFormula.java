package dev.trellisgorge.engine.opendocument;

import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** A formula of a workbook in the words of OpenFormula (ISO/IEC 26300, part 2): the functions have the same names there, cells are written otherwise. */
final class OpenFormula {
    private static final Pattern TOKEN = Pattern.compile("(?<text>\"(?:[^\"]|\"\")*\")"
            + "|(?<error>#[A-Z0-9/]+[!?]?)"
            + "|(?<cell>(?:(?:'(?:[^']|'')+'|[\\p{L}_][\\p{L}\\p{N}_.]*)!)?\\$?[A-Z]{1,3}\\$?[0-9]+(?![\\p{L}\\p{N}_.(!]))"
            + "|(?<rows>\\$[0-9]+:\\$[0-9]+)"
            + "|(?<later>_xlfn\\.)" // before functions that came to workbooks after the first edition of their standard
            + "|(?<number>[0-9]+(?:\\.[0-9]+)?(?:[Ee][+-]?[0-9]+)?)"
            + "|(?<name>[\\p{L}_][\\p{L}\\p{N}_.]*)"
            + "|(?<sign>[-+*/^&=<>%():, ])");
    private static final Pattern PLACE = Pattern.compile("(?:('(?:[^']|'')+'|[^!]+)!)?(\\$?[A-Z]{1,3}\\$?[0-9]+)");

    private OpenFormula() {
    }

    /** As a cell holds it. */
    static String of(String formula) {
        return "of:=" + expression(formula);
    }

    /**
     * Without the mark that a cell's formula begins with.
     *
     * @throws IllegalStateException where it holds what no formula of ours does
     */
    static String expression(String formula) {
        StringBuilder written = new StringBuilder();
        Matcher token = TOKEN.matcher(formula);
        int at = 0;
        while (at < formula.length()) {
            if (!token.find(at) || token.start() != at) {
                throw new IllegalStateException("no formula of ours: " + formula + ", at " + at);
            }
            at = token.end();
            if (token.group("cell") != null) {
                String from = token.group();
                Matcher after = TOKEN.matcher(formula);
                boolean range = at < formula.length() && formula.charAt(at) == ':' && after.find(at + 1) && after.start() == at + 1 && after.group("cell") != null;
                written.append('[').append(cell(from, true));
                if (range) {
                    written.append(':').append(cell(after.group(), true));
                    at = after.end();
                }
                written.append(']');
            } else if (token.group("rows") != null) {
                written.append("[.").append(token.group().replace(":", ":.")).append(']');
            } else if (token.group("later") != null) {
                continue;
            } else if (token.group("name") != null && (token.group().equals("TRUE") || token.group().equals("FALSE")) && !formula.startsWith("(", at)) {
                written.append(token.group()).append("()");
            } else {
                written.append(token.group().equals(",") ? ";" : token.group());
            }
        }
        return written.toString();
    }

    /** A cell or a range, as attributes name it: each end with its sheet, which stays the same wherever it is read from. */
    static String address(String reference) {
        int between = reference.indexOf(':', reference.lastIndexOf('!') + 1);
        String first = between < 0 ? reference : reference.substring(0, between);
        if (between < 0) {
            return cell(first, false);
        }
        String last = reference.substring(between + 1);
        return cell(first, false) + ":" + cell(first.substring(0, first.lastIndexOf('!') + 1) + last, false);
    }

    /** @param own whether one without a sheet is of the sheet that it stands on */
    private static String cell(String reference, boolean own) {
        Matcher place = PLACE.matcher(reference);
        if (!place.matches() || place.group(1) == null && !own) {
            throw new IllegalStateException("no cell: " + reference);
        }
        return (place.group(1) == null ? "" : sheet(place.group(1))) + "." + place.group(2);
    }

    private static String sheet(String name) {
        return "$" + (name.startsWith("'") ? name : "'" + name + "'");
    }

    /** A sheet's name as addresses state it. */
    static String quoted(String sheet) {
        return "$'" + sheet.replace("'", "''") + "'";
    }
}
