package dev.trellisgorge.tables;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import java.util.BitSet;
import java.util.Optional;
import java.util.function.IntFunction;

/**
 * The cells of one column on the way: figures where all of them are numbers, or all true or false; else texts, each as it is
 * written. Where a text comes after figures the file is read again, as they are no longer known as they stood.
 */
final class JsonColumn {
    private final Figures figures = new Figures();
    private final Texts texts = new Texts();
    private final BitSet typed = new BitSet();
    private Kind kind;

    /** @param text whether it is known to hold texts, as an earlier reading found */
    JsonColumn(boolean text) {
        this.kind = text ? Kind.TEXT : null;
    }

    int size() {
        return kind == Kind.TEXT ? texts.size() : figures.size();
    }

    /** With missing cells up to so many rows. */
    JsonColumn filled(int rows) {
        while (size() < rows) {
            addMissing();
        }
        return this;
    }

    void addMissing() {
        if (kind == Kind.TEXT) {
            texts.add(null);
        } else {
            figures.add(Double.NaN);
        }
    }

    /** Whether the text could be taken; where not, the column is to be read as texts. */
    boolean addText(String text) {
        if (kind == null) {
            texts.fill(figures.size());
            kind = Kind.TEXT;
        }
        if (kind == Kind.TEXT) {
            texts.add(text.isBlank() ? null : text);
        }
        return kind == Kind.TEXT;
    }

    /** The same of a number, or of true and false. */
    boolean addFigure(Kind of, String text, double figure) {
        kind = kind == null ? of : kind;
        if (kind == Kind.TEXT) {
            typed.set(texts.size());
            texts.add(text);
        } else if (kind == of) {
            figures.add(figure + 0.0);
        }
        return kind == of || kind == Kind.TEXT;
    }

    /** Whether no row has a cell of it. */
    boolean isEmpty() {
        return kind == null;
    }

    Column column(String name, Layout layout, WrittenCells written, IntFunction<Place> places) {
        Optional<Kind> given = layout.kind(name);
        Kind found = kind == null ? given.filter(wanted -> wanted != Kind.TEXT).orElse(Kind.NUMBER) : kind;
        if (found != Kind.TEXT && given.filter(wanted -> wanted != found).isPresent()) {
            throw new BadInput(Place.inFile(places.apply(0).file()).within("column '" + name + "'"), ProblemKind.DATA, "holds " + found.phrase() + " a row, and is said to hold " + given.get().phrase());
        }
        if (found != Kind.TEXT) {
            return Column.owning(name, found, figures.all());
        }
        return given.isPresent() && given.get() == Kind.TEXT ? Column.texts(name, texts.all())
                : written.column(new WrittenCells.Cells(name, texts.all(), Optional.of(typed::get), places));
    }
}
