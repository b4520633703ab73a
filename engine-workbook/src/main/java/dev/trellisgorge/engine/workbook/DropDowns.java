package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.shape.Cut;
import dev.trellisgorge.shape.Rank;
import dev.trellisgorge.shape.Slice;
import dev.trellisgorge.formula.Leaf;
import dev.trellisgorge.table.CalendarUnit;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Numbers;
import dev.trellisgorge.table.Table;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.IntFunction;
import java.util.function.Supplier;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/**
 * What a reader picks rows by: the settings that slices read, and a setting for each slice by one stated cell, with the cells that
 * there are. Used by one thread.
 */
final class DropDowns {
    private static final int MOST = 1_000;
    private static final String NAME = "[\\p{L}_][\\p{L}\\p{N}_]*";

    private final Set<String> taken = new HashSet<>();
    private final Map<String, Column> offered = new LinkedHashMap<>();
    private final Map<String, Growing> growing = new HashMap<>();
    private final Map<String, Column> values = new LinkedHashMap<>();
    private final Map<String, String> meanings = new LinkedHashMap<>();

    /** Takes names for settings that a brief has. */
    void taken(Set<String> names) {
        taken.addAll(names);
    }

    /** The settings that stand for stated cells, each with that cell. */
    Map<String, Column> values() {
        return values;
    }

    /** What such a setting is, in words; empty for a setting of the brief. */
    Optional<String> meaning(String setting) {
        return Optional.ofNullable(meanings.get(setting));
    }

    /** The cells that a setting may be; empty where any will do. */
    Optional<Column> offered(String setting) {
        return Optional.ofNullable(offered.get(setting));
    }

    /**
     * A list that takes in rows to come.
     *
     * @param lines how many cells it has room for
     * @param cell  a formula for each of them, from 1; blank below the last one
     */
    record Growing(int lines, IntFunction<String> cell) {
    }

    /** States how the list of what a setting may be follows the rows; the first that is stated counts. */
    void grows(String setting, Supplier<Growing> list) {
        if (offered.containsKey(setting)) {
            growing.computeIfAbsent(setting, each -> list.get());
        }
    }

    /** Empty where the list stays as it is. */
    Optional<Growing> growing(String setting) {
        return Optional.ofNullable(growing.get(setting));
    }

    /**
     * A slice by settings, where it is one by stated cells.
     *
     * @param charts   what the rows are for
     * @param settings those that the brief has
     * @param ranges   whether the ends of a range may be moved too, as there is room for as many rows as there are
     */
    Slice adjustable(Slice slice, Table rows, String charts, Settings settings, boolean ranges) {
        Column cells = distinct(rows.column(slice.column()));
        if (cells.size() > MOST || !slice.column().matches(NAME)) {
            return slice;
        }
        String column = slice.column();
        if (slice.cut() instanceof Cut.OneOf one) {
            String meaning = one.cells().size() == 1 ? "which " + column + " is shown by " + charts : "a " + column + " that is shown by " + charts;
            return new Slice(column, new Cut.OneOf(one.cells().stream().map(cell -> adjustable(cell, cells, column, meaning, settings)).toList()));
        } else if (slice.cut() instanceof Cut.Range range && ranges) {
            return new Slice(column, new Cut.Range(range.from().map(cell -> adjustable(cell, cells, column + "_from", "from which " + column + " on " + charts + " shows", settings)),
                    range.to().map(cell -> adjustable(cell, cells, column + "_to", "up to which " + column + " " + charts + " shows", settings))));
        }
        return slice;
    }

    /** A stated cell as a setting with that name, where there is such a cell; a setting of the brief gets a list. */
    private Formula adjustable(Formula stated, Column cells, String wanted, String meaning, Settings settings) {
        if (stated instanceof Leaf.Setting setting) {
            settings.find(setting.name()).filter(value -> value.kind() == cells.kind()).ifPresent(value -> offered.putIfAbsent(setting.name(), cells));
            return stated;
        }
        Optional<Column> value = IntStream.range(0, cells.size()).filter(row -> isWritten(cells, row, ((Leaf.Literal) stated).value().toString())).mapToObj(row -> cells.at(new int[] {row})).findFirst();
        if (value.isEmpty()) {
            return stated;
        }
        String name = free(wanted);
        offered.put(name, cells);
        values.put(name, value.get().named(name));
        meanings.put(name, meaning);
        return Formulas.setting(name);
    }

    /** The setting by which a reader turns the order of rows that were ranked, with the three ways that there are. */
    String order(String charts, Rank.Way way) {
        String name = free("row_order");
        offered.put(name, Column.texts(name, Stream.of(Rank.Way.DESCENDING, Rank.Way.ASCENDING, Rank.Way.TABLE).map(DropDowns::inWords).toArray(String[]::new)));
        values.put(name, Column.texts(name, inWords(way)));
        meanings.put(name, "in which order the rows stand in " + charts);
        return name;
    }

    static String inWords(Rank.Way way) {
        return switch (way) {
            case DESCENDING -> "largest first";
            case ASCENDING -> "smallest first";
            case TABLE -> "as in the table";
        };
    }

    private String free(String wanted) {
        String name = wanted;
        for (int i = 2; !taken.add(name); i++) {
            name = wanted + "_" + i;
        }
        return name;
    }

    /** The most rows that a slice leaves, whichever of the offered cells is picked; empty where it isn't picked. */
    OptionalInt mostRows(Slice slice, Table rows) {
        if (!(slice.cut() instanceof Cut.OneOf one) || one.cells().stream().noneMatch(cell -> cell instanceof Leaf.Setting setting && offered.containsKey(setting.name()))) {
            return OptionalInt.empty();
        }
        Column cells = rows.column(slice.column());
        Map<String, Integer> counts = new HashMap<>();
        IntStream.range(0, cells.size()).filter(cells::isPresent).forEach(row -> counts.merge(cells.written(row), 1, Integer::sum));
        return OptionalInt.of(counts.values().stream().sorted(Comparator.reverseOrder()).limit(one.cells().size()).mapToInt(Integer::intValue).sum());
    }

    private static boolean isWritten(Column cells, int row, String stated) {
        return switch (cells.kind()) {
            case NUMBER -> Numbers.parse(stated).stream().anyMatch(figure -> figure == cells.number(row));
            case DATE -> CalendarUnit.days(stated).filter(days -> days.first().equals(days.last()) && days.first().equals(cells.date(row).orElseThrow())).isPresent();
            case TEXT -> cells.written(row).equals(stated);
            case TRUTH -> false;
        };
    }

    /** Each cell once, in the order in which they stand. */
    private static Column distinct(Column cells) {
        Set<String> seen = new HashSet<>();
        return cells.at(IntStream.range(0, cells.size()).filter(row -> cells.isPresent(row) && seen.add(cells.written(row))).toArray());
    }
}
