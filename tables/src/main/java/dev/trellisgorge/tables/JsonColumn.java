package dev.trellisgorge.tables;

import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import java.util.ArrayList;
import java.util.List;

/** The cells of one column on the way: each as it was written, and what all of them are. */
final class JsonColumn {
    private final List<String> written = new ArrayList<>();
    private final List<Double> figures = new ArrayList<>();
    private boolean numbers;
    private boolean truths;
    private boolean texts;

    int size() {
        return written.size();
    }

    void addMissing() {
        add(null, Double.NaN);
    }

    void addText(String text) {
        texts = true;
        add(text, Double.NaN);
    }

    void addTruth(boolean truth) {
        truths = true;
        add(String.valueOf(truth), truth ? 1 : 0);
    }

    void addNumber(String text, double number) {
        numbers = true;
        add(text, number + 0.0);
    }

    private void add(String text, double figure) {
        written.add(text);
        figures.add(figure);
    }

    /** With cells up to so many rows; what was not given is missing. */
    JsonColumn filled(int rows) {
        while (size() < rows) {
            addMissing();
        }
        return this;
    }

    Column column(String name) {
        if (!texts && !(numbers && truths)) {
            return Column.owning(name, truths ? Kind.TRUTH : Kind.NUMBER, figures.stream().mapToDouble(Double::doubleValue).toArray());
        }
        String[] cells = written.toArray(String[]::new);
        return texts && !numbers && !truths ? Kinds.datesOrTexts(name, cells) : Column.texts(name, cells);
    }
}
