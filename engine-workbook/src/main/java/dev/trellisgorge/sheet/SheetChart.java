package dev.trellisgorge.sheet;

import dev.trellisgorge.chart.Color;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.Supplier;

/**
 * A native chart over ranges of cells: bars and lines on axes, or rings. Immutable.
 *
 * @param title  the lines over it
 * @param place  of the plot itself; empty for where the program puts it
 * @param axes   those of categories and of values, a pair for each scale; none for rings
 * @param layers in drawing order
 * @param text   of words that say nothing else
 * @param ground empty for a chart through which the cells are seen
 */
public record SheetChart(Optional<Title> title, Optional<Frame> place, List<Axes> axes, List<Layer> layers, Optional<Legend> legend, TextLook text, Optional<Color> ground) {
    private static final double TITLE_X = 0.015;
    private static final double TITLE_Y = 0.02;

    public SheetChart {
        axes = List.copyOf(axes);
        layers = List.copyOf(layers);
    }

    /**
     * The lines over a chart.
     *
     * @param atLeft whether it stands in the corner, and not where the program puts titles
     */
    public record Title(List<TextLine> lines, boolean atLeft) {
        public Title {
            lines = List.copyOf(lines);
        }

        /** How far from the left and the top a title in the corner stands, as shares of the chart. */
        public double[] corner() {
            return new double[] {TITLE_X, TITLE_Y};
        }
    }

    /** A part of a chart, in shares of its width and height. */
    public record Frame(double left, double top, double width, double height) {
    }

    /** A side of a chart or a bar. */
    public enum Side {
        TOP, BOTTOM, LEFT, RIGHT
    }

    /** Which of the series are not named. */
    public record Legend(Side at, Set<Integer> without, Optional<TextLook> text) {
        public Legend {
            without = Set.copyOf(without);
        }
    }

    /** A category axis and the value axis that it crosses. */
    public record Axes(Axis categories, Axis values) {
    }

    /** Where an axis crosses the other. */
    public enum Crossing {
        ZERO, START, END
    }

    /** Where the names or figures along an axis stand. */
    public enum Names {
        NONE, BESIDE, START, END
    }

    /**
     * An axis.
     *
     * @param shown  whether it is there at all: its line, its names and its title
     * @param line   empty for none
     * @param least  where its scale begins, and {@code largest} where it ends; empty for as the figures have it
     * @param title  empty for none
     * @param format of its figures; the general one for that of the cells
     * @param text   empty for that of the chart
     */
    public record Axis(Side at, boolean backwards, boolean shown, Names names, Optional<Line> line, Crossing crosses, OptionalDouble least, OptionalDouble largest, String title, CellFormat format, Optional<TextLook> text) {
    }

    /**
     * A line.
     *
     * @param points how wide it is; empty for as wide as the program draws lines
     */
    public record Line(Color color, OptionalDouble points, boolean dashed) {
        public Line(Color color, double points) {
            this(color, OptionalDouble.of(points), false);
        }
    }

    /** What fills a shape. */
    public sealed interface Fill {
        /** What is given for its sort: what forgets one does not compile. */
        <R> R match(Supplier<R> none, Function<Solid, R> solid, Function<Picture, R> picture);

        record None() implements Fill {
            @Override
            public <R> R match(Supplier<R> none, Function<Solid, R> solid, Function<Picture, R> picture) {
                return none.get();
            }
        }

        record Solid(Color color) implements Fill {
            @Override
            public <R> R match(Supplier<R> none, Function<Solid, R> solid, Function<Picture, R> picture) {
                return solid.apply(this);
            }
        }

        /** A picture (PNG), stretched over it. */
        record Picture(byte[] png) implements Fill {
            @Override
            public <R> R match(Supplier<R> none, Function<Solid, R> solid, Function<Picture, R> picture) {
                return picture.apply(this);
            }
        }

        static Fill of(Optional<Color> color) {
            return color.isPresent() ? new Solid(color.get()) : new None();
        }
    }

    /**
     * Cells that a chart reads, and copies of them for programs that don't compute.
     *
     * @param cells  a range with its sheet
     * @param copies one for each row, null where it is absent; may be shorter than the range
     */
    public record Range<T>(String cells, List<T> copies) {
    }

    /**
     * A series.
     *
     * @param number in the order of all series of the chart, from 0
     * @param name   the cell that says its name, and what that holds
     * @param labels beside its values; empty for none
     */
    public record Data(int number, Range<String> name, Range<String> categories, Range<Double> values, Optional<Labels> labels) {
    }

    /** Some series that are drawn alike. */
    public sealed interface Layer {
        /** Does what is given for its sort: what forgets one does not compile. */
        void match(Consumer<Bars> bars, Consumer<OfLine> line, Consumer<Rings> rings);

        /**
         * Bars.
         *
         * @param gap    between the bars of two categories, in per cent of a bar
         * @param over   how far bars of one category lie over each other, in per cent
         * @param second whether they are on the second pair of axes
         */
        record Bars(boolean upright, boolean stacked, int gap, int over, boolean second, List<Bar> bars) implements Layer {
            public Bars {
                bars = List.copyOf(bars);
            }

            @Override
            public void match(Consumer<Bars> ofBars, Consumer<OfLine> ofLine, Consumer<Rings> ofRings) {
                ofBars.accept(this);
            }
        }

        /** @param line empty for none, and {@code marker} likewise */
        record OfLine(Data data, Optional<Line> line, Optional<Marker> marker) implements Layer {
            @Override
            public void match(Consumer<Bars> ofBars, Consumer<OfLine> ofLine, Consumer<Rings> ofRings) {
                ofLine.accept(this);
            }
        }

        /**
         * Rings, the innermost first.
         *
         * @param start where the first slice begins, in degrees from the top, clockwise
         * @param hole  in per cent of the whole
         */
        record Rings(int start, int hole, List<Ring> rings) implements Layer {
            public Rings {
                rings = List.copyOf(rings);
            }

            @Override
            public void match(Consumer<Bars> ofBars, Consumer<OfLine> ofLine, Consumer<Rings> ofRings) {
                ofRings.accept(this);
            }
        }
    }

    /** @param outline empty for none */
    public record Bar(Data data, Fill fill, Optional<Line> outline) {
    }

    /** @param fills of its slices */
    public record Ring(int number, Range<String> categories, Range<Double> values, List<Fill> fills) {
        public Ring {
            fills = List.copyOf(fills);
        }
    }

    /** @param size in points */
    public record Marker(boolean dot, int size, Color fill, Color outline) {
    }

    /** Where a label stands beside its value. */
    public enum LabelAt {
        OUTSIDE_END, INSIDE_END, INSIDE_BASE, ABOVE, BELOW, LEFT, RIGHT
    }

    /**
     * Labels of a series: its values, or texts of cells.
     *
     * @param from   the cells whose texts they are, a text a row; empty for the values themselves
     * @param own    a label for each row that has one of its own; all rows where they are texts of cells
     * @param format of the values
     * @param paper  what stands behind them; empty for nothing
     */
    public record Labels(Optional<Range<String>> from, List<OwnLabel> own, CellFormat format, LabelAt at, TextLook text, Optional<Color> paper) {
        public Labels {
            own = List.copyOf(own);
        }
    }

    /**
     * The label of one row.
     *
     * @param id    of a text that is taken from a cell: the same for the same row, whatever stands there
     * @param words as they are now; empty where it is the value
     * @param ownLook whether {@code text} and {@code paper} hold for it, and not those of all labels
     * @param paper what stands behind it; empty for nothing
     */
    public record OwnLabel(int row, String id, Optional<String> words, LabelAt at, TextLook text, boolean ownLook, Optional<Color> paper) {
    }

    /** The same with its plot at a place. */
    public SheetChart placed(Frame where) {
        return new SheetChart(title, Optional.of(where), axes, layers, legend, text, ground);
    }

    /** The same without a ground of its own, so that what lies behind it is seen. */
    public SheetChart seenThrough() {
        return new SheetChart(title, place, axes, layers, legend, text, Optional.empty());
    }
}
