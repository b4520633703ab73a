package dev.trellisgorge.sheet;

import dev.trellisgorge.chart.Color;
import java.util.Optional;

/**
 * How a cell looks. Immutable.
 *
 * @param points the size of its words
 * @param color  of its words; empty for that of the program
 * @param format of its figure
 */
public record CellLook(String font, double points, boolean bold, Optional<Color> color, Across across, Down down, boolean wraps, Border border, CellFormat format) {
    /** The font of cells that say nothing else. The widths of columns count its digits. */
    public static final String FONT = "Arial";
    public static final CellLook ORDINARY = new CellLook(FONT, 10, false, Optional.empty(), Across.BY_KIND, Down.BOTTOM, false, Border.NONE, CellFormat.GENERAL);
    /** The height of a line of words, in their size. */
    static final double LINE = 1.35;

    /** Where words stand between left and right; figures at the right and texts at the left by their kind. */
    public enum Across {
        BY_KIND, LEFT, CENTRE, RIGHT
    }

    /** Where words stand between top and bottom. */
    public enum Down {
        TOP, MIDDLE, BOTTOM
    }

    /** Thin lines round a cell. */
    public enum Border {
        NONE, BELOW, QUIET_BELOW, AROUND
    }

    public CellLook font(String name) {
        return new CellLook(name, points, bold, color, across, down, wraps, border, format);
    }

    public CellLook words(double size, boolean strong, Color in) {
        return new CellLook(font, size, strong, Optional.of(in), across, down, wraps, border, format);
    }

    public CellLook at(Across where) {
        return new CellLook(font, points, bold, color, where, down, wraps, border, format);
    }

    public CellLook at(Down where) {
        return new CellLook(font, points, bold, color, across, where, wraps, border, format);
    }

    public CellLook wrapped() {
        return new CellLook(font, points, bold, color, across, down, true, border, format);
    }

    public CellLook border(Border lines) {
        return new CellLook(font, points, bold, color, across, down, wraps, lines, format);
    }

    public CellLook format(CellFormat written) {
        return new CellLook(font, points, bold, color, across, down, wraps, border, written);
    }
}
