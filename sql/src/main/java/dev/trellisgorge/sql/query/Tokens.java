package dev.trellisgorge.sql.query;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * Takes a query apart into words, names, texts, numbers and operators, and knows only what every database reads alike: no comments, no escapes, no
 * parameters, no second statement. So where a query ends, and what in it is text, is not a matter of opinion.
 */
final class Tokens {
    /** Longest first. */
    private static final List<String> OPERATORS = List.of("!~*", "->>", "<=>", "!~", "~*", "->", "<=", ">=", "<>", "!=", "||", "::", "<<", ">>", "(", ")", ",", ".", "+", "-", "*", "/", "%", "=", "<", ">", "^", "|", "&", "~");
    private static final List<String> COMMENTS = List.of("--", "/*", "*/");

    private final String text;
    private final QueryLanguage language;
    private final List<String> found = new ArrayList<>();
    private int at;

    private Tokens(String text, QueryLanguage language) {
        this.text = text;
        this.language = language;
    }

    /**
     * Plain words in upper case, all else as it stands.
     *
     * @throws Unchecked where something else stands in the text
     */
    static List<String> of(String text, QueryLanguage language) throws Unchecked {
        Tokens tokens = new Tokens(text, language);
        tokens.read();
        return tokens.found;
    }

    /** As many as can be read, from the start. */
    static List<String> readable(String text, QueryLanguage language) {
        Tokens tokens = new Tokens(text, language);
        try {
            tokens.read();
        } catch (Unchecked end) {
            return tokens.found; // what can't be read is not among them
        }
        return tokens.found;
    }

    private void read() throws Unchecked {
        while (at < text.length()) {
            next();
        }
    }

    private void next() throws Unchecked {
        char character = text.charAt(at);
        if (character == ' ' || character == '\t' || character == '\n' || character == '\r') {
            at++;
        } else if (character == '\'' || character == language.quote()) {
            taken(quoted(character));
        } else if (isWordStart(text.codePointAt(at))) {
            word();
        } else if (isDigit(at) || character == '.' && isDigit(at + 1)) {
            number();
        } else {
            operator();
        }
    }

    private void taken(int end) {
        found.add(text.substring(at, end));
        at = end;
    }

    /** Where what begins here with a quote has its end; the quote stands for itself where it is doubled. */
    private int quoted(char quote) throws Unchecked {
        int end = at + 1;
        while (end < text.length()) {
            char character = text.charAt(end);
            if (character == 0 || character == '\\' && language.backslashes()) {
                throw new Unchecked("databases differ in how they read " + (character == 0 ? "a zero character" : "a backslash") + " within quotes");
            } else if (character != quote) {
                end++;
            } else if (end + 1 < text.length() && text.charAt(end + 1) == quote) {
                end += 2;
            } else {
                return end + 1;
            }
        }
        throw new Unchecked("a quote is never closed");
    }

    private static boolean isWordStart(int character) {
        return character == '_' || Character.isLetter(character);
    }

    private boolean isDigit(int index) {
        return index < text.length() && text.charAt(index) >= '0' && text.charAt(index) <= '9';
    }

    private void word() throws Unchecked {
        int end = at;
        while (end < text.length() && (isWordStart(text.codePointAt(end)) || Character.isDigit(text.codePointAt(end)))) {
            end += Character.charCount(text.codePointAt(end));
        }
        String word = text.substring(at, end).toUpperCase(Locale.ROOT);
        boolean prefix = end < text.length() && text.charAt(end) == '\'';
        if (prefix && !word.equals("X") && !word.equals("N")) {
            throw new Unchecked("databases differ in how they read a text behind '" + text.substring(at, end) + "'");
        }
        found.add(word);
        at = end;
    }

    private void number() throws Unchecked {
        int end = digits(at);
        if (end < text.length() && text.charAt(end) == '.') {
            end = digits(end + 1);
        }
        if (end < text.length() && (text.charAt(end) == 'e' || text.charAt(end) == 'E')) {
            int exponent = end + 1 < text.length() && (text.charAt(end + 1) == '-' || text.charAt(end + 1) == '+') ? 2 : 1;
            end = digits(end + exponent);
        }
        if (end < text.length() && isWordStart(text.codePointAt(end))) {
            throw new Unchecked("'" + text.substring(at, Math.min(text.length(), end + 1)) + "' is no number");
        }
        taken(end);
    }

    private int digits(int from) {
        int end = from;
        while (isDigit(end)) {
            end++;
        }
        return end;
    }

    private void operator() throws Unchecked {
        String rest = text.substring(at, Math.min(text.length(), at + 3));
        boolean bracket = language.brackets() && (rest.startsWith("[") || rest.startsWith("]"));
        if (COMMENTS.stream().anyMatch(rest::startsWith)) {
            throw new Unchecked("what follows '" + rest.substring(0, 2) + "' may be a comment");
        }
        String operator = bracket ? rest.substring(0, 1) : OPERATORS.stream().filter(rest::startsWith).findFirst()
                .orElseThrow(() -> new Unchecked("databases differ in how they read '" + text.substring(at, text.offsetByCodePoints(at, 1)) + "'"));
        if (operator.equals("&") && rest.length() > 1 && (rest.charAt(1) == '\'' || rest.charAt(1) == language.quote())) {
            throw new Unchecked("databases differ in how they read quotes behind '&'");
        }
        taken(at + operator.length());
    }
}
