package dev.trellisgorge.pattern;

import static dev.trellisgorge.formula.Formulas.not;
import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.formula.Formulas.present;
import static dev.trellisgorge.formula.Formulas.truth;

import dev.trellisgorge.chart.ReferenceLine;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.Leaf;
import dev.trellisgorge.plan.Refusal;
import dev.trellisgorge.plan.RowWarning;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.IntStream;

/**
 * Values between limits: n limits make n + 1 classes, the lowest first. A value equal to a limit is in the band above it,
 * or with {@link Ties#BELOW} in the one below. Limits must rise on every row. Where a limit, or what the value is divided
 * by, is missing or that is zero, the value is {@code unjudged}. Immutable and thread-safe.
 *
 * @param limits at least one; numbers, settings, columns, or any formulas of one number a row
 * @param of     what the value is divided by before it is compared, or none
 * @param names  of the bands, one more than the limits; empty for {@code band 1}, {@code band 2}, …
 * @param ties   which side a value equal to a limit is counted on
 */
public record Bands(List<Formula> limits, Optional<Formula> of, List<String> names, Ties ties) implements Classifier {
    private static final Role[] ROLES = {Role.BAD, Role.CAUTION, Role.GOOD, Role.BASE, Role.ACCENT};

    /** @throws IllegalArgumentException where there is no limit, or what the value is divided by is 0, or the names are too few, too many or alike */
    public Bands {
        Objects.requireNonNull(of, "of");
        Objects.requireNonNull(ties, "ties");
        limits = List.copyOf(limits);
        names = List.copyOf(names);
        if (of.filter(number(0)::equals).isPresent()) {
            throw new IllegalArgumentException("'of' is 0, and nothing can be divided by it");
        }
        if (limits.isEmpty()) {
            throw new IllegalArgumentException("bands need at least one limit");
        }
        if (!names.isEmpty() && names.size() != limits.size() + 1) {
            throw new IllegalArgumentException(limits.size() + " limits make " + (limits.size() + 1) + " bands, and there are "
                    + names.size() + " names");
        }
        if (names.stream().distinct().count() != names.size()) {
            throw new IllegalArgumentException("two bands have the same name");
        }
    }

    /** Bands between numbers. */
    public static Bands at(double... limits) {
        return at(Arrays.stream(limits).mapToObj(Formulas::number).toList());
    }

    public static Bands at(List<Formula> limits) {
        return new Bands(limits, Optional.empty(), List.of(), Ties.ABOVE);
    }

    /** Compares the value divided by this. */
    public Bands of(Formula divisor) {
        return new Bands(limits, Optional.of(divisor), names, ties);
    }

    public Bands named(String... bandNames) {
        return new Bands(limits, of, List.of(bandNames), ties);
    }

    public Bands ties(Ties side) {
        return new Bands(limits, of, names, side);
    }

    private Formula compared(Formula value) {
        return of.map(value::over).orElse(value);
    }

    @Override
    public List<RowClass> classes(Formula value, Formula category) {
        Formula compared = compared(value);
        List<RowClass> classes = new ArrayList<>();
        for (int band = 0; band <= limits.size(); band++) {
            Optional<Formula> from = band == 0 ? Optional.empty() : Optional.of(reaches(compared, limits.get(band - 1)));
            Optional<Formula> to = band == limits.size() ? Optional.empty() : Optional.of(under(compared, limits.get(band)));
            Formula inside = from.isPresent() && to.isPresent() ? from.get().and(to.get()) : from.or(() -> to).orElseThrow();
            classes.add(new RowClass(name(band), allLimits().map(inside::and).orElse(inside), ROLES[band % ROLES.length]));
        }
        return classes;
    }

    /** True where every limit is there; needed where a limit that the band itself does not read may be missing. */
    private Optional<Formula> allLimits() {
        return limits.stream().filter(limit -> !(limit instanceof Leaf.Literal)).map(Formulas::present).reduce(Formula::and);
    }

    private Formula reaches(Formula compared, Formula limit) {
        return ties == Ties.ABOVE ? compared.atLeast(limit) : compared.above(limit);
    }

    private Formula under(Formula compared, Formula limit) {
        return ties == Ties.ABOVE ? compared.below(limit) : compared.atMost(limit);
    }

    private String name(int band) {
        return names.isEmpty() ? "band " + (band + 1) : names.get(band);
    }

    @Override
    public Formula judged(Formula value, Formula category) {
        Formula comparable = of.filter(divisor -> !(divisor instanceof Leaf.Literal)).map(divisor -> present(divisor).and(not(divisor.equalTo(number(0)))))
                .orElse(truth(true));
        return allLimits().map(comparable::and).orElse(comparable);
    }

    @Override
    public Map<String, Formula> figures() {
        Map<String, Formula> figures = new LinkedHashMap<>();
        IntStream.range(0, limits.size()).forEach(i -> figures.put("limit " + (i + 1), limits.get(i)));
        of.ifPresent(divisor -> figures.put("of", divisor));
        return figures;
    }

    @Override
    public List<Refusal> refusals() {
        List<Refusal> refusals = new ArrayList<>();
        for (int i = 1; i < limits.size(); i++) {
            Map<String, Formula> pair = FiguresRead.of("limit " + i, limits.get(i - 1), "limit " + (i + 1), limits.get(i));
            refusals.add(new Refusal(limits.get(i - 1).atLeast(limits.get(i)), pair, "limits must rise"));
        }
        return refusals;
    }

    @Override
    public List<RowWarning> watches(Formula value, Formula category) {
        List<RowWarning> watches = new ArrayList<>();
        for (int i = 0; i < limits.size(); i++) {
            watches.add(new RowWarning("equal to limit " + (i + 1) + ", counted in '" + name(ties == Ties.ABOVE ? i + 1 : i) + "'",
                    compared(value).equalTo(limits.get(i)), value));
            watches.addAll(RowWarning.ofRounding(compared(value), "limit " + (i + 1), limits.get(i)));
        }
        watches.addAll(unjudgedWatch(value, category, of.isPresent() ? "a limit or what it is a share of is missing or zero" : "a limit is missing"));
        return watches;
    }

    @Override
    public List<ReferenceLine> lines() {
        return of.isPresent() ? List.of() : IntStream.range(0, limits.size())
                .mapToObj(i -> Classifier.line(limits.get(i), "limit " + (i + 1))).flatMap(List::stream).toList();
    }
}
