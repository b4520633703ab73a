package dev.trellisgorge.pattern;

import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.formula.Formulas.text;
import static dev.trellisgorge.formula.Formulas.truth;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.problem.ProblemKind;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;

/**
 * The keys that a user gave a pattern, however they are written. What is wrong with one is reported where it stands, and
 * the reading goes on: the method then gives what it gives for a key that is not there. Not thread-safe.
 */
public interface Given {

    boolean has(String key);

    /** Whether the key's value is a mapping. */
    boolean isMapping(String key);

    /** An expression; {@code absent} where it is not there or wrong, so that the reading can go on. */
    Formula figure(String key);

    Optional<Formula> expression(String key);

    OptionalDouble number(String key);

    /** A whole number from 1 up; empty where it is not there or wrong. */
    OptionalInt count(String key);

    Optional<String> text(String key);

    Optional<String> column(String key);

    /** One of an enum's constants, in lower case. */
    <E extends Enum<E>> Optional<E> choice(String key, Class<E> choices);

    /** One of them or a list; empty where the key is not there or wrong. */
    <E extends Enum<E>> List<E> choices(String key, Class<E> choices);

    boolean truth(String key);

    /** A list of texts; empty where it is not there. */
    List<String> names(String key);

    /** A list of numbers; empty where it is not there or wrong. */
    List<Double> numbers(String key);

    /** A list of expressions; empty where it is not there. */
    List<Formula> figures(String key);

    /** A mapping that has the keys which are stated for it, and no others. */
    Optional<Given> mapping(String key);

    /** A list of such mappings; empty where it is not there. */
    List<Given> mappings(String key);

    /** The keys that were given, as they stand. */
    List<String> keys();

    /** Says what is wrong with the value of a key. */
    void refuse(String key, ProblemKind kind, String message);
}
