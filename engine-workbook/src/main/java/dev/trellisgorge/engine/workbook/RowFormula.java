package dev.trellisgorge.engine.workbook;

import java.util.ArrayList;
import java.util.List;

/**
 * A formula that is the same on every row but for the rows that it names. It is written once, with a mark where a row's
 * number goes, and then only filled in.
 */
final class RowFormula {
    /** Stands for the row on the helper sheet, the one above it, and the row on the raw sheet. */
    static final char HERE = '\u0001';
    static final char ABOVE = '\u0002';
    static final char RAW = '\u0003';
    /** Stands for a row on a sheet whose rows begin on another line than those here; the sign after it says by how many. */
    private static final char SHIFTED = '\u0004';
    private static final int NO_SHIFT = 0x2000;
    private static final int MOST_SHIFTED = 0x1000;

    private final List<String> texts = new ArrayList<>();
    private final StringBuilder marks = new StringBuilder();
    private final List<Integer> shifts = new ArrayList<>();

    RowFormula(String marked) {
        int from = 0;
        for (int i = 0; i < marked.length(); i++) {
            char c = marked.charAt(i);
            if (c == HERE || c == ABOVE || c == RAW || c == SHIFTED) {
                texts.add(marked.substring(from, i));
                marks.append(c);
                shifts.add(c == SHIFTED ? marked.charAt(++i) - NO_SHIFT : 0);
                from = i + 1;
            }
        }
        texts.add(marked.substring(from));
    }

    /** The mark of a row so many lines below this one, or above where it is below 0. */
    static String shifted(int lines) {
        return "" + SHIFTED + (char) (NO_SHIFT + lines);
    }

    static boolean canShift(int lines) {
        return Math.abs(lines) < MOST_SHIFTED;
    }

    /** Line numbers as a reader counts them, 1 for the header. */
    String at(int here, int raw) {
        StringBuilder formula = new StringBuilder(texts.get(0));
        for (int i = 0; i < marks.length(); i++) {
            char mark = marks.charAt(i);
            formula.append(mark == HERE ? here : mark == ABOVE ? here - 1 : mark == SHIFTED ? here + shifts.get(i) : raw).append(texts.get(i + 1));
        }
        return formula.toString();
    }
}
