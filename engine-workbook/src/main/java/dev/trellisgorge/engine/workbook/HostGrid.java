package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.sheet.Anchor;
import java.awt.geom.Rectangle2D;
import java.util.Map;
import java.util.TreeMap;

/** How wide the columns and how high the rows of a sheet are, in pixels (ECMA-376 part 1, 18.3.1.13 and 18.3.1.73). */
final class HostGrid {
    /** Of the digit that widths are counted in, as most workbooks have it. */
    private static final int DIGIT = 7;
    private static final int PADDING = 5;
    private static final double USUAL_WIDTH = 8.43;
    private static final double USUAL_HEIGHT = 15;
    private static final double PIXELS_PER_POINT = 4 / 3.0;

    private final TreeMap<Integer, double[]> columns = new TreeMap<>();
    private final Map<Integer, Double> rows = new TreeMap<>();
    private final double usualColumn;
    private final double usualRow;

    /** @param sheet the root of a worksheet part */
    HostGrid(XmlText.Element sheet) {
        XmlText.Element format = sheet.child("sheetFormatPr").orElse(null);
        double base = format == null ? 0 : number(format, "baseColWidth", 0);
        double usual = format == null ? 0 : number(format, "defaultColWidth", 0);
        usualColumn = usual > 0 ? pixels(usual) : base > 0 ? Math.ceil((base * DIGIT + PADDING) / 8) * 8 : pixels(USUAL_WIDTH) + PADDING;
        usualRow = (format == null ? USUAL_HEIGHT : number(format, "defaultRowHeight", USUAL_HEIGHT)) * PIXELS_PER_POINT;
        sheet.child("cols").ifPresent(cols -> cols.children().forEach(col -> columns.put((int) number(col, "min", 1) - 1,
                new double[] {number(col, "max", 1) - 1, isTrue(col, "hidden") ? 0 : col.attribute("width").isPresent() ? pixels(number(col, "width", USUAL_WIDTH)) : usualColumn})));
        sheet.child("sheetData").ifPresent(data -> {
            int line = 0;
            for (XmlText.Element row : data.children()) {
                line = (int) number(row, "r", line + 1);
                if (isTrue(row, "hidden")) {
                    rows.put(line - 1, 0.0);
                } else if (row.attribute("ht").isPresent()) {
                    rows.put(line - 1, number(row, "ht", USUAL_HEIGHT) * PIXELS_PER_POINT);
                }
            }
        });
    }

    private static double number(XmlText.Element of, String attribute, double otherwise) {
        try {
            return of.attribute(attribute).map(Double::parseDouble).orElse(otherwise);
        } catch (NumberFormatException e) {
            return otherwise;
        }
    }

    private static boolean isTrue(XmlText.Element of, String attribute) {
        return of.attribute(attribute).filter(value -> value.equals("1") || value.equals("true")).isPresent();
    }

    private static double pixels(double width) {
        return Math.floor((256 * width + Math.floor(128.0 / DIGIT)) / 256 * DIGIT);
    }

    private double column(int at) {
        var stated = columns.floorEntry(at);
        return stated != null && stated.getValue()[0] >= at ? stated.getValue()[1] : usualColumn;
    }

    private double row(int at) {
        return rows.getOrDefault(at, usualRow);
    }

    double width(int from, int count) {
        double width = 0;
        for (int at = from; at < from + count; at++) {
            width += column(at);
        }
        return width;
    }

    double height(int from, int count) {
        double height = 0;
        for (int at = from; at < from + count; at++) {
            height += row(at);
        }
        return height;
    }

    /**
     * The cells that a rectangle goes from and to.
     *
     * @param place in pixels from the corner of a cell
     */
    Anchor anchor(int column, int row, Rectangle2D place) {
        double[] left = across(column, place.getMinX());
        double[] right = across(column, place.getMaxX());
        double[] top = down(row, place.getMinY());
        double[] bottom = down(row, place.getMaxY());
        return new Anchor(new Anchor.Corner((int) left[0], emu(left[1]), (int) top[0], emu(top[1])), new Anchor.Corner((int) right[0], emu(right[1]), (int) bottom[0], emu(bottom[1])), emu(place.getWidth()), emu(place.getHeight()));
    }

    private double[] across(int from, double pixels) {
        int at = from;
        double left = pixels;
        while (left >= column(at) && at < SheetBounds.COLUMNS - 1) {
            left -= column(at++);
        }
        return new double[] {at, Math.min(left, column(at))};
    }

    private double[] down(int from, double pixels) {
        int at = from;
        double left = pixels;
        while (left >= row(at) && at < SheetBounds.ROWS - 1) {
            left -= row(at++);
        }
        return new double[] {at, Math.min(left, row(at))};
    }

    private static int emu(double pixels) {
        return (int) Math.round(pixels * Anchor.UNITS_PER_PIXEL);
    }
}
