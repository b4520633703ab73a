package dev.trellisgorge.tables;

import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import java.util.OptionalDouble;

/**
 * A column that is read cell by cell: of the kind of its first cell that is there, and figures are kept as such. A cell of
 * another kind comes too late for the ones before it, which are no longer known as they stood; then the file is read again.
 */
final class GrowingColumn {
    private static final int FIRST_ROWS = 64;
    /** Texts that come again are kept once; a column of ever new ones is not looked through. */
    private static final int MOST_KNOWN = 50_000;

    private Kind kind;
    private double[] figures = new double[0];
    private String[] texts = new String[0];
    private Map<String, String> known = new HashMap<>();
    private int size;

    /** @param text whether it is known to hold texts, as an earlier reading found */
    GrowingColumn(boolean text) {
        this.kind = text ? Kind.TEXT : null;
    }

    /** Whether the cell could be taken; where not, the column holds texts after all. */
    boolean add(String cell) {
        if (cell.isBlank()) {
            addMissing();
            return true;
        }
        if (kind == null) {
            kind = Kinds.of(cell);
        }
        if (kind == Kind.TEXT) {
            addText(cell);
            return true;
        }
        OptionalDouble figure = Kinds.figure(kind, cell.strip());
        if (figure.isPresent()) {
            addFigure(figure.getAsDouble());
        }
        return figure.isPresent();
    }

    private void addMissing() {
        if (kind == Kind.TEXT) {
            addText(null);
        } else {
            addFigure(Double.NaN);
        }
    }

    private void addFigure(double figure) {
        if (size == figures.length) {
            figures = Arrays.copyOf(figures, Math.max(FIRST_ROWS, size + (size >> 1)));
        }
        figures[size++] = figure;
    }

    private void addText(String text) {
        if (size >= texts.length) {
            texts = Arrays.copyOf(texts, Math.max(FIRST_ROWS, size + (size >> 1) + 1));
        }
        texts[size++] = text == null ? null : once(text);
    }

    private String once(String text) {
        if (known.size() < MOST_KNOWN) {
            String before = known.putIfAbsent(text, text);
            return before == null ? text : before;
        }
        return known.getOrDefault(text, text);
    }

    /** The column; texts that are figures or dates as people write them become such. */
    Column column(String name, WrittenCells otherwise) {
        known = Map.of();
        if (kind != Kind.TEXT) {
            return Column.owning(name, kind == null ? Kind.NUMBER : kind, Arrays.copyOf(figures, size));
        }
        String[] cells = Arrays.copyOf(texts, size);
        return otherwise.column(name, cells).orElseGet(() -> Column.texts(name, cells));
    }
}
