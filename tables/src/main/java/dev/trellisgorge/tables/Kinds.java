package dev.trellisgorge.tables;

import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Numbers;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;

/** Finds the kind of a column from its cells. */
final class Kinds {
    private Kinds() {
    }

    /** The column, of the narrowest kind that takes every cell; blank cells are missing, whatever the kind. */
    static Column column(String name, String[] cells, WrittenCells otherwise) {
        for (Kind kind : new Kind[] {Kind.NUMBER, Kind.DATE, Kind.TRUTH}) {
            Optional<double[]> figures = figures(kind, cells);
            if (figures.isPresent()) {
                return Column.owning(name, kind, figures.get());
            }
        }
        Optional<Column> read = otherwise.column(name, cells);
        if (read.isPresent()) {
            return read.get();
        }
        String[] texts = new String[cells.length];
        for (int row = 0; row < cells.length; row++) {
            texts[row] = cells[row].isBlank() ? null : cells[row];
        }
        return Column.texts(name, texts);
    }

    /** Dates where every cell that is there is one, texts else; null is missing. */
    static Column datesOrTexts(String name, String[] cells) {
        double[] days = new double[cells.length];
        boolean any = false;
        for (int row = 0; row < cells.length; row++) {
            OptionalDouble day = cells[row] == null ? OptionalDouble.of(Double.NaN) : day(cells[row]);
            if (day.isEmpty()) {
                return Column.texts(name, cells);
            }
            days[row] = day.getAsDouble();
            any |= cells[row] != null;
        }
        return any ? Column.owning(name, Kind.DATE, days) : Column.texts(name, cells);
    }

    private static Optional<double[]> figures(Kind kind, String[] cells) {
        double[] figures = new double[cells.length];
        for (int row = 0; row < cells.length; row++) {
            OptionalDouble figure = cells[row].isBlank() ? OptionalDouble.of(Double.NaN) : figure(kind, cells[row].strip());
            if (figure.isEmpty()) {
                return Optional.empty();
            }
            figures[row] = figure.getAsDouble();
        }
        return Optional.of(figures);
    }

    private static OptionalDouble figure(Kind kind, String cell) {
        return switch (kind) {
            case NUMBER -> Numbers.parse(cell);
            case DATE -> day(cell);
            case TRUTH -> switch (cell.toLowerCase(Locale.ROOT)) {
                case "true" -> OptionalDouble.of(1);
                case "false" -> OptionalDouble.of(0);
                default -> OptionalDouble.empty();
            };
            case TEXT -> OptionalDouble.empty();
        };
    }

    private static OptionalDouble day(String cell) {
        if (cell.length() != 10 || cell.charAt(4) != '-') {
            return OptionalDouble.empty();
        }
        try {
            return OptionalDouble.of(LocalDate.parse(cell).toEpochDay());
        } catch (DateTimeParseException e) {
            return OptionalDouble.empty();
        }
    }
}
