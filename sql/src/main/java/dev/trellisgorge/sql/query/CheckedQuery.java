package dev.trellisgorge.sql.query;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Bound;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import net.sf.jsqlparser.JSQLParserException;
import net.sf.jsqlparser.parser.CCJSqlParserUtil;
import net.sf.jsqlparser.parser.ParseException;
import net.sf.jsqlparser.parser.Token;
import net.sf.jsqlparser.statement.Statement;
import net.sf.jsqlparser.statement.select.Select;

/**
 * Lets through what only reads tables. A query is parsed, written anew from the parts that are known to only read, and taken only where that is,
 * word for word, what the parser has read. What comes out is that text, in which all databases see the same words.
 */
public final class CheckedQuery {
    private static final long MOST_MILLISECONDS = 5_000;
    private static final int MOST_NESTED = 100;

    private CheckedQuery() {
    }

    /**
     * The text to send.
     *
     * @param query    as somebody wrote it; a semicolon may end it
     * @param language of the database that is to run it
     * @param place    for messages
     * @throws BadInput where it isn't one query, calls a function that may do more than compute, or can't be checked, and the rights don't allow that
     */
    public static String of(String query, QueryLanguage language, QueryRights rights, Place place) {
        if (query.length() > Bound.QUERY_CHARACTERS.count()) {
            throw new BadInput(place, ProblemKind.TOO_LARGE, "the query has " + query.length() + " characters, and may have " + Bound.QUERY_CHARACTERS.count());
        }
        try {
            return checked(query, language, rights, place);
        } catch (Unchecked unclear) {
            if (rights.unchecked()) {
                return query.strip().replaceAll(";\\s*$", "");
            }
            throw new BadInput(place, ProblemKind.NOT_ALLOWED, "can't tell what the query does: " + unclear.getMessage() + rights.remedy().of(Optional.empty()));
        } catch (UnknownFunction unknown) {
            throw new BadInput(place, ProblemKind.NOT_ALLOWED, "the query calls " + unknown.name() + ", which may do more than compute" + rights.remedy().of(Optional.of(unknown.name())));
        }
    }

    private static String checked(String query, QueryLanguage language, QueryRights rights, Place place) throws Unchecked {
        Select select = parsed(query, place);
        String read = select.toString();
        List<String> words = Tokens.of(read, language);
        refuseOther(words, select, language, rights); // what was meant is what is sent
        refuseOther(words, parsed(read, place), language, rights); // and what is checked too
        return read;
    }

    /** Where a query has more to it than is known to only read. */
    private static void refuseOther(List<String> words, Select select, QueryLanguage language, QueryRights rights) throws Unchecked {
        List<String> known = Tokens.readable(new QueryWriter(language, name -> refuseUnknown(name, language, rights)).select(select), language);
        for (int i = 0; i < Math.max(words.size(), known.size()); i++) {
            if (i >= words.size() || i >= known.size() || !words.get(i).equals(known.get(i))) {
                throw new Unchecked(i >= words.size() ? "it has more to it than it says" : "'" + words.get(i) + "' is not expected" + (i == 0 ? "" : " behind '" + words.get(i - 1) + "'"));
            }
        }
    }

    private static void refuseUnknown(String name, QueryLanguage language, QueryRights rights) {
        String called = name.toLowerCase(Locale.ROOT);
        if (!language.functions().contains(called) && !rights.functions().contains(called)) {
            throw new UnknownFunction(name);
        }
    }

    /** Where the parser stops. */
    private static String unread(Throwable e) {
        for (Throwable cause = e; cause != null; cause = cause.getCause()) {
            if (cause instanceof ParseException wrong && wrong.currentToken != null && wrong.currentToken.next != null && !wrong.currentToken.next.image.isEmpty()) {
                Token next = wrong.currentToken.next;
                return "'" + next.image + "' is not expected on line " + next.beginLine + ", character " + next.beginColumn + " (a name that is a word of SQL stands in quotes)";
            }
        }
        return "it can't be read as a query";
    }

    private static Select parsed(String query, Place place) throws Unchecked {
        if (CCJSqlParserUtil.getNestingDepth(query) > MOST_NESTED) {
            throw new Unchecked("more than " + MOST_NESTED + " brackets stand within each other");
        }
        ExecutorService thread = Executors.newSingleThreadExecutor(task -> {
            Thread made = new Thread(null, task, "gorge: query", 16 << 20);
            made.setDaemon(true);
            return made;
        });
        try {
            List<Statement> statements = CCJSqlParserUtil.parseStatements(query, thread, parser -> parser.withTimeOut(MOST_MILLISECONDS).withAllowedNestingDepth(MOST_NESTED)).stream().filter(each -> each != null).toList();
            if (statements.isEmpty()) {
                throw new Unchecked("it can't be read as a query");
            } else if (statements.size() > 1) {
                throw new BadInput(place, ProblemKind.SYNTAX, "one query is expected here, and there are " + statements.size() + " statements");
            } else if (statements.get(0) instanceof Select select) {
                return select;
            }
            throw new BadInput(place, ProblemKind.SYNTAX, "a query is expected here, one that begins with SELECT, WITH or VALUES");
        } catch (JSQLParserException | StackOverflowError | RuntimeException e) {
            if (e instanceof BadInput wrong) {
                throw wrong;
            }
            throw new Unchecked(unread(e));
        } finally {
            thread.shutdownNow();
        }
    }
}
