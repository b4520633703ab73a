package dev.trellisgorge.problem;

import java.util.List;
import java.util.stream.Collectors;

/**
 * The user's input can't be used: the one exception for what a user did wrong. Carries every mistake that could be found in
 * one go, never none, also after serialisation. Immutable.
 */
public class BadInput extends RuntimeException {
    private static final long serialVersionUID = 3L;

    private final List<Problem> problems;

    /** @throws IllegalArgumentException where there is no problem */
    public BadInput(List<Problem> problems) {
        this(problems, null);
    }

    /** @param cause what went wrong below; may be null */
    public BadInput(List<Problem> problems, Throwable cause) {
        super(problems.stream().map(Problem::toString).collect(Collectors.joining(System.lineSeparator())), cause);
        if (problems.isEmpty()) {
            throw new IllegalArgumentException("there is no problem");
        }
        this.problems = List.copyOf(problems);
    }

    public BadInput(Place place, ProblemKind kind, String message) {
        this(place, kind, message, null);
    }

    /** @param cause what went wrong below; may be null */
    public BadInput(Place place, ProblemKind kind, String message, Throwable cause) {
        this(List.of(new Problem(place, kind, message)), cause);
    }

    /** The same mistakes, seen from another place; their own are named in the messages. */
    public BadInput at(Place place) {
        return new BadInput(problems.stream().map(problem -> problem.at(place)).toList(), this);
    }

    public List<Problem> problems() {
        return problems;
    }
}
