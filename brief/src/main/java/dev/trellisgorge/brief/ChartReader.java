package dev.trellisgorge.brief;

import dev.trellisgorge.brief.Mapping.Text;
import dev.trellisgorge.chart.Color;
import dev.trellisgorge.chart.Format;
import dev.trellisgorge.chart.Label;
import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.pattern.Beside;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Key;
import dev.trellisgorge.pattern.Labels;
import dev.trellisgorge.pattern.Pattern;
import dev.trellisgorge.pattern.PatternType;
import dev.trellisgorge.pattern.Patterns;
import dev.trellisgorge.pattern.Ranking;
import dev.trellisgorge.pattern.Words;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.shape.Cut;
import dev.trellisgorge.shape.Rank.Way;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.Function;
import java.util.stream.Stream;

/** Reads one chart of a brief. */
final class ChartReader {
    private final Mapping keys;
    private final Expressions expressions;
    private final Expressions raw;
    private final Locale locale;
    private final Looks theme;
    private final Problems problems;

    ChartReader(Mapping keys, Expressions expressions, Expressions raw, Locale locale, Looks theme, Problems problems) {
        this.keys = keys;
        this.expressions = expressions;
        this.raw = raw;
        this.locale = locale;
        this.theme = theme;
        this.problems = problems;
    }

    /** The chart; empty where its pattern is unknown, or something that it can't be without is missing or wrong: that is reported. */
    Optional<Chart> read() {
        Optional<PatternType> type = type();
        if (type.isEmpty()) {
            return Optional.empty();
        }
        keys.allowing(ChartSchema.keys(type.get()));
        Pattern pattern = type.get().maker().apply(new GivenKeys(keys, type.get().allKeys(), expressions));
        if (!type.get().categories()) {
            return Optional.of(looks(Chart.of(pattern)));
        }
        return keys.text("category").flatMap(expressions::column).map(category -> looks(Chart.of(category, pattern)));
    }

    private Optional<PatternType> type() {
        if (!keys.has("pattern")) {
            keys.allowing(List.of("pattern"), keys.keyList());
        }
        return keys.text("pattern").flatMap(name -> {
            Optional<PatternType> type = Patterns.find(name.value());
            if (type.isEmpty()) {
                problems.add(name.place(), ProblemKind.UNKNOWN_NAME, "there is no pattern '" + name.value() + "'. " + Nearest.hint(name.value(), Patterns.names()));
            }
            return type;
        });
    }

    private Chart looks(Chart bare) {
        LooksReader looks = new LooksReader(keys, theme, problems);
        Chart chart = dressed(bare, looks).title(words("title")).subtitle(words("subtitle")).locale(locale)
                .labels(labels().toArray(Labels[]::new));
        Optional<Orientation> orientation = keys.choice("orientation", Orientation.class);
        if (orientation.isPresent()) {
            chart = chart.orientation(orientation.get());
        }
        Optional<Ranking> ranking = keys.mapping("rank").flatMap(this::ranking);
        if (ranking.isPresent()) {
            chart = chart.rank(ranking.get());
        }
        chart = chart.beside(beside().toArray(Beside[]::new));
        chart = keys.has("in-cells") && keys.truth("in-cells") ? chart.inCells() : chart;
        SliceReader slice = keys.mapping("slice").map(cuts -> SliceReader.read(cuts, expressions, raw)).orElse(SliceReader.NONE);
        for (Map.Entry<String, Cut> cut : slice.cuts().entrySet()) {
            chart = chart.slice(cut.getKey(), cut.getValue());
        }
        chart = slice.onRaw() ? chart.sliceOnRaw() : chart;
        for (Entry entry : seriesEntries("names", chart)) {
            chart = chart.name(entry.key().value(), entry.value().value());
        }
        for (Entry entry : seriesEntries("colors", chart)) {
            Optional<Color> color = parsed(entry.value(), text -> Color.parse(text, theme::color));
            if (color.isPresent()) {
                chart = chart.color(entry.key().value(), color.get());
            }
        }
        return chart;
    }

    private Chart dressed(Chart bare, LooksReader looks) {
        Chart chart = bare.looks(looks.read(bare.pattern().type().keys().stream().map(Key::name).toList())).theme(theme);
        for (Map.Entry<String, Text> line : looks.lineNames().entrySet()) {
            chart = chart.lineName(line.getKey(), WordsReader.read(line.getValue(), expressions, raw, problems));
        }
        return chart;
    }

    private Words words(String key) {
        return keys.text(key).map(line -> WordsReader.read(line, expressions, raw, problems)).orElse(Words.NONE);
    }

    private Optional<Ranking> ranking(Mapping mapping) {
        mapping.allowing(ChartSchema.RANK);
        Way order = mapping.choice("order", Way.class).orElse(Way.DESCENDING);
        OptionalInt top = mapping.count("top");
        if (mapping.has("top") && top.isEmpty()) {
            return Optional.empty();
        }
        if (mapping.has("rest") && top.isEmpty()) {
            mapping.refuse("rest", ProblemKind.CONFLICT, "names what 'top' leaves over, and there is no 'top'");
        }
        if (!mapping.has("by") && order != Way.TABLE) {
            mapping.allowing(List.of("by"), mapping.keyList());
            return Optional.empty();
        }
        Formula by = mapping.text("by").flatMap(expressions::read).orElse(Formulas.rowNumber());
        return Optional.of(new Ranking(by, order, top, mapping.text("rest").map(Text::value)));
    }

    private List<Beside> beside() {
        if (keys.has("beside") && keys.isList("beside") && keys.isEmpty("beside")) {
            keys.refuse("beside", ProblemKind.MISSING, "the list has no figure");
        }
        return keys.each("beside", figure -> expressions.read(figure).map(formula -> new Beside(formula, Optional.empty(), Optional.empty())), this::beside);
    }

    private Optional<Beside> beside(Mapping mapping) {
        mapping.allowing(ChartSchema.FIGURE_COLUMN);
        Optional<Format> format = mapping.text("format").flatMap(text -> parsed(text, Format::stated));
        return mapping.text("figure").flatMap(expressions::read).map(formula -> new Beside(formula, mapping.text("name").map(Text::value), format));
    }

    private List<Labels> labels() {
        if (!keys.isList("labels")) {
            return keys.mapping("labels").map(mapping -> List.of(labels(mapping))).orElse(List.of(Labels.VALUE));
        }
        if (keys.isEmpty("labels")) {
            keys.refuse("labels", ProblemKind.MISSING, "the list has no label; write show: none for a chart without");
        }
        return keys.mappings("labels").stream().map(this::labels).toList();
    }

    private Labels labels(Mapping mapping) {
        mapping.allowing(ChartSchema.LABELS);
        List<String> on = (mapping.isList("on") ? mapping.texts("on") : mapping.text("on").stream().toList()).stream().map(Text::value).toList();
        Labels labels = mapping.text("show").map(this::shown).orElse(Labels.VALUE);
        if (labels.equals(Labels.NONE)) {
            mapping.keyList().stream().filter(key -> !key.equals("show")).forEach(key -> mapping.refuse(key, ProblemKind.CONFLICT, "says nothing where no label is shown"));
        }
        return new Labels(on, labels.show(), labels.expression(), mapping.text("format").flatMap(text -> parsed(text, Format::new)), mapping.choice("at", Label.At.class), mapping.truth("name"));
    }

    private Labels shown(Text show) {
        return Stream.of(Labels.Show.values()).filter(s -> s != Labels.Show.EXPRESSION && s.name().toLowerCase(Locale.ROOT).equals(show.value()))
                .findFirst().map(Labels::of).orElseGet(() -> expressions.read(show).map(Labels::of).orElse(Labels.VALUE));
    }

    private record Entry(Text key, Text value) {
    }

    private static List<Entry> entries(Mapping mapping) {
        List<Entry> entries = new ArrayList<>();
        for (String name : mapping.keys()) {
            mapping.text(name).ifPresent(text -> entries.add(new Entry(new Text(name, mapping.keyPlace(name)), text)));
        }
        return entries;
    }

    private List<Entry> seriesEntries(String key, Chart chart) {
        List<String> known = Mapping.both(chart.seriesNames(), List.copyOf(chart.pattern().groups().keySet()));
        List<Entry> all = keys.mapping(key).map(m -> entries(m.allowing(List.of(), known))).orElse(List.of());
        return all.stream().filter(entry -> known.contains(entry.key().value())).toList();
    }

    private <T> Optional<T> parsed(Text text, Function<String, T> parser) {
        try {
            return Optional.of(parser.apply(text.value()));
        } catch (IllegalArgumentException e) {
            problems.add(text.place(), ProblemKind.INVALID, e.getMessage());
            return Optional.empty();
        }
    }
}
