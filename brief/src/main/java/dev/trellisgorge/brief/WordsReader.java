package dev.trellisgorge.brief;

import dev.trellisgorge.brief.Mapping.Text;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.pattern.Words;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.problem.Problems;
import java.util.Optional;

/**
 * Reads a line of words with expressions in braces, {@code {SUM(mwh) | #,##0} MWh in {month | MMMM yyyy}}: after a bar the CLDR pattern by which it is written.
 * Doubled braces stand for themselves.
 */
final class WordsReader {
    private final Text line;
    private final Expressions shaped;
    private final Expressions raw;
    private final Problems problems;
    private int at;

    private WordsReader(Text line, Expressions shaped, Expressions raw, Problems problems) {
        this.line = line;
        this.shaped = shaped;
        this.raw = raw;
        this.problems = problems;
    }

    /**
     * The words; none where something is wrong with them, which is reported.
     *
     * @param shaped the columns of the charted table
     * @param raw    those of the raw table, of which a slice may keep one cell
     */
    static Words read(Text line, Expressions shaped, Expressions raw, Problems problems) {
        return new WordsReader(line, shaped, raw, problems).words();
    }

    private Words words() {
        Words words = Words.NONE;
        StringBuilder said = new StringBuilder();
        String text = line.value();
        while (at < text.length()) {
            char character = text.charAt(at);
            boolean doubled = at + 1 < text.length() && text.charAt(at + 1) == character;
            if (character != '{' && character != '}' || doubled) {
                said.append(character);
                at += (character == '{' || character == '}') ? 2 : 1;
            } else if (character == '}') {
                problems.add(line.place(), ProblemKind.SYNTAX, "'" + text + "' has a '}' at character " + (at + 1) + " that no '{' opens; '}}' stands for one that is meant");
                return Words.NONE;
            } else {
                int end = end();
                if (end < 0) {
                    problems.add(line.place(), ProblemKind.SYNTAX, "'" + text + "' has a '{' at character " + (at + 1) + " that is never closed" + (text.endsWith("|") ? " (a text with ' #' in it stands in quotes)" : "; '{{' stands for one that is meant"));
                    return Words.NONE;
                }
                words = and(words, said);
                Optional<Words> more = with(words, text.substring(at + 1, end));
                if (more.isEmpty()) {
                    return Words.NONE;
                }
                words = more.get();
                at = end + 1;
            }
        }
        return and(words, said);
    }

    private static Words and(Words words, StringBuilder said) {
        Words all = said.isEmpty() ? words : words.and(said.toString());
        said.setLength(0);
        return all;
    }

    /** Where the brace that is open here closes; below zero where it does not. */
    private int end() {
        char quote = 0;
        for (int i = at + 1; i < line.value().length(); i++) {
            char character = line.value().charAt(i);
            if (quote != 0) {
                quote = character == quote ? 0 : quote;
            } else if (character == '\'' || character == '"') {
                quote = character;
            } else if (character == '}') {
                return i;
            }
        }
        return -1;
    }

    private Optional<Words> with(Words words, String braced) {
        int bar = bar(braced);
        String expression = (bar < 0 ? braced : braced.substring(0, bar)).strip();
        if (expression.isEmpty()) {
            problems.add(line.place(), ProblemKind.INVALID, "'{" + braced + "}' says nothing; write a column, a setting or an aggregate such as SUM(mwh)");
            return Optional.empty();
        }
        Optional<Formula> of = shaped.said(new Text(expression, line.place()), raw);
        return of.map(formula -> bar < 0 ? words.and(formula) : words.and(formula, braced.substring(bar + 1).strip()));
    }

    /** Where the last bar by itself stands, outside of quotes; below zero where there is none. */
    private static int bar(String braced) {
        int bar = -1;
        char quote = 0;
        for (int i = 0; i < braced.length(); i++) {
            char character = braced.charAt(i);
            if (quote != 0) {
                quote = character == quote ? 0 : quote;
            } else if (character == '\'' || character == '"') {
                quote = bar >= 0 ? 0 : character; // a pattern has quotes of its own
            } else if (character == '|' && bar < 0) {
                boolean joined = i + 1 < braced.length() && braced.charAt(i + 1) == '|';
                bar = joined ? bar : i;
                i += joined ? 1 : 0;
            }
        }
        return bar;
    }
}
