package dev.trellisgorge.sql.query;

import java.util.Locale;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * What the person who runs a query allows beyond reading tables. Immutable and thread-safe.
 *
 * @param functions functions that the query may call besides those that only compute; upper and lower case are the same
 * @param unchecked whether a query that can't be checked is sent as it is written
 */
public record QueryRights(Set<String> functions, boolean unchecked) {
    /** Nothing beyond. */
    public static final QueryRights NONE = new QueryRights(Set.of(), false);

    public QueryRights {
        functions = functions.stream().map(name -> name.toLowerCase(Locale.ROOT)).collect(Collectors.toUnmodifiableSet());
    }
}
