package dev.trellisgorge.pattern;

import dev.trellisgorge.chart.Format;
import dev.trellisgorge.chart.Label;
import dev.trellisgorge.chart.Label.At;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.plan.PlanBuilder;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.table.Kind;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** Describes a chart's labels: which series carry which figures, and in what words. */
final class Labelling {
    private static final String FITTED = "decimals of labels";

    private final Chart chart;
    private final Pattern pattern;
    private final PlanBuilder plan;
    private final List<LabelSpot> usual;
    private final List<Placed> placed = new ArrayList<>();
    private final Set<List<Object>> taken = new HashSet<>();

    /** A label on its way: its figure is a column, its words not yet. */
    private record Placed(String series, String column, Format format, boolean fitting, At at, boolean named, boolean ofEnd) {
    }

    Labelling(Chart chart, Pattern pattern, PlanBuilder plan) {
        this.chart = chart;
        this.pattern = pattern;
        this.plan = plan;
        this.usual = pattern.labelled(plan);
    }

    void describe() {
        List<Labels> asked = chart.labels().stream().filter(labels -> !labels.shows(Labels.Show.NONE)).toList();
        asked.forEach(this::place);
        if (!asked.isEmpty()) {
            others(asked).forEach(spot -> place(spot, Labels.VALUE));
        }
        List<Formula> fitted = placed.stream().filter(Placed::fitting).<Formula>map(label -> Formulas.computed(label.column())).toList();
        Optional<String> decimals = fitted.isEmpty() ? Optional.empty() : Optional.of(FITTED);
        decimals.ifPresent(column -> plan.forLabels(column, Format.decimals(fitted)));
        placed.forEach(label -> plan.label(label.series(), worded(plan, label.column(), plan.free("words beside " + label.series()), label.format(), label.fitting() ? decimals : Optional.empty(),
                label.at(), label.ofEnd(), label.named() ? Optional.of(chart.readersName(label.series(), pattern.groups())) : Optional.empty())));
        plan.namesInLabels(asked.size() == 1 && asked.get(0).shows(Labels.Show.CATEGORY));
    }

    /** Where a pattern has a second figure, as a change, it keeps its labels unless some are asked for there. */
    private List<LabelSpot> others(List<Labels> asked) {
        Set<String> named = new LinkedHashSet<>();
        asked.forEach(labels -> named.addAll(series(labels)));
        boolean anyMain = usual.stream().anyMatch(LabelSpot::main);
        return usual.stream().filter(spot -> anyMain && !spot.main() && !named.contains(spot.series())).toList();
    }

    private void place(Labels labels) {
        boolean anyMain = usual.stream().anyMatch(LabelSpot::main);
        if (labels.on().isEmpty()) {
            usual.stream().filter(spot -> spot.main() || !anyMain).forEach(spot -> place(spot, labels));
            return;
        }
        for (String series : series(labels)) {
            List<LabelSpot> own = usual.stream().filter(spot -> spot.series().equals(series)).toList();
            if (own.isEmpty()) {
                Formula figure = pattern.figures().getOrDefault("value", Formulas.computed(series));
                place(new LabelSpot(series, Formulas.truth(true), figure, true, Optional.of(At.INSIDE), Optional.empty(), false), labels);
            } else if (labels.show().isPresent()) { // what is asked for by name is on every row of the series
                LabelSpot spot = own.get(0);
                place(new LabelSpot(series, Formulas.truth(true), spot.figure(), spot.main(), aside(spot), spot.format(), spot.ofEnd()), labels);
            } else {
                own.forEach(spot -> place(new LabelSpot(series, spot.when(), spot.figure(), spot.main(), aside(spot), spot.format(), spot.ofEnd()), labels));
            }
        }
    }

    /** What is asked for on a slice of a ring stands there, and not in the middle. */
    private static Optional<At> aside(LabelSpot spot) {
        return spot.at().map(at -> at == At.CENTRE ? At.INSIDE : at);
    }

    private void place(LabelSpot spot, Labels labels) {
        At at = labels.at().or(spot::at).orElse(At.END);
        if (at == At.CENTRE && spot.at().filter(At.CENTRE::equals).isEmpty()) {
            throw refused("'" + spot.series() + "' has no centre for a label; it stands at the end, inside or at the base");
        }
        if (!taken.add(List.of(spot.series(), at, spot.when()))) {
            throw refused("two labels stand in one place of '" + spot.series() + "' (" + at.name().toLowerCase(Locale.ROOT) + "); give one of them another 'at'");
        }
        String column = plan.free("label of " + spot.series());
        Formula figure = figure(spot, labels);
        plan.forLabels(column, spot.isEverywhere() ? figure : Formulas.only(spot.when(), figure));
        Kind kind = plan.kind(Formulas.computed(column)).orElse(Kind.NUMBER);
        if (labels.format().isPresent() && kind != Kind.NUMBER) {
            throw refused("a label of " + kind.phrase() + " can't take the format '" + labels.format().get().pattern() + "'");
        }
        boolean usualFigure = labels.show().isEmpty();
        Format format = labels.format().or(() -> labels.shows(Labels.Show.SHARE) ? Optional.of(new Format("0.#%")) : Optional.empty())
                .or(() -> usualFigure || labels.shows(Labels.Show.CHANGE) && !spot.main() ? spot.format() : Optional.empty()).orElse(Format.FITTING).in(chart.locale());
        placed.add(new Placed(spot.series(), column, format, format.isFitting() && kind == Kind.NUMBER, at, labels.named(), spot.ofEnd() && figure.equals(spot.figure())));
    }

    private Formula figure(LabelSpot spot, Labels labels) {
        if (labels.show().isEmpty()) {
            return spot.figure();
        }
        Formula value = spot.main() ? spot.figure() : pattern.figures().getOrDefault("value", spot.figure());
        return switch (labels.show().get()) {
            case VALUE, NONE -> value;
            case PART -> Formulas.computed(spot.series());
            case SHARE -> pattern.share().orElseGet(() -> value.over(Formulas.sum(value)));
            case CHANGE -> spot.main() ? pattern.change().orElseThrow(() -> refused("the pattern '" + pattern.type().name() + "' has no change for its labels to show")) : spot.figure();
            case CATEGORY -> plan.shownName();
            case EXPRESSION -> labels.expression().orElseThrow();
        };
    }

    /** The series that labels are on. */
    private List<String> series(Labels labels) {
        Map<String, List<String>> known = new LinkedHashMap<>();
        pattern.seriesNames().forEach(name -> known.put(name, List.of(name)));
        pattern.groups().forEach(known::putIfAbsent);
        Set<String> all = new LinkedHashSet<>();
        for (String name : labels.on()) {
            if (!known.containsKey(name)) {
                throw refused("there is no part or class '" + name + "' for a label to be on. " + Nearest.hint(name, known.keySet()));
            }
            all.addAll(known.get(name));
        }
        return List.copyOf(all);
    }

    private BadInput refused(String why) {
        return new BadInput(Place.of("chart '" + chart.name() + "'"), ProblemKind.UNSUPPORTED, why);
    }

    /** A label whose words are a column too, unless its figures are words already. */
    static Label worded(PlanBuilder plan, String column, String words, Format format, Optional<String> decimals, At at, boolean ofEnd, Optional<String> name) {
        Kind kind = plan.kind(Formulas.computed(column)).orElse(Kind.NUMBER);
        if (kind == Kind.TEXT && name.isEmpty()) {
            return new Label(column, column, format, Optional.empty(), at, ofEnd);
        }
        Formula figure = Formulas.computed(column);
        Formula written = switch (kind) {
            case NUMBER -> format.words(figure, decimals.map(Formulas::computed).orElse(Formulas.number(0)));
            case DATE -> format.locale().equals(Locale.ROOT) ? Formulas.written(figure) : Formulas.formatted(figure, Format.dates(format.locale()), format.locale());
            default -> Formulas.written(figure);
        };
        plan.forLabels(words, name.map(called -> Formulas.concat(Formulas.text(called + " "), written)).orElse(written));
        return new Label(column, words, format, decimals, at, ofEnd);
    }
}
