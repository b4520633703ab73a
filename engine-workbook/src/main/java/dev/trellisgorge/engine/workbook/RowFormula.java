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

    private final List<String> texts = new ArrayList<>();
    private final StringBuilder marks = new StringBuilder();

    RowFormula(String marked) {
        int from = 0;
        for (int i = 0; i < marked.length(); i++) {
            char c = marked.charAt(i);
            if (c == HERE || c == ABOVE || c == RAW) {
                texts.add(marked.substring(from, i));
                marks.append(c);
                from = i + 1;
            }
        }
        texts.add(marked.substring(from));
    }

    /** Line numbers as a reader counts them, 1 for the header. */
    String at(int here, int raw) {
        StringBuilder formula = new StringBuilder(texts.get(0));
        for (int i = 0; i < marks.length(); i++) {
            char mark = marks.charAt(i);
            formula.append(mark == HERE ? here : mark == ABOVE ? here - 1 : raw).append(texts.get(i + 1));
        }
        return formula.toString();
    }
}
