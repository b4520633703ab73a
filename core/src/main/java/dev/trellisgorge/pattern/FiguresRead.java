package dev.trellisgorge.pattern;

import dev.trellisgorge.formula.Formula;
import java.util.LinkedHashMap;
import java.util.Map;

/** The formulas that a pattern reads or a message names, by their key, in the order in which a user reads them. */
final class FiguresRead {
    private FiguresRead() {
    }

    static Map<String, Formula> of(String first, Formula one, String second, Formula other) {
        Map<String, Formula> figures = new LinkedHashMap<>();
        figures.put(first, one);
        figures.put(second, other);
        return figures;
    }
}
