package dev.trellisgorge.sql.query;

import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * What the person who runs a query allows beyond reading tables. Immutable and thread-safe.
 *
 * @param functions functions that the query may call besides those that only compute; upper and lower case are the same
 * @param unchecked whether a query that can't be checked is sent as it is written
 * @param remedy    what messages say can be done where a query needs more
 */
public record QueryRights(Set<String> functions, boolean unchecked, Remedy remedy) {
    private static final Remedy CALLS = function -> function.isPresent() ? "; QueryRights.functions allows it" : "; QueryRights.unchecked sends it as it is";

    /** Nothing beyond. */
    public static final QueryRights NONE = new QueryRights(Set.of(), false);

    /** What messages say can be done where a query needs more. */
    @FunctionalInterface
    public interface Remedy {
        /**
         * The end of a message, with the punctuation before it.
         *
         * @param function that may do more than compute; empty where the query can't be checked
         */
        String of(Optional<String> function);
    }

    /** With messages that name this type's components. */
    public QueryRights(Set<String> functions, boolean unchecked) {
        this(functions, unchecked, CALLS);
    }

    public QueryRights {
        Objects.requireNonNull(remedy, "remedy");
        functions = functions.stream().map(name -> name.toLowerCase(Locale.ROOT)).collect(Collectors.toUnmodifiableSet());
    }
}
