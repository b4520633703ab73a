package dev.trellisgorge.problem;

import java.util.List;
import java.util.stream.Collectors;

/** The user's input can't be used. Carries every mistake that could be found in one go, never none. */
public final class BadInput extends RuntimeException {
    private static final long serialVersionUID = 1L;

    private final transient List<Problem> problems;

    public BadInput(List<Problem> problems) {
        super(problems.stream().map(Problem::toString).collect(Collectors.joining(System.lineSeparator())));
        this.problems = List.copyOf(problems);
    }

    public BadInput(Place place, String message) {
        this(List.of(new Problem(place, message)));
    }

    public List<Problem> problems() {
        return problems;
    }
}
