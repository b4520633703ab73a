package dev.trellisgorge.sql.query;

import java.util.Objects;
import java.util.Set;

/**
 * How a database reads the text of a query, as far as databases differ. Immutable and thread-safe.
 *
 * @param quote       what stands around names that aren't plain words: {@code "}, or {@code `}
 * @param backslashes whether a backslash within quotes may stand for something else
 * @param brackets    whether square brackets hold elements of arrays, and no names
 * @param functions   functions that compute from what they are given and do nothing else, in lower case
 */
public record QueryLanguage(char quote, boolean backslashes, boolean brackets, Set<String> functions) {
    public QueryLanguage {
        functions = Set.copyOf(functions);
        Objects.requireNonNull(functions, "functions");
    }
}
