package dev.trellisgorge.engine.image;

import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Panels;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.engine.Tile;
import dev.trellisgorge.plan.PlainChart;
import java.awt.geom.Rectangle2D;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.ToDoubleBiFunction;
import org.jfree.chart.ui.RectangleInsets;

/**
 * Has the bars of a board stand on one grid: those of tiles that start in one row start at one height, and end at one where the
 * tiles do; the same across for charts whose bars run the same way. A chart that would lose much of its room stays as it is.
 */
final class EvenPlots {
    /** Of a tile's width or height. */
    private static final double MOST = 0.2;

    private final Map<Page.Place, Rectangle2D> rooms;
    private final Map<Page.Place, RectangleInsets> own = new LinkedHashMap<>();

    /** Where the bars of a chart come to stand within its room, by itself. */
    interface Plotted {
        Rectangle2D of(PlainChart chart, Rectangle2D room);
    }

    EvenPlots(Map<Page.Place, Rectangle2D> rooms, Plotted plotted) {
        this.rooms = rooms;
        boolean several = rooms.keySet().stream().filter(EvenPlots::hasBars).count() > 1;
        rooms.forEach((place, room) -> {
            if (several && hasBars(place)) {
                Rectangle2D plot = plotted.of(chart(place), room);
                own.put(place, new RectangleInsets(plot.getMinY(), plot.getMinX(), room.getHeight() - plot.getMaxY(), room.getWidth() - plot.getMaxX()));
            }
        });
    }

    private static boolean hasBars(Page.Place place) {
        return place.tile() instanceof Tile.OfChart && chart(place).drawing() instanceof Panels;
    }

    private static PlainChart chart(Page.Place place) {
        return ((Tile.OfChart) place.tile()).parts().get(0);
    }

    /** What each plot gives up beside what it gives up anyway. */
    Map<Page.Place, RectangleInsets> insets() {
        Map<Page.Place, RectangleInsets> insets = new LinkedHashMap<>();
        own.forEach((place, mine) -> {
            Rectangle2D room = rooms.get(place);
            double top = more((other, theirs) -> other.row() == place.row() ? theirs.getTop() : 0, mine.getTop(), room.getHeight());
            double bottom = more((other, theirs) -> other.row() + other.span().rows() == place.row() + place.span().rows() ? theirs.getBottom() : 0, mine.getBottom(), room.getHeight());
            double left = more((other, theirs) -> other.column() == place.column() && way(other) == way(place) ? theirs.getLeft() : 0, mine.getLeft(), room.getWidth());
            double right = more((other, theirs) -> other.column() + other.span().columns() == place.column() + place.span().columns() && way(other) == way(place) ? theirs.getRight() : 0,
                    mine.getRight(), room.getWidth());
            insets.put(place, new RectangleInsets(top, left, bottom, right));
        });
        return insets;
    }

    private static Orientation way(Page.Place place) {
        return chart(place).orientation();
    }

    private double more(ToDoubleBiFunction<Page.Place, RectangleInsets> theirs, double mine, double size) {
        double most = own.entrySet().stream().mapToDouble(other -> theirs.applyAsDouble(other.getKey(), other.getValue())).max().orElse(mine);
        double more = Math.max(0, most - mine);
        return more <= MOST * size ? more : 0;
    }
}
