package dev.trellisgorge.tables;

import dev.trellisgorge.problem.Place;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.IntFunction;

/**
 * A column that is read cell by cell: of the kind that the layout says, or of its first cell that is there, and figures are kept
 * as such. A cell of another kind comes too late for the ones before it, which are no longer known as they stood; then the file
 * is read again.
 */
final class GrowingColumn {
    private final Layout layout;
    private final Figures figures = new Figures();
    private final Texts texts = new Texts();
    private final Conversions conversions = new Conversions();
    private Kind kind;

    /** @param text whether it is known to hold texts, as an earlier reading found */
    GrowingColumn(Layout layout, Optional<Kind> given, boolean text) {
        this.layout = layout;
        this.kind = text ? Kind.TEXT : given.orElse(null);
    }

    /** Whether the cell could be taken; where not, the column is to be read as texts. */
    boolean add(String cell) {
        if (kind == Kind.TEXT) {
            texts.add(cell.isBlank() ? null : cell);
            return true;
        }
        if (cell.isBlank()) {
            figures.add(Double.NaN);
            return true;
        }
        String bare = cell.strip();
        if (kind == null && !layout.isMissing(bare)) {
            kind = Kinds.of(bare);
            if (kind == Kind.TEXT) {
                texts.fill(figures.size());
                texts.add(cell);
                return !conversions.any();
            }
        }
        OptionalDouble figure = kind == null ? OptionalDouble.empty() : Kinds.figure(kind, bare);
        if (figure.isPresent()) {
            figures.add(figure.getAsDouble());
            return true;
        }
        if (layout.isMissing(bare)) {
            conversions.add(figures.size(), bare, () -> "missing");
            figures.add(Double.NaN);
            return true;
        }
        return false;
    }

    /** Whether no cell stands in it. */
    boolean isBlank() {
        return kind == null && !conversions.any();
    }

    boolean isBlank(int row) {
        return kind == Kind.TEXT ? texts.isBlank(row) : Double.isNaN(figures.get(row));
    }

    /** Whether a cell that is there is no number, date or truth value. */
    boolean isText(int row) {
        return kind == Kind.TEXT && Kinds.of(texts.get(row).strip()) == Kind.TEXT;
    }

    /** The column; texts that are figures as people write them become such. */
    Column column(String name, WrittenCells written, IntFunction<Place> places) {
        if (kind == Kind.TEXT) {
            String[] cells = texts.all();
            return layout.kind(name).filter(given -> given == Kind.TEXT).isPresent() ? Column.texts(name, cells)
                    : written.column(new WrittenCells.Cells(name, cells, Optional.empty(), places));
        }
        Kind found = kind == null ? Kind.NUMBER : kind;
        written.note(conversions.note(name, found.name().toLowerCase(Locale.ROOT), row -> places.apply(row).toString()));
        return Column.owning(name, found, figures.all());
    }
}
