package dev.trellisgorge.engine.opendocument;

import dev.trellisgorge.chart.Color;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.sheet.CellLook;
import dev.trellisgorge.sheet.CellLook.Border;
import dev.trellisgorge.sheet.Sheet;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;

/** The looks of cells as cell styles, each once, with a name. Used by one thread. */
final class CellLooks {
    private static final String THIN = "0.75pt solid ";

    private final NumberStyles numbers = new NumberStyles();
    private final Map<Look, String> names = new LinkedHashMap<>();
    private final Map<Color, String> rules = new LinkedHashMap<>();

    /** A look, with the rules of an area over it where there are some. */
    private record Look(CellLook look, Optional<SheetShape.RuledArea> area) {
    }

    String name(CellLook look, Optional<SheetShape.RuledArea> area) {
        return names.computeIfAbsent(new Look(look, area), each -> "ce" + names.size());
    }

    private String rule(Sheet.Rule rule) {
        return rules.computeIfAbsent(rule.color(), each -> "rule" + rules.size());
    }

    /** The style of cells that have no other, and those that rules give, where styles with names stand. All others were written before. */
    void writeNamed(PartWriter part) {
        part.open("style:style", "style:name", "Default", "style:family", "table-cell");
        text(part, CellLook.ORDINARY);
        part.close(1);
        rules.forEach((color, name) -> part.open("style:style", "style:name", name, "style:family", "table-cell", "style:parent-style-name", "Default").leaf("style:text-properties", "fo:color", color.toString()).close(1));
    }

    /** All styles of cells that were named, where automatic styles stand. */
    void write(PartWriter part) {
        names.keySet().forEach(look -> numbers.name(look.look().format()));
        numbers.write(part);
        names.forEach((look, name) -> {
            style(part, name, look.look());
            look.area().ifPresent(area -> area.rules().forEach(rule -> part.leaf("style:map", "style:condition", "is-true-formula(" + OpenFormula.expression(rule.formula()) + ")", "style:apply-style-name",
                    rule(rule), "style:base-cell-address", area.base())));
            part.close(1);
        });
    }

    private void style(PartWriter part, String name, CellLook look) {
        part.open("style:style", "style:name", name, "style:family", "table-cell", "style:parent-style-name", "Default", "style:data-style-name", numbers.name(look.format()).orElse(null));
        part.open("style:table-cell-properties", "style:vertical-align", switch (look.down()) {
            case TOP -> "top";
            case MIDDLE -> "middle";
            case BOTTOM -> "bottom";
        }, "fo:wrap-option", look.wraps() ? "wrap" : null, "style:text-align-source", look.across() == CellLook.Across.BY_KIND ? "value-type" : "fix");
        String line = THIN + (look.border() == Border.QUIET_BELOW ? Role.MUTED.color().toString() : "#000000");
        boolean around = look.border() == Border.AROUND;
        part.with("fo:border-top", around ? line : null, "fo:border-bottom", look.border() == Border.NONE ? null : line, "fo:border-left", around ? line : null, "fo:border-right", around ? line : null).close(1);
        switch (look.across()) {
            case LEFT -> part.leaf("style:paragraph-properties", "fo:text-align", "start");
            case CENTRE -> part.leaf("style:paragraph-properties", "fo:text-align", "center");
            case RIGHT -> part.leaf("style:paragraph-properties", "fo:text-align", "end");
            case BY_KIND -> { }
        }
        text(part, look);
    }

    private static void text(PartWriter part, CellLook look) {
        part.leaf("style:text-properties", "fo:font-family", look.font(), "fo:font-size", PartWriter.points(look.points()), "fo:font-weight", look.bold() ? "bold" : "normal",
                "fo:color", look.color().map(Color::toString).orElse(null));
    }
}
