package dev.trellisgorge.engine.opendocument;

import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import org.apache.poi.ss.usermodel.BorderStyle;
import org.apache.poi.ss.usermodel.HorizontalAlignment;
import org.apache.poi.xssf.model.StylesTable;
import org.apache.poi.xssf.usermodel.XSSFCellStyle;
import org.apache.poi.xssf.usermodel.XSSFColor;
import org.apache.poi.xssf.usermodel.XSSFFont;
import org.openxmlformats.schemas.spreadsheetml.x2006.main.CTDxf;

/** The looks of a workbook's cells as cell styles. Used by one thread. */
final class CellLooks {
    private static final String THIN = "0.75pt solid ";

    private final StylesTable table;
    private final NumberStyles numbers;
    private final Map<Ruled, String> ruled = new LinkedHashMap<>();

    /** A style with the rules of an area over it. */
    private record Ruled(int style, SheetOutline.RuledArea area) {
    }

    CellLooks(StylesTable table, NumberStyles numbers) {
        this.table = table;
        this.numbers = numbers;
    }

    /** The name of a style. */
    static String name(int style) {
        return "ce" + style;
    }

    /** The name of a style with the rules of an area over it. */
    String name(int style, SheetOutline.RuledArea area) {
        return ruled.computeIfAbsent(new Ruled(style, area), each -> name(style) + "r" + ruled.size());
    }

    boolean isDate(int style) {
        return NumberStyles.isDate(format(style));
    }

    private String format(int style) {
        String format = table.getStyleAt(style).getDataFormatString();
        return format == null ? "" : format;
    }

    /** The style of cells that have no other, and those that rules give, where styles with names stand. */
    void writeNamed(PartWriter part) {
        part.open("style:style", "style:name", "Default", "style:family", "table-cell");
        text(part, table.getFontAt(0));
        part.close(1);
        for (int i = 0; i < table._getDXfsSize(); i++) {
            CTDxf looks = table.getDxfAt(i);
            part.open("style:style", "style:name", rule(i), "style:family", "table-cell", "style:parent-style-name", "Default");
            byte[] rgb = looks.getFont().getColorArray(0).getRgb();
            part.leaf("style:text-properties", "fo:color", color(rgb));
            part.close(1);
        }
    }

    private static String rule(int looks) {
        return "rule" + looks;
    }

    /** All styles of cells, where automatic styles stand. */
    void write(PartWriter part) {
        for (int i = 0; i < table.getNumCellStyles(); i++) {
            numbers.name(format(i));
        }
        numbers.write(part);
        for (int i = 0; i < table.getNumCellStyles(); i++) {
            style(part, name(i), i);
            part.close(1);
        }
        ruled.forEach((looks, name) -> {
            style(part, name, looks.style());
            looks.area().rules().forEach(rule -> part.leaf("style:map", "style:condition", "is-true-formula(" + OpenFormula.expression(rule.formula()) + ")", "style:apply-style-name",
                    rule(rule.looks()), "style:base-cell-address", looks.area().base()));
            part.close(1);
        });
    }

    private void style(PartWriter part, String name, int index) {
        XSSFCellStyle style = table.getStyleAt(index);
        part.open("style:style", "style:name", name, "style:family", "table-cell", "style:parent-style-name", "Default", "style:data-style-name", numbers.name(format(index)).orElse(null));
        part.open("style:table-cell-properties", "style:vertical-align", switch (style.getVerticalAlignment()) {
            case TOP -> "top";
            case CENTER -> "middle";
            default -> "bottom";
        }, "fo:wrap-option", style.getWrapText() ? "wrap" : null, "style:text-align-source", style.getAlignment() == HorizontalAlignment.GENERAL ? "value-type" : "fix");
        border(part, "fo:border-bottom", style.getBorderBottom(), style.getBottomBorderXSSFColor());
        border(part, "fo:border-top", style.getBorderTop(), style.getTopBorderXSSFColor());
        border(part, "fo:border-left", style.getBorderLeft(), style.getLeftBorderXSSFColor());
        border(part, "fo:border-right", style.getBorderRight(), style.getRightBorderXSSFColor());
        part.close(1);
        if (style.getAlignment() != HorizontalAlignment.GENERAL) {
            part.leaf("style:paragraph-properties", "fo:text-align", switch (style.getAlignment()) {
                case CENTER -> "center";
                case RIGHT -> "end";
                default -> "start";
            });
        }
        text(part, style.getFont());
    }

    private static void border(PartWriter part, String side, BorderStyle border, XSSFColor color) {
        if (border != BorderStyle.NONE) {
            part.with(side, THIN + (color == null || color.getRGB() == null ? "#000000" : color(color.getRGB())));
        }
    }

    private static void text(PartWriter part, XSSFFont font) {
        XSSFColor color = font.getXSSFColor();
        part.leaf("style:text-properties", "fo:font-family", font.getFontName(), "fo:font-size", PartWriter.points(font.getFontHeight() / 20.0), "fo:font-weight", font.getBold() ? "bold" : "normal",
                "fo:color", color == null || color.getRGB() == null ? null : color(color.getRGB()));
    }

    /** @param rgb with or without opacity before it */
    static String color(byte[] rgb) {
        int from = rgb.length - 3;
        return String.format(Locale.ROOT, "#%02x%02x%02x", rgb[from] & 0xFF, rgb[from + 1] & 0xFF, rgb[from + 2] & 0xFF);
    }
}
