package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.engine.SheetAnchor;
import dev.trellisgorge.sheet.Anchor;
import dev.trellisgorge.sheet.Placed;
import dev.trellisgorge.sheet.Sheet;
import dev.trellisgorge.sheet.SheetChart;
import dev.trellisgorge.sheet.TextLine;
import java.awt.geom.Rectangle2D;
import java.util.List;
import java.util.Optional;

/** A place among the cells of somebody's sheet, whatever their sizes are. What is drawn stands on a sheet of ours until it is put there. */
final class HostCanvas implements Canvas {
    /** What the names of all that is put on other people's sheets begin with. */
    static final String OURS = "gorge: ";

    private final Sheet sheet;
    private final HostGrid grid;
    private final SheetAnchor spot;

    /**
     * @param sheet takes the drawings
     * @param grid  the sizes of the other sheet's cells
     */
    HostCanvas(Sheet sheet, HostGrid grid, SheetAnchor spot) {
        this.sheet = sheet;
        this.grid = grid;
        this.spot = spot;
    }

    /** The whole of it, as so many cells of the usual size as go into it. */
    Area area() {
        return new Area(0, 0, Math.max(1, (int) Math.round(wide() / Area.COLUMN)), Math.max(1, (int) Math.round(high() / Area.ROW)));
    }

    private double wide() {
        return grid.width(spot.column(), spot.columns());
    }

    private double high() {
        return grid.height(spot.row(), spot.rows());
    }

    private Anchor anchor(Area part) {
        Rectangle2D all = area().inPixels();
        Rectangle2D place = part.inPixels();
        double across = wide() / all.getWidth();
        double down = high() / all.getHeight();
        return grid.anchor(spot.column(), spot.row(), new Rectangle2D.Double(place.getX() * across, place.getY() * down, place.getWidth() * across, place.getHeight() * down));
    }

    @Override
    public void chart(Area area, String name, String description, SheetChart chart) {
        sheet.place(new Placed.OfChart(anchor(area), OURS + name, description, chart));
    }

    @Override
    public void box(Area area, String description, Optional<String> cell, boolean atTop, List<TextLine> lines) {
        sheet.place(new Placed.OfWords(anchor(area), OURS + description, description, cell, atTop, lines));
    }
}
