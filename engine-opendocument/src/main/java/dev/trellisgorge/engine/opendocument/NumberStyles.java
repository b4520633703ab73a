package dev.trellisgorge.engine.opendocument;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Number formats of a workbook as data styles: each once, with a name. Used by one thread. */
final class NumberStyles {
    private static final String DATE = "yyyy-mm-dd";
    private static final Pattern DIGITS = Pattern.compile("([#0,]*0|#)(?:\\.(0+))?(?:E\\+(0+))?");
    private static final Pattern LITERAL = Pattern.compile("\"((?:[^\"]|\"\")*)\"");

    private final Map<String, String> names = new LinkedHashMap<>();

    /** The name of a format's style; empty for the general one. */
    Optional<String> name(String format) {
        return format.equalsIgnoreCase("General") || format.isEmpty() ? Optional.empty() : Optional.of(names.computeIfAbsent(format, each -> "N" + (names.size() + 1)));
    }

    static boolean isDate(String format) {
        return format.equals(DATE);
    }

    /** Writes the styles of all formats that were named, where automatic styles stand. */
    void write(PartWriter part) {
        names.forEach((format, name) -> {
            if (isDate(format)) {
                part.open("number:date-style", "style:name", name).leaf("number:year", "number:style", "long").open("number:text").words("-").close(1).leaf("number:month", "number:style", "long")
                        .open("number:text").words("-").close(1).leaf("number:day", "number:style", "long").close(1);
                return;
            }
            List<String> sections = sections(format);
            // The last one holds for what no condition takes.
            List<String> conditions = sections.size() == 1 ? List.of() : sections.size() == 2 ? List.of("value()>=0") : List.of("value()>0", "value()<0");
            for (int i = 0; i < conditions.size(); i++) {
                style(part, name + "P" + i, sections.get(i), List.of(), name);
            }
            style(part, name, sections.get(sections.size() - 1), conditions, name);
        });
    }

    private static List<String> sections(String format) {
        List<String> sections = new ArrayList<>();
        int from = 0;
        boolean quoted = false;
        for (int at = 0; at < format.length(); at++) {
            quoted ^= format.charAt(at) == '"';
            if (format.charAt(at) == ';' && !quoted) {
                sections.add(format.substring(from, at));
                from = at + 1;
            }
        }
        sections.add(format.substring(from));
        return sections;
    }

    private static void style(PartWriter part, String name, String section, List<String> conditions, String of) {
        boolean percent = LITERAL.matcher(section).replaceAll("").contains("%");
        part.open(percent ? "number:percentage-style" : "number:number-style", "style:name", name);
        StringBuilder literal = new StringBuilder();
        int at = 0;
        while (at < section.length()) {
            Matcher digits = DIGITS.matcher(section).region(at, section.length());
            Matcher quoted = LITERAL.matcher(section).region(at, section.length());
            if (quoted.lookingAt()) {
                literal.append(quoted.group(1).replace("\"\"", "\""));
                at = quoted.end();
            } else if (digits.lookingAt()) {
                words(part, literal);
                figure(part, digits);
                at = digits.end();
            } else {
                literal.append(section.charAt(at++));
            }
        }
        words(part, literal);
        for (int i = 0; i < conditions.size(); i++) {
            part.leaf("style:map", "style:condition", conditions.get(i), "style:apply-style-name", of + "P" + i);
        }
        part.close(1);
    }

    private static void figure(PartWriter part, Matcher digits) {
        String whole = digits.group(1);
        String decimals = String.valueOf(digits.group(2) == null ? 0 : digits.group(2).length());
        String least = String.valueOf(whole.chars().filter(c -> c == '0').count());
        if (digits.group(3) != null) {
            part.leaf("number:scientific-number", "number:decimal-places", decimals, "number:min-integer-digits", least, "number:min-exponent-digits", String.valueOf(digits.group(3).length()));
        } else {
            part.leaf("number:number", "number:decimal-places", decimals, "number:min-decimal-places", decimals, "number:min-integer-digits", least, "number:grouping", whole.contains(",") ? "true" : null);
        }
    }

    private static void words(PartWriter part, StringBuilder literal) {
        if (!literal.isEmpty()) {
            part.open("number:text").words(literal.toString()).close(1);
            literal.setLength(0);
        }
    }
}
