package dev.trellisgorge.shape;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.Leaf;
import dev.trellisgorge.formula.Settings;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * Which cells of a column a {@link Slice} keeps. A cell is stated as it is written ({@link Formulas#text}), or is the value of a setting
 * ({@link Formulas#setting}). Immutable and thread-safe.
 */
public sealed interface Cut {

    /** Cells that are one of some. At least one. */
    record OneOf(List<Formula> cells) implements Cut {
        public OneOf {
            cells = List.copyOf(cells);
            if (cells.isEmpty()) {
                throw new IllegalArgumentException("a slice needs at least one cell");
            }
            cells.forEach(Cut::refuseOther);
        }

        @Override
        public List<Formula> stated() {
            return cells;
        }

        @Override
        public String shown(Settings settings) {
            return cells.size() == 1 ? "is " + Cut.shown(cells.get(0), settings) : "is one of " + cells.stream().map(cell -> Cut.shown(cell, settings)).collect(Collectors.joining(", "));
        }

        @Override
        public String toString() {
            return shown(Settings.NONE);
        }
    }

    /**
     * Cells from one to another, both included: numbers by size, dates and periods by time, texts by code point.
     *
     * @param from the first; open where it is empty, but not both
     * @param to   the last
     */
    record Range(Optional<Formula> from, Optional<Formula> to) implements Cut {
        public Range {
            Objects.requireNonNull(from, "from");
            Objects.requireNonNull(to, "to");
            if (from.isEmpty() && to.isEmpty()) {
                throw new IllegalArgumentException("a range needs an end");
            }
            from.ifPresent(Cut::refuseOther);
            to.ifPresent(Cut::refuseOther);
        }

        @Override
        public List<Formula> stated() {
            return Stream.of(from, to).flatMap(Optional::stream).toList();
        }

        @Override
        public String shown(Settings settings) {
            return "is " + from.map(cell -> "from " + Cut.shown(cell, settings)).orElse("") + (from.isPresent() && to.isPresent() ? " " : "")
                    + to.map(cell -> "to " + Cut.shown(cell, settings)).orElse("");
        }

        @Override
        public String toString() {
            return shown(Settings.NONE);
        }
    }

    /** In words, {@code is from 2031-01 to 2031-03}, with the values of the settings that are there: {@code is 2031-03-01 (:month)}. */
    String shown(Settings settings);

    /** The cells and settings that it names. */
    List<Formula> stated();

    /** The cell that is written like this. */
    static Cut is(String cell) {
        return new OneOf(List.of(Formulas.text(cell)));
    }

    /** The cell that is a setting's value. */
    static Cut isSetting(String setting) {
        return new OneOf(List.of(Formulas.setting(setting)));
    }

    private static void refuseOther(Formula cell) {
        if (!(cell instanceof Leaf.Setting || cell instanceof Leaf.Literal literal && literal.value() instanceof String)) {
            throw new IllegalArgumentException("a slice takes texts, as cells are written, and settings; not " + cell);
        }
    }

    private static String shown(Formula cell, Settings settings) {
        return cell instanceof Leaf.Literal literal ? literal.value().toString()
                : settings.find(((Leaf.Setting) cell).name()).filter(value -> value.isPresent(0)).map(value -> value.written(0) + " (" + cell + ")").orElse(cell.toString());
    }
}
