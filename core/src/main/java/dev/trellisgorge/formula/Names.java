package dev.trellisgorge.formula;

import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/** How names, texts and lists are written in a formula. */
final class Names {
    private static final Pattern BARE = Pattern.compile("[\\p{L}_][\\p{L}\\p{N}_]*");
    private static final Set<String> RESERVED = Set.of("and", "or", "not", "is", "in", "null", "case", "when", "then", "else", "end", "between", "true",
            "false", "date", "from", "where", "order", "by", "over", "rows");

    private Names() {
    }

    /** A column's name, in double quotes where it would be read as something else. */
    static String quoted(String name) {
        return BARE.matcher(name).matches() && !RESERVED.contains(name.toLowerCase(Locale.ROOT)) ? name : "\"" + name.replace("\"", "\"\"") + "\"";
    }

    static String text(String text) {
        return "'" + text.replace("'", "''") + "'";
    }

    static String listed(List<Formula> all) {
        return all.stream().map(Formula::toString).collect(Collectors.joining(", "));
    }
}
