package dev.trellisgorge.problem;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Supplier;

/** Gathers mistakes while input is read, so that a user hears of all of them at once. Not thread-safe. */
public final class Problems {
    private final List<Problem> found = new ArrayList<>();

    /** None so far. */
    public Problems() {
    }

    public void add(Place place, ProblemKind kind, String message) {
        found.add(new Problem(place, kind, message));
    }

    public void add(Problem problem) {
        found.add(Objects.requireNonNull(problem, "problem"));
    }

    /** Takes over what others gathered. */
    public void addAll(Problems others) {
        found.addAll(others.found);
    }

    /** Takes over the mistakes that an exception carries. */
    public void addAll(BadInput bad) {
        found.addAll(bad.problems());
    }

    /** Takes a step; where it fails with {@link BadInput}, keeps its problems and gives empty. */
    public <T> Optional<T> attempt(Supplier<T> step) {
        try {
            return Optional.of(step.get());
        } catch (BadInput bad) {
            addAll(bad);
            return Optional.empty();
        }
    }

    public boolean isEmpty() {
        return found.isEmpty();
    }

    /** @throws BadInput with everything gathered, where anything was */
    public void throwIfAny() {
        if (!found.isEmpty()) {
            throw new BadInput(found.stream().distinct().toList());
        }
    }
}
