package dev.trellisgorge.shape;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.table.Schema;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;

/**
 * A raw table and the steps that it goes through, as data: nothing is computed. Immutable and thread-safe.
 *
 * @param source the raw table's name
 * @param name   what the outcome is called
 * @param parts  in order
 */
public record Pipeline(String source, String name, List<Part> parts) {

    /**
     * A step, and where a user asked for it.
     *
     * @param place for messages; empty where the step was asked for by a program
     */
    public record Part(Step step, Place place) {
        public Part {
            Objects.requireNonNull(step, "step");
            Objects.requireNonNull(place, "place");
        }

        /** Does something for the step. @throws BadInput what is wrong, as the user who asked for the step reads it */
        public void run(Runnable some) {
            try {
                some.run();
            } catch (BadInput wrong) {
                throw at(wrong);
            }
        }

        /** What is wrong, as the user who asked for the step reads it. */
        BadInput at(BadInput wrong) {
            return place.toString().isEmpty() ? wrong
                    : new BadInput(wrong.problems().stream().map(problem -> problem.place().line() > 0 && problem.place().file().equals(place.file()) ? problem
                            : problem.at(place)).toList(), wrong);
        }
    }

    public Pipeline {
        Objects.requireNonNull(source, "source");
        Objects.requireNonNull(name, "name");
        parts = List.copyOf(parts);
    }

    /** A raw table as it was read. */
    public static Pipeline of(String source) {
        return new Pipeline(source, source, List.of());
    }

    public Pipeline then(Step step) {
        return then(step, Place.of(""));
    }

    /** @param place where the user asked for the step */
    public Pipeline then(Step step, Place place) {
        List<Part> more = new ArrayList<>(parts);
        more.add(new Part(step, place));
        return new Pipeline(source, name, more);
    }

    /** The same after some steps on the raw table itself. */
    public Pipeline first(List<? extends Step> some) {
        List<Part> more = new ArrayList<>(some.stream().map(step -> new Part(step, Place.of(""))).toList());
        more.addAll(parts);
        return new Pipeline(source, name, more);
    }

    /** The raw table and the first of the steps. */
    public Pipeline upTo(int steps) {
        return new Pipeline(source, name, parts.subList(0, steps));
    }

    public List<Step> steps() {
        return parts.stream().map(Part::step).toList();
    }

    /**
     * The columns after all steps.
     *
     * @throws BadInput at the first step that names what is not there, or of the wrong kind
     */
    public Schema schema(Catalog known) {
        Schema schema = known.source(source);
        for (Part part : parts) {
            try {
                schema = part.step().schema(schema, known);
            } catch (BadInput wrong) {
                throw part.at(wrong);
            }
        }
        return schema;
    }

    /** How many rows the steps add that stand where no other row does too. */
    public int addedRows() {
        return (int) parts.stream().filter(part -> part.step() instanceof AddRow).count();
    }

    /** What the rows are sorted by; the last key, unique, is where a row first stands in the raw table. */
    public List<SortKey> order() {
        List<SortKey> order = List.of();
        for (Part part : parts) {
            order = part.step().order(order);
        }
        return order;
    }

    /** The order of the rows in words. */
    public String orderSentence() {
        String last = "in the order in which they first stand in " + source;
        return order().isEmpty() ? last : "by " + String.join(", then ", order().stream().map(SortKey::toString).toList()) + "; equal ones " + last;
    }
}
