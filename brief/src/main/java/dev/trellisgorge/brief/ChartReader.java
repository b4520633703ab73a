package dev.trellisgorge.brief;

import dev.trellisgorge.brief.Mapping.Text;
import dev.trellisgorge.chart.Color;
import dev.trellisgorge.chart.Format;
import dev.trellisgorge.chart.Label;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Classifier;
import dev.trellisgorge.pattern.Columns;
import dev.trellisgorge.pattern.Labels;
import dev.trellisgorge.pattern.Pattern;
import dev.trellisgorge.pattern.Split;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Problems;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;

/** Reads one chart of a brief. */
final class ChartReader {
    private static final List<String> PATTERNS = List.of("columns");
    private static final List<String> REQUIRED = List.of("pattern", "category", "value");
    private static final List<String> KEYS = List.of("pattern", "title", "subtitle", "category", "value", "classify",
            "slice", "labels", "names", "colors", "orientation");

    private final Mapping keys;
    private final Expressions expressions;
    private final Problems problems;

    ChartReader(Mapping keys, Expressions expressions, Problems problems) {
        this.keys = keys.allowing(REQUIRED, KEYS);
        this.expressions = expressions;
        this.problems = problems;
    }

    /** The chart; empty where something that it can't be without is missing or wrong, which is reported. */
    Optional<Chart> read() {
        boolean known = pattern();
        Optional<String> category = keys.text("category").flatMap(expressions::column);
        Optional<Formula> value = keys.text("value").flatMap(expressions::read);
        Optional<Classifier> rule = keys.mapping("classify").flatMap(this::classifier);
        // Names and colours are checked against the series even where the value itself is wrong.
        Pattern pattern = new Columns(value.orElse(new Formula.Absent()), rule);
        Chart chart = looks(Chart.of(category.orElse(""), pattern));
        return known && category.isPresent() && value.isPresent() ? Optional.of(chart) : Optional.empty();
    }

    private boolean pattern() {
        Optional<Text> name = keys.text("pattern");
        name.filter(text -> !PATTERNS.contains(text.value())).ifPresent(text -> problems.add(text.place(),
                "there is no pattern '" + text.value() + "'. " + Nearest.hint(text.value(), PATTERNS)));
        return name.filter(text -> PATTERNS.contains(text.value())).isPresent();
    }

    private Optional<Classifier> classifier(Mapping classify) {
        classify.allowing(List.of("split"), List.of("split"));
        return classify.mapping("split").flatMap(split -> {
            split.allowing(List.of("at"), List.of("at", "ties"));
            Split.Ties ties = split.choice("ties", Split.Ties.class).orElse(Split.Ties.ABOVE);
            return split.text("at").flatMap(expressions::read).map(at -> Split.at(at).ties(ties));
        });
    }

    private Chart looks(Chart bare) {
        Chart chart = bare.title(keys.text("title").map(Text::value).orElse(""))
                .subtitle(keys.text("subtitle").map(Text::value).orElse(""))
                .labels(keys.mapping("labels").map(this::labels).orElse(Labels.VALUE));
        Optional<Orientation> orientation = keys.choice("orientation", Orientation.class);
        if (orientation.isPresent()) {
            chart = chart.orientation(orientation.get());
        }
        for (Entry entry : entries("slice")) {
            if (expressions.column(entry.key()).isPresent()) {
                chart = chart.slice(entry.key().value(), entry.value().value());
            }
        }
        for (Entry entry : seriesEntries("names", chart)) {
            chart = chart.name(entry.key().value(), entry.value().value());
        }
        for (Entry entry : seriesEntries("colors", chart)) {
            Optional<Color> color = parsed(entry.value(), Color::parse);
            if (color.isPresent()) {
                chart = chart.color(entry.key().value(), color.get());
            }
        }
        return chart;
    }

    private Labels labels(Mapping mapping) {
        mapping.allowing(List.of(), List.of("show", "format", "at"));
        Labels.Show show = mapping.choice("show", Labels.Show.class).orElse(Labels.Show.VALUE);
        Label.At at = mapping.choice("at", Label.At.class).orElse(Label.At.END);
        return new Labels(show, mapping.text("format").flatMap(text -> parsed(text, Format::new)), at);
    }

    private record Entry(Text key, Text value) {
    }

    private List<Entry> entries(String key) {
        return keys.mapping(key).map(ChartReader::entries).orElse(List.of());
    }

    private static List<Entry> entries(Mapping mapping) {
        List<Entry> entries = new ArrayList<>();
        for (String name : mapping.keys()) {
            mapping.text(name).ifPresent(text -> entries.add(new Entry(new Text(name, mapping.keyPlace(name)), text)));
        }
        return entries;
    }

    private List<Entry> seriesEntries(String key, Chart chart) {
        List<String> known = chart.seriesNames();
        List<Entry> all = keys.mapping(key).map(m -> entries(m.allowing(List.of(), known))).orElse(List.of());
        return all.stream().filter(entry -> known.contains(entry.key().value())).toList();
    }

    private <T> Optional<T> parsed(Text text, Function<String, T> parser) {
        try {
            return Optional.of(parser.apply(text.value()));
        } catch (IllegalArgumentException e) {
            problems.add(text.place(), e.getMessage());
            return Optional.empty();
        }
    }
}
