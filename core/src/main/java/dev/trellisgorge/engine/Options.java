package dev.trellisgorge.engine;

import dev.trellisgorge.chart.Size;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.EnumSet;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;

/**
 * How files are to be made. Immutable and thread-safe.
 *
 * @param size      of each picture
 * @param spareRows for how many rows more in each raw table a live file has room, 0 or more
 * @param spareBars for how many bars more a chart has room whose rows are totals; empty for a quarter of those that there are, and one at least
 * @param author    who made it, as the file's properties say; empty for the program's own name, or none
 * @param date      the day on which it was made, as the file's properties say; empty for none, so that the same input gives the same bytes
 * @param into      a file of the same kind that what is drawn is put into, beside what it holds; empty for a file of its own
 */
public record Options(Size size, int spareRows, OptionalInt spareBars, Optional<String> author, Optional<LocalDate> date, Optional<Path> into) {
    /** Pictures of the usual size, and nothing else asked for. */
    public static final Options STANDARD = of(Size.STANDARD);

    /** What not every kind of file takes. */
    public enum Extra {
        SPARE_ROWS("have no room for rows to come"), AUTHOR("don't say who made them"), DATE("don't say when they were made"), INTO("can't be drawn into");

        private final String lacking;

        Extra(String lacking) {
            this.lacking = lacking;
        }

        /** What files do that don't take it. */
        String lacking() {
            return lacking;
        }
    }

    /** @throws IllegalArgumentException where there is room for less than nothing */
    public Options {
        Objects.requireNonNull(size, "size");
        if (spareRows < 0 || spareBars.orElse(0) < 0) {
            throw new IllegalArgumentException("there is room for 0 rows more, or for some, not for " + Math.min(spareRows, spareBars.orElse(0)));
        }
    }

    /** Pictures of a size, and nothing else asked for. */
    public static Options of(Size size) {
        return new Options(size, 0, OptionalInt.empty(), Optional.empty(), Optional.empty(), Optional.empty());
    }

    /**
     * Room for rows to come.
     *
     * @param rows in each raw table
     * @param bars as for the record
     */
    public Options spare(int rows, OptionalInt bars) {
        return new Options(size, rows, bars, author, date, into);
    }

    /** Made by somebody, as the file's properties then say. */
    public Options author(String name) {
        return new Options(size, spareRows, spareBars, Optional.of(name), date, into);
    }

    /** Made on a day, as the file's properties then say. */
    public Options date(LocalDate day) {
        return new Options(size, spareRows, spareBars, author, Optional.of(day), into);
    }

    /** Puts what is drawn into a file, which is read and not written. */
    public Options into(Path file) {
        return new Options(size, spareRows, spareBars, author, date, Optional.of(file));
    }

    /** What is asked for beside the size. */
    Set<Extra> extras() {
        Set<Extra> extras = EnumSet.noneOf(Extra.class);
        if (spareRows > 0) {
            extras.add(Extra.SPARE_ROWS);
        }
        author.ifPresent(name -> extras.add(Extra.AUTHOR));
        date.ifPresent(day -> extras.add(Extra.DATE));
        into.ifPresent(file -> extras.add(Extra.INTO));
        return extras;
    }
}
