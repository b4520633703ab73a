package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Color;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.sheet.CellLook;
import dev.trellisgorge.sheet.CellLook.Across;
import dev.trellisgorge.sheet.CellLook.Border;
import dev.trellisgorge.sheet.CellLook.Down;
import java.io.OutputStream;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;

/** The looks of a workbook's cells by their numbers, each once. Used by one thread. */
final class StyleSheet {
    /** Formats that every program knows by a number (ECMA-376 part 1, 18.8.30). */
    private static final Map<String, Integer> KNOWN = Map.of("", 0, "0", 1, "0.00", 2, "#,##0", 3, "#,##0.00", 4, "0%", 9, "0.00%", 10);
    private static final int FIRST_FORMAT = 164;

    private final Map<CellLook, Integer> looks = new LinkedHashMap<>();
    private final Map<String, Integer> formats = new LinkedHashMap<>();
    private final Map<Font, Integer> fonts = new LinkedHashMap<>();
    private final Map<Border, Integer> borders = new LinkedHashMap<>();
    private final Map<Color, Integer> rules = new LinkedHashMap<>();

    private record Font(String name, double points, boolean bold, Optional<Color> color) {
        static Font of(CellLook look) {
            return new Font(look.font(), look.points(), look.bold(), look.color());
        }
    }

    StyleSheet() {
        number(CellLook.ORDINARY);
    }

    private static <T> int number(Map<T, Integer> of, T what) {
        return of.computeIfAbsent(what, each -> of.size());
    }

    int number(CellLook look) {
        Integer known = looks.get(look);
        if (known != null) {
            return known;
        }
        number(fonts, Font.of(look));
        number(borders, look.border());
        String code = FormatCodes.of(look.format());
        if (!KNOWN.containsKey(code)) {
            formats.computeIfAbsent(code, each -> FIRST_FORMAT + formats.size());
        }
        return number(looks, look);
    }

    /** The number of what a rule gives. */
    int rule(Color color) {
        return number(rules, color);
    }

    void write(OutputStream out) {
        try (OfficeXml part = OfficeXml.of(out, OfficeXml.SHEETS, "styleSheet")) {
            if (!formats.isEmpty()) {
                part.open("numFmts", "count", String.valueOf(formats.size()));
                formats.forEach((code, number) -> part.leaf("numFmt", "numFmtId", String.valueOf(number), "formatCode", code));
                part.close(1);
            }
            part.open("fonts", "count", String.valueOf(fonts.size()));
            fonts.keySet().forEach(font -> font(part, font));
            part.close(1);
            part.open("fills", "count", "2").open("fill").leaf("patternFill", "patternType", "none").close(1).open("fill").leaf("patternFill", "patternType", "gray125").close(2);
            part.open("borders", "count", String.valueOf(borders.size()));
            borders.keySet().forEach(border -> border(part, border));
            part.close(1);
            part.open("cellStyleXfs", "count", "1").leaf("xf", "numFmtId", "0", "fontId", "0", "fillId", "0", "borderId", "0").close(1);
            part.open("cellXfs", "count", String.valueOf(looks.size()));
            looks.keySet().forEach(look -> look(part, look));
            part.close(1);
            part.open("dxfs", "count", String.valueOf(rules.size()));
            rules.keySet().forEach(color -> part.open("dxf").open("font").leaf("color", "rgb", "FF" + OfficeXml.hex(color)).close(2));
        }
    }

    private static void font(OfficeXml part, Font font) {
        part.open("font");
        if (font.bold()) {
            part.leaf("b");
        }
        part.value("sz", font.points());
        font.color().ifPresent(color -> part.leaf("color", "rgb", "FF" + OfficeXml.hex(color)));
        part.value("name", font.name()).value("family", "2").close(1);
    }

    private static void border(OfficeXml part, Border border) {
        part.open("border");
        for (String side : new String[] {"left", "right", "top", "bottom"}) {
            boolean line = border == Border.AROUND || border != Border.NONE && side.equals("bottom");
            part.open(side, "style", line ? "thin" : null);
            if (border == Border.QUIET_BELOW && line) {
                part.leaf("color", "rgb", "FF" + OfficeXml.hex(Role.MUTED.color()));
            }
            part.close(1);
        }
        part.leaf("diagonal").close(1);
    }

    private void look(OfficeXml part, CellLook look) {
        boolean aligned = look.across() != Across.BY_KIND || look.down() != Down.BOTTOM || look.wraps();
        String code = FormatCodes.of(look.format());
        int format = KNOWN.getOrDefault(code, formats.getOrDefault(code, 0));
        part.open("xf", "numFmtId", String.valueOf(format), "fontId", String.valueOf(fonts.get(Font.of(look))), "fillId", "0", "borderId", String.valueOf(borders.get(look.border())), "xfId", "0",
                "applyNumberFormat", format == 0 ? null : "1", "applyFont", fonts.get(Font.of(look)) == 0 ? null : "1", "applyBorder", look.border() == Border.NONE ? null : "1", "applyAlignment", aligned ? "1" : null);
        if (aligned) {
            part.leaf("alignment", "horizontal", switch (look.across()) {
                case BY_KIND -> null;
                case LEFT -> "left";
                case CENTRE -> "center";
                case RIGHT -> "right";
            }, "vertical", switch (look.down()) {
                case TOP -> "top";
                case MIDDLE -> "center";
                case BOTTOM -> null;
            }, "wrapText", look.wraps() ? "1" : null);
        }
        part.close(1);
    }
}
