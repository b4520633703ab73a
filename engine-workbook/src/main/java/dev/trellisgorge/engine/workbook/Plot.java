package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.BarGroup;
import dev.trellisgorge.chart.Line;
import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Panel;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.sheet.SheetChart;
import java.util.List;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/** Where the plots of a tile stand, in shares of its charts, where that can't be left to whoever draws them. */
final class Plot {
    private static final int FEW_COLUMNS = 10;
    private static final double MOST_FOR_NAMES = 0.35;
    private static final double MOST_FOR_TITLES = 0.5;
    /** What a key at a side takes of the width. */
    private static final double BESIDE = 0.2;
    private static final double GLYPH = 0.6;
    /** In 1/100 point. */
    private static final int SMALLEST = 600;

    private final List<PlainChart> parts;
    private final HelperSheet cells;
    private final Area area;
    private final ChartFrame frame;

    Plot(List<PlainChart> parts, HelperSheet cells, Area area) {
        this.parts = parts;
        this.cells = cells;
        this.area = area;
        this.frame = new ChartFrame(parts.get(0), isSmall());
    }

    boolean isSmall() {
        return area.columns() < FEW_COLUMNS;
    }

    ChartFrame frame() {
        return frame;
    }

    List<Series> series() {
        return parts.stream().flatMap(part -> part.series().stream()).toList();
    }

    /** Those of the series that are lines. */
    Set<Series> lines() {
        return parts.stream().flatMap(part -> part.panels().stream()).flatMap(panel -> panel.lines().stream()).map(Line::series).collect(Collectors.toSet());
    }

    /** Whether the key stands over the chart. */
    boolean keyed() {
        boolean keyed = Key.isNeeded(series()) && legend() != Looks.Legend.NONE;
        if (keyed && parts.size() > 1 && isBeside()) {
            throw new BadInput(Place.of("chart '" + parts.get(0).name() + "'"), ProblemKind.UNSUPPORTED, "files of this kind can't put the legend beside several panels; put it at the top or at the bottom");
        }
        return keyed;
    }

    Looks.Legend legend() {
        return parts.get(0).looks().legend().orElse(Looks.Legend.TOP);
    }

    private boolean isBeside() {
        return legend() == Looks.Legend.LEFT || legend() == Looks.Legend.RIGHT;
    }

    /** The place of the key: below the titles, or where it was asked for. */
    Area key() {
        return switch (legend()) {
            case BOTTOM -> area.within(0.02, 1 - keyLine() * 1.3, 0.96, keyLine() * 1.2);
            case LEFT -> area.within(0.01, top(), BESIDE - 0.02, 0.6);
            case RIGHT -> area.within(1 - BESIDE + 0.01, top(), BESIDE - 0.02, 0.6);
            default -> area.within(0.02, titles(), 0.96, keyLine() * 1.2);
        };
    }

    /** Whether each name of the key has a line of its own. */
    boolean isKeyDown() {
        return isBeside();
    }

    private double atBottom() {
        return keyed() && legend() == Looks.Legend.BOTTOM ? keyLine() * 1.3 : 0;
    }

    private int textSize() {
        return frame.textSize();
    }

    /** Whether panels above each other have lines of their own. */
    private boolean isHeaded() {
        return parts.get(0).orientation() == Orientation.VERTICAL && parts.stream().anyMatch(part -> !part.panels().get(0).heading().isEmpty());
    }

    private double titles() {
        return (double) frame.titleHeight(area.widthInPixels(), isHeaded()) / area.heightInPixels();
    }

    /** The height of a line of text. */
    private double line() {
        return textSize() / 75.0 * 1.5 / area.heightInPixels();
    }

    /** The height of a line of the key. */
    private double keyLine() {
        return line() * frame.size(Looks.Purpose.LEGEND, textSize()) / textSize();
    }

    /** The room for titles and key at the top; at most half of the whole. */
    double top() {
        return Math.min(MOST_FOR_TITLES, titles() + (keyed() && legend() == Looks.Legend.TOP ? keyLine() + line() : line() * 0.7));
    }

    /**
     * How large the figures beside the bars may be, so that they do not lie on each other: as the other texts, smaller where
     * the categories stand closer, and none at all where they would be too small to read.
     */
    OptionalInt labelSize(PlainChart part, Panel panel) {
        if (!Cached.isWhole(part)) {
            return OptionalInt.empty();
        }
        int rows = Math.max(1, part.data().rowCount());
        boolean upright = part.orientation() == Orientation.VERTICAL;
        double slot = (upright ? area.widthInPixels() * 0.88 : area.heightInPixels() * 0.78) / rows;
        int size = (int) Math.min(textSize(), 75 * slot / (upright ? Math.max(1, longest(part, panel)) * GLYPH : 1.25));
        return size < SMALLEST ? OptionalInt.empty() : OptionalInt.of(size);
    }

    /** How long a piece of a bar is, as a share of how wide the bar is. */
    double shape(PlainChart part, Panel panel, BarGroup group, PlainChart.Bar piece) {
        boolean upright = part.orientation() == Orientation.VERTICAL;
        double across = (upright ? area.widthInPixels() * 0.9 : area.heightInPixels() * (0.95 - top())) / Math.max(1, part.data().rowCount()) / (1 + group.gap());
        PlainChart.Extent extent = part.extent(panel);
        double along = (upright ? area.heightInPixels() * (0.9 - top()) : area.widthInPixels() * (0.95 - names())) * Math.abs(piece.end() - piece.start()) / Math.max(Double.MIN_NORMAL, extent.high() - extent.low());
        return along / across;
    }

    /** Tells where labels would be too small to read, so that there are none. */
    void tellUnlabelled(Consumer<String> warnings) {
        boolean any = parts.stream().anyMatch(part -> labelSize(part, part.panels().get(0)).isEmpty() && part.series().stream().anyMatch(series -> series.label().isPresent()));
        if (any) {
            warnings.accept("'" + parts.get(0).name() + "': its labels would be too small to read, so its chart has none");
        }
    }

    private static int longest(PlainChart part, Panel panel) {
        return panel.series().stream().filter(series -> series.label().isPresent()).flatMapToInt(series -> IntStream.range(0, part.data().rowCount())
                .map(row -> part.labelText(series, row).length())).max().orElse(0);
    }

    /** The room for names at the left of lying bars. */
    double names() {
        int longest = IntStream.range(0, Math.min(500, parts.get(0).data().rowCount())).map(row -> cells.categoryText(row).length()).max().orElse(0);
        return Math.min(MOST_FOR_NAMES, (longest * GLYPH + 2) * textSize() / 75 / area.widthInPixels());
    }

    SheetChart placeBelowKey(SheetChart chart) {
        boolean upright = parts.get(0).orientation() == Orientation.VERTICAL;
        Panel panel = parts.get(0).panels().get(0);
        boolean down = parts.get(0).extent(panel).low() < 0;
        double figures = down ? (longest(parts.get(0), panel) + 1.5) * GLYPH * textSize() / 75 / area.widthInPixels() : 0;
        double left = upright ? 0.04 : names() + figures;
        double bottom = upright ? line() * 2.4 : line() * 0.5;
        if (panel.valueAxisShown()) {
            left = upright ? 0.08 : left;
            bottom = upright ? bottom : line() * 1.5;
        }
        double leftKey = legend() == Looks.Legend.LEFT ? BESIDE : 0;
        double rightKey = legend() == Looks.Legend.RIGHT ? BESIDE : 0;
        return chart.placed(new SheetChart.Frame(left + leftKey, top(), 0.97 - left - leftKey - rightKey, 1 - top() - bottom - atBottom()));
    }

    /** @param length of this part, as a share of the area's height */
    SheetChart placeUpright(SheetChart chart, double length, boolean first, boolean last) {
        double above = ((first ? top() : isHeaded() ? line() : 0) + line() * 1.5) / length;
        double below = (last ? line() * 2 + atBottom() : line() * 1.2) / length;
        return chart.placed(new SheetChart.Frame(0.05, above, 0.92, 1 - above - below));
    }

    /** @param left where this part's plot starts, and {@code width} how wide it is, as shares of its width */
    SheetChart placeLying(SheetChart chart, double left, double width, boolean last) {
        return chart.placed(new SheetChart.Frame(left, top(), width * (last ? 0.97 : 1), 0.97 - top() - atBottom()));
    }
}
