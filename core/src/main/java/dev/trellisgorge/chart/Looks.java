package dev.trellisgorge.chart;

import dev.trellisgorge.formula.ValueFormatter;
import dev.trellisgorge.table.Numbers;
import java.util.Collections;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalDouble;

/**
 * How a chart looks where that is not left to it: all of it may be left unsaid. The same for every pattern; the words of a brief. Immutable and thread-safe.
 *
 * @param legend     where the names of the series stand
 * @param axis       the axis of figures
 * @param scale      what that axis covers: what lies beyond is cut off, which the second line says
 * @param gap        the room between two categories, as a share of a bar's width, 0 or more
 * @param references what becomes of reference lines, by their names; under the empty name for all of them
 * @param marker     the points
 * @param sizes      the size of text by its purpose, in pixels of a picture
 * @param bold       whether text is strong, by its purpose
 * @param titleAt    where the lines above the chart stand
 * @param palette    the colours of roles
 * @param good       whether more is good or less; the colours that judge change places where less is
 */
public record Looks(Optional<Legend> legend, Axis axis, Optional<Covered> scale, OptionalDouble gap, Map<String, Reference> references, Marker marker, Map<Purpose, Double> sizes,
        Map<Purpose, Boolean> bold, Optional<Align> titleAt, Map<Role, Color> palette, Optional<Good> good) {

    /** Everything as the chart has it. */
    public static final Looks OWN = new Looks(Optional.empty(), new Axis(Optional.empty(), "", Optional.empty(), Optional.empty()), Optional.empty(), OptionalDouble.empty(), Map.of(),
            new Marker(OptionalDouble.empty(), Optional.empty(), Optional.empty()), Map.of(), Map.of(), Optional.empty(), Map.of(), Optional.empty());

    /** Where the names of the series stand. */
    public enum Legend {
        NONE, TOP, BOTTOM, LEFT, RIGHT
    }

    /** Where a line stands in its room. */
    public enum Align {
        LEFT, CENTRE, RIGHT
    }

    /** Which way is good. */
    public enum Good {
        UP, DOWN
    }

    /** What text is for. */
    public enum Purpose {
        TITLE, SUBTITLE, LABELS, AXIS, LEGEND
    }

    /**
     * The axis of figures.
     *
     * @param figures whether its figures are written; where it is empty, they are where bars have no labels
     * @param title   what it is of, or empty
     * @param format  how its figures are written
     * @param dates   how dates and periods are written along the base, as a CLDR pattern: {@code MMM yyyy}
     */
    public record Axis(Optional<Boolean> figures, String title, Optional<Format> format, Optional<String> dates) {
        /** @throws IllegalArgumentException where dates can't be written so */
        public Axis {
            Objects.requireNonNull(figures, "figures");
            Objects.requireNonNull(title, "title");
            Objects.requireNonNull(format, "format");
            dates.ifPresent(pattern -> ValueFormatter.checkDates(pattern, Locale.ROOT));
        }

        /** Whether the axis is seen at all. */
        public boolean isAsked() {
            return figures.orElse(false) || !title.isEmpty();
        }
    }

    /**
     * What an axis covers.
     *
     * @param from where it starts
     * @param to   where it ends, above {@code from}
     */
    public record Covered(double from, double to) {
        /** @throws IllegalArgumentException where it covers nothing */
        public Covered {
            if (!(from < to) || Double.isInfinite(to - from)) {
                throw new IllegalArgumentException("a scale goes from a figure to a larger one, not from " + Numbers.shortest(from) + " to " + Numbers.shortest(to));
            }
        }
    }

    /**
     * What becomes of a reference line.
     *
     * @param shown whether it is drawn
     * @param color its colour, where that is not the ink's
     */
    public record Reference(boolean shown, Optional<Color> color) {
        public Reference {
            Objects.requireNonNull(color, "color");
        }
    }

    /**
     * How points look.
     *
     * @param size  as a share of their own, above 0
     * @param color of all of them
     * @param shape of all of them
     */
    public record Marker(OptionalDouble size, Optional<Color> color, Optional<Points.Shape> shape) {
        public Marker {
            Objects.requireNonNull(size, "size");
            Objects.requireNonNull(color, "color");
            Objects.requireNonNull(shape, "shape");
        }
    }

    public Looks {
        Objects.requireNonNull(legend, "legend");
        Objects.requireNonNull(axis, "axis");
        Objects.requireNonNull(scale, "scale");
        Objects.requireNonNull(gap, "gap");
        references = Collections.unmodifiableMap(new LinkedHashMap<>(references));
        Objects.requireNonNull(marker, "marker");
        sizes = sizes.isEmpty() ? Map.of() : Collections.unmodifiableMap(new EnumMap<>(sizes));
        bold = bold.isEmpty() ? Map.of() : Collections.unmodifiableMap(new EnumMap<>(bold));
        Objects.requireNonNull(titleAt, "titleAt");
        palette = palette.isEmpty() ? Map.of() : Collections.unmodifiableMap(new EnumMap<>(palette));
        Objects.requireNonNull(good, "good");
    }

    /** These looks, and where they say nothing what others say. */
    public Looks over(Looks theme) {
        return new Looks(legend.or(() -> theme.legend), new Axis(axis.figures.or(() -> theme.axis.figures), axis.title.isEmpty() ? theme.axis.title : axis.title, axis.format.or(() -> theme.axis.format), axis.dates.or(() -> theme.axis.dates)),
                scale.or(() -> theme.scale), gap.isPresent() ? gap : theme.gap, references.isEmpty() ? theme.references : references,
                new Marker(marker.size.isPresent() ? marker.size : theme.marker.size, marker.color.or(() -> theme.marker.color), marker.shape.or(() -> theme.marker.shape)),
                both(theme.sizes, sizes), both(theme.bold, bold), titleAt.or(() -> theme.titleAt), both(theme.palette, palette), good.or(() -> theme.good));
    }

    private static <K, V> Map<K, V> both(Map<K, V> some, Map<K, V> winning) {
        Map<K, V> all = new LinkedHashMap<>(some);
        all.putAll(winning);
        return all;
    }

    /** The same with another legend. */
    public Looks legend(Legend place) {
        return new Looks(Optional.of(place), axis, scale, gap, references, marker, sizes, bold, titleAt, palette, good);
    }

    /** The same with an axis of figures that is written, and what it is of. */
    public Looks axis(String title) {
        return new Looks(legend, new Axis(Optional.of(true), title, axis.format, axis.dates), scale, gap, references, marker, sizes, bold, titleAt, palette, good);
    }

    /** The same with dates and periods along the base written by a CLDR pattern, such as {@code MMM yyyy}. */
    public Looks dates(String pattern) {
        return new Looks(legend, new Axis(axis.figures, axis.title, axis.format, Optional.of(pattern)), scale, gap, references, marker, sizes, bold, titleAt, palette, good);
    }

    /** The same with a scale from one figure to another. */
    public Looks scale(double from, double to) {
        return new Looks(legend, axis, Optional.of(new Covered(from, to)), gap, references, marker, sizes, bold, titleAt, palette, good);
    }

    /** The same with another gap. */
    public Looks gap(double share) {
        return new Looks(legend, axis, scale, OptionalDouble.of(share), references, marker, sizes, bold, titleAt, palette, good);
    }

    /** The same with other points. */
    public Looks marker(Marker points) {
        return new Looks(legend, axis, scale, gap, references, points, sizes, bold, titleAt, palette, good);
    }

    /** The same with text for a purpose of so many pixels. */
    public Looks size(Purpose purpose, double pixels) {
        return new Looks(legend, axis, scale, gap, references, marker, both(sizes, Map.of(purpose, pixels)), bold, titleAt, palette, good);
    }

    /** The same where more is good, or less. */
    public Looks good(Good way) {
        return new Looks(legend, axis, scale, gap, references, marker, sizes, bold, titleAt, palette, Optional.of(way));
    }

    /** The colour of a role. */
    public Color color(Role role) {
        return palette.getOrDefault(role, role.color());
    }

    /** The role by which something is coloured that is good or bad. */
    public Role judged(Role role) {
        return !good.equals(Optional.of(Good.DOWN)) ? role : role == Role.GOOD ? Role.BAD : role == Role.BAD ? Role.GOOD : role;
    }
}
