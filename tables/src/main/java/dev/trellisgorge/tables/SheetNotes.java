package dev.trellisgorge.tables;

import dev.trellisgorge.problem.Note;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.apache.poi.ss.util.CellReference;

/** What a reader should know of a sheet that its table does not show. */
final class SheetNotes {
    private static final int LISTED = 8;

    private final Map<Integer, Map<String, List<Integer>>> units = new TreeMap<>();
    private final Map<Integer, Map<Integer, Double>> times = new TreeMap<>();
    private final Map<Integer, List<Integer>> workedOut = new TreeMap<>();
    private final Map<Integer, List<Integer>> stale = new TreeMap<>();
    private final List<Note> others = new ArrayList<>();

    /** That a figure has a unit beside it. Columns are from 0, lines from 1. */
    void unit(int line, int column, String unit) {
        units.computeIfAbsent(column, at -> new LinkedHashMap<>()).computeIfAbsent(unit, each -> new ArrayList<>()).add(line);
    }

    /** That a date has a time of day, so many hours after midnight, which a column of dates does not hold. */
    void time(int line, int column, double hours) {
        times.computeIfAbsent(column, at -> new TreeMap<>()).put(line, hours);
    }

    /** The hours from midnight to the time of day of a date. */
    double hours(int line, int column) {
        return times.getOrDefault(column, Map.of()).getOrDefault(line, 0.0);
    }

    /** That the result of a formula is not the file's own. */
    void workedOut(int line, int column) {
        workedOut.computeIfAbsent(column, at -> new ArrayList<>()).add(line);
    }

    /** That the result of a formula is the file's own, though it is to be worked out anew. */
    void stale(int line, int column) {
        stale.computeIfAbsent(column, at -> new ArrayList<>()).add(line);
    }

    void add(Note note) {
        others.add(note);
    }

    /**
     * What holds for the rows of a table.
     *
     * @param names  of its columns by their places
     * @param kept   the columns whose times of day are read
     */
    List<Note> of(Map<Integer, String> names, Set<String> kept, Set<Integer> lines) {
        List<Note> notes = new ArrayList<>(others);
        names.forEach((column, name) -> {
            Map<String, List<Integer>> inUse = new LinkedHashMap<>();
            units.getOrDefault(column, Map.of()).forEach((unit, cells) -> {
                List<Integer> within = cells.stream().filter(lines::contains).toList();
                if (!within.isEmpty()) {
                    inUse.put(unit, within);
                }
            });
            if (inUse.size() > 1) {
                notes.add(Note.urgent("figures of '" + name + "' are of several units, and are counted as if they were of one", inUse.entrySet().stream().map(each -> each.getKey() + " (" + listed(column, each.getValue()) + ")").toList()));
            }
            List<Integer> cut = times.getOrDefault(column, Map.of()).keySet().stream().filter(line -> lines.contains(line) && !kept.contains(name)).toList();
            if (!cut.isEmpty()) {
                notes.add(new Note("dates of '" + name + "' have a time of day, which is left out; 'times-of-day' has it as hours", List.of(listed(column, cut))));
            }
            within(workedOut, column, lines).ifPresent(cells -> notes.add(Note.urgent("formulas of '" + name + "' have no results in the file, or other ones, and were worked out here", List.of(cells))));
            within(stale, column, lines).ifPresent(cells -> notes.add(Note.urgent("results of formulas of '" + name + "' may be old: the file asks for them to be worked out anew, which can't be done here", List.of(cells))));
        });
        return notes;
    }

    private static Optional<String> within(Map<Integer, List<Integer>> cells, int column, Set<Integer> lines) {
        List<Integer> within = cells.getOrDefault(column, List.of()).stream().filter(lines::contains).toList();
        return within.isEmpty() ? Optional.empty() : Optional.of(listed(column, within));
    }

    /** {@code C2, C3, C5 and 12 more}. */
    static String listed(int column, List<Integer> lines) {
        String letters = CellReference.convertNumToColString(column);
        String listed = String.join(", ", lines.stream().limit(LISTED).map(line -> letters + line).toList());
        return lines.size() > LISTED ? listed + " and " + (lines.size() - LISTED) + " more" : listed;
    }
}
