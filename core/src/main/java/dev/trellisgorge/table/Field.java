package dev.trellisgorge.table;

import java.util.Locale;
import java.util.Objects;
import java.util.Optional;

/**
 * A column of a {@link Schema}: its name and kind, and for dates and periods the calendar unit that its cells go by.
 * Immutable and thread-safe; a unit that has to be looked up in cells is looked up once, when it is asked for.
 */
public final class Field {
    private final String name;
    private final Kind kind;
    private final Unit unit;

    /** A unit that is known, or is found in the cells of a column that was read. */
    private static final class Unit {
        private final Column cells;
        private Optional<CalendarUnit> found;

        Unit(Optional<CalendarUnit> known, Column cells) {
            this.found = known;
            this.cells = cells;
        }

        synchronized Optional<CalendarUnit> get() {
            if (found.isEmpty() && cells != null && (cells.kind() == Kind.DATE || cells.kind() == Kind.TEXT)) {
                found = Optional.of(CalendarUnit.of(cells));
            }
            return found;
        }
    }

    private Field(String name, Kind kind, Unit unit) {
        this.name = Objects.requireNonNull(name, "name");
        this.kind = Objects.requireNonNull(kind, "kind");
        this.unit = unit;
    }

    /** A column that is computed; nothing is known of its calendar unit. */
    public static Field of(String name, Kind kind) {
        return new Field(name, kind, new Unit(Optional.empty(), null));
    }

    /** A column of texts that each name a calendar period of this length. */
    public static Field periods(String name, CalendarUnit unit) {
        return new Field(name, Kind.TEXT, new Unit(Optional.of(unit), null));
    }

    static Field of(Column column) {
        return new Field(column.name(), column.kind(), new Unit(Optional.empty(), column));
    }

    public String name() {
        return name;
    }

    public Kind kind() {
        return kind;
    }

    /** The calendar unit that its cells go by; empty where that can't be known before they are computed. */
    public Optional<CalendarUnit> unit() {
        return unit.get();
    }

    public Field named(String newName) {
        return new Field(newName, kind, unit);
    }

    @Override
    public String toString() {
        return name + " (" + kind.name().toLowerCase(Locale.ROOT) + ")";
    }
}
