package dev.trellisgorge.engine.opendocument;

import dev.trellisgorge.formula.NumberPattern;
import dev.trellisgorge.sheet.CellFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Formats of cells as data styles: each once, with a name. Used by one thread. */
final class NumberStyles {
    private final Map<CellFormat, String> names = new LinkedHashMap<>();

    /** The name of a format's style; empty for the general one. */
    Optional<String> name(CellFormat format) {
        return format.equals(CellFormat.GENERAL) ? Optional.empty() : Optional.of(names.computeIfAbsent(format, each -> "N" + (names.size() + 1)));
    }

    /** Writes the styles of all formats that were named, where automatic styles stand. */
    void write(PartWriter part) {
        names.forEach((format, name) -> format.match(() -> part, () -> day(part, name), figure -> figure(part, name, figure.pattern(), figure.opposite())));
    }

    private static PartWriter day(PartWriter part, String name) {
        return part.open("number:date-style", "style:name", name).leaf("number:year", "number:style", "long").element("number:text", "-").leaf("number:month", "number:style", "long")
                .element("number:text", "-").leaf("number:day", "number:style", "long").close(1);
    }

    /** A style for figures; the last one holds for what no condition takes. */
    private static PartWriter figure(PartWriter part, String name, NumberPattern pattern, boolean opposite) {
        if (opposite) {
            style(part, name + "P0", pattern.negative(), pattern, List.of(), name);
            style(part, name + "P1", pattern.positive(), pattern, List.of(), name);
            style(part, name, pattern.positive(), pattern, List.of("value()>0", "value()<0"), name);
        } else if (pattern.hasOwnNegative()) {
            style(part, name + "P0", pattern.positive(), pattern, List.of(), name);
            style(part, name, pattern.negative(), pattern, List.of("value()>=0"), name);
        } else {
            style(part, name, pattern.positive(), pattern, List.of(), name);
        }
        return part;
    }

    private static void style(PartWriter part, String name, NumberPattern.Around around, NumberPattern pattern, List<String> conditions, String of) {
        part.open(pattern.shift() == 2 ? "number:percentage-style" : "number:number-style", "style:name", name);
        words(part, around.before());
        String decimals = String.valueOf(pattern.mostDecimals());
        String least = String.valueOf(pattern.leastWhole());
        if (pattern.isExponential()) {
            part.leaf("number:scientific-number", "number:decimal-places", decimals, "number:min-integer-digits", least, "number:min-exponent-digits", String.valueOf(pattern.leastExponent()));
        } else {
            part.leaf("number:number", "number:decimal-places", decimals, "number:min-decimal-places", decimals, "number:min-integer-digits", least, "number:grouping", pattern.groups() > 0 ? "true" : null);
        }
        words(part, around.after());
        for (int i = 0; i < conditions.size(); i++) {
            part.leaf("style:map", "style:condition", conditions.get(i), "style:apply-style-name", of + "P" + i);
        }
        part.close(1);
    }

    private static void words(PartWriter part, String literal) {
        if (!literal.isEmpty()) {
            part.element("number:text", literal);
        }
    }
}
