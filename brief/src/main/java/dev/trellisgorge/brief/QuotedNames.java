package dev.trellisgorge.brief;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.function.Predicate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * An expression in which each bare word that is exactly a column's name stands in double quotes, so that a column may be called
 * {@code month} or {@code order}. The words of the expression language itself are left as they are.
 *
 * @param text  the expression with quotes
 * @param added where quotes were added, counted in characters of {@code text} from 1
 */
record QuotedNames(String text, List<Integer> added) {
    private static final Pattern TOKEN = Pattern.compile("'(?:[^']|'')*+'?|\"(?:[^\"]|\"\")*+\"?|[\\p{L}_][\\p{L}\\p{N}_]*|.", Pattern.DOTALL);
    private static final Set<String> OWN = Set.of("AND", "OR", "NOT", "IS", "NULL", "IN", "BETWEEN", "CASE", "WHEN", "THEN", "ELSE", "END", "TRUE", "FALSE");
    private static final Pattern EXTRACTED = Pattern.compile("(?i)extract\\s*\\(\\s*$");

    static QuotedNames in(String expression, Predicate<String> isColumn) {
        StringBuilder quoted = new StringBuilder();
        List<Integer> added = new ArrayList<>();
        Matcher token = TOKEN.matcher(expression);
        while (token.find()) {
            String word = token.group();
            if (isName(word, expression, token.start(), token.end()) && isColumn.test(word)) {
                quoted.append('"');
                added.add(quoted.length());
                quoted.append(word).append('"');
                added.add(quoted.length());
            } else {
                quoted.append(word);
            }
        }
        return new QuotedNames(quoted.toString(), List.copyOf(added));
    }

    private static boolean isName(String word, String expression, int start, int end) {
        char first = word.charAt(0);
        if (!Character.isLetter(first) && first != '_' || OWN.contains(word.toUpperCase(Locale.ROOT))) {
            return false;
        }
        String after = expression.substring(end).stripLeading();
        boolean call = after.startsWith("(");
        boolean literal = word.equalsIgnoreCase("date") && after.startsWith("'");
        boolean part = EXTRACTED.matcher(expression.substring(0, start)).find();
        boolean setting = start > 0 && expression.charAt(start - 1) == ':';
        return !call && !literal && !part && !setting;
    }

    /** The place in the expression as it was, of a place in {@link #text}; both from 1. */
    int before(int place) {
        return place - (int) added.stream().filter(quote -> quote < place).count();
    }
}
