package dev.trellisgorge.tables;

import dev.trellisgorge.problem.Note;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Numbers;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.Function;
import java.util.function.IntFunction;

/**
 * Columns whose cells are numbers or dates, but not all written plainly: they become such columns where every cell that is there
 * can be read, and what was read otherwise than it stands is told.
 */
final class WrittenCells {
    private static final int LISTED = 5;

    private final Layout layout;
    private final IntFunction<String> places;
    private final List<Note> notes = new ArrayList<>();

    /** @param places where a row stands, for readers */
    WrittenCells(Layout layout, IntFunction<String> places) {
        this.layout = layout;
        this.places = places;
    }

    List<Note> notes() {
        return notes;
    }

    /** The column of numbers or dates that the texts are; empty where some cell is neither. */
    Optional<Column> column(String name, String[] cells) {
        if (!mayBeWritten(cells)) {
            return Optional.empty();
        }
        List<Character> signs = layout.decimal().map(List::of).orElse(List.of('.', ','));
        for (char sign : signs) {
            Optional<Column> numbers = read(name, cells, Kind.NUMBER, "a number", new WrittenNumber(sign)::read, Numbers::shortest);
            if (numbers.isPresent()) {
                return numbers;
            }
        }
        return layout.dates().flatMap(pattern -> read(name, cells, Kind.DATE, "a date", cell -> day(cell, pattern),
                day -> LocalDate.ofEpochDay((long) day).toString()));
    }

    /** Whether the first cell that is there has a digit at all; most columns of texts end here. */
    private boolean mayBeWritten(String[] cells) {
        for (String cell : cells) {
            if (cell != null && !cell.isBlank() && !layout.missing().contains(cell.strip())) {
                return cell.chars().anyMatch(sign -> sign >= '0' && sign <= '9');
            }
        }
        return false;
    }

    private static OptionalDouble day(String cell, DateTimeFormatter pattern) {
        for (DateTimeFormatter each : List.of(DateTimeFormatter.ISO_LOCAL_DATE, pattern)) {
            try {
                return OptionalDouble.of(LocalDate.parse(cell.strip(), each).toEpochDay());
            } catch (DateTimeParseException e) {
                // the other one may take it
            }
        }
        return OptionalDouble.empty();
    }

    private interface Writing {
        String of(double figure);
    }

    private Optional<Column> read(String name, String[] cells, Kind kind, String what, Function<String, OptionalDouble> reading, Writing writing) {
        double[] figures = new double[cells.length];
        Map<Integer, String> read = new LinkedHashMap<>();
        boolean any = false;
        for (int row = 0; row < cells.length; row++) {
            String cell = cells[row];
            if (cell == null || cell.isBlank()) {
                figures[row] = Double.NaN;
            } else if (layout.missing().contains(cell.strip())) {
                figures[row] = Double.NaN;
                read.put(row, "missing");
            } else {
                OptionalDouble figure = reading.apply(cell);
                if (figure.isEmpty()) {
                    return Optional.empty();
                }
                any = true;
                figures[row] = figure.getAsDouble();
                if (!cell.strip().equals(writing.of(figures[row])) && Numbers.parse(cell).isEmpty()) {
                    read.put(row, writing.of(figures[row]));
                }
            }
        }
        if (!any) {
            return Optional.empty();
        }
        if (!read.isEmpty()) {
            notes.add(new Note((read.size() == 1 ? "1 cell" : read.size() + " cells") + " of '" + name + "' not written as " + what + " stands there, and read so",
                    listed(cells, read)));
        }
        return Optional.of(Column.owning(name, kind, figures));
    }

    private List<String> listed(String[] cells, Map<Integer, String> read) {
        List<String> listed = new ArrayList<>();
        read.entrySet().stream().limit(LISTED).forEach(entry -> listed.add("'" + cells[entry.getKey()].strip() + "' as " + entry.getValue() + " ("
                + places.apply(entry.getKey()) + ")"));
        if (read.size() > LISTED) {
            listed.add("and " + (read.size() - LISTED) + " more");
        }
        return listed;
    }
}
