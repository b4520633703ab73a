package dev.trellisgorge.brief;

import dev.trellisgorge.brief.Mapping.Text;
import dev.trellisgorge.chart.Color;
import dev.trellisgorge.chart.Format;
import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.chart.Looks.Align;
import dev.trellisgorge.chart.Looks.Covered;
import dev.trellisgorge.chart.Looks.Legend;
import dev.trellisgorge.chart.Looks.Purpose;
import dev.trellisgorge.chart.Looks.Reference;
import dev.trellisgorge.chart.Points;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.problem.Problems;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.Supplier;
import java.util.stream.Stream;

/** Reads the keys that say how a chart looks, of a chart or of the theme of all. */
final class LooksReader {
    static final String COLORS = "colors";
    private static final String ALL = "";
    private static final double SMALLEST_TEXT = 6;
    private static final double LARGEST_TEXT = 400;

    private final Mapping keys;
    private final Looks theme;
    private final Problems problems;

    /** @param theme whose colours roles have */
    LooksReader(Mapping keys, Looks theme, Problems problems) {
        this.keys = keys;
        this.theme = theme;
        this.problems = problems;
    }

    /** A theme, which gives roles their colours. */
    static Looks theme(Mapping keys, Problems problems) {
        keys.allowing(LooksSchema.THEME);
        LooksReader theme = new LooksReader(keys, Looks.OWN, problems);
        theme.lineNames().forEach((line, name) -> problems.add(name.place(), ProblemKind.CONFLICT, "a theme says how lines look; 'name' is a key of a chart's 'reference'"));
        return theme.read(List.of("scale"));
    }

    /** @param taken keys that mean something else to the chart's pattern */
    Looks read(List<String> taken) {
        Optional<Covered> scale = taken.contains("scale") ? Optional.empty() : scale();
        return new Looks(keys.choice("legend", Legend.class), axis(), scale, gap(), references(), marker(), sizes(), bold(), keys.choice("title-at", Align.class), palette(), keys.choice("good", Looks.Good.class));
    }

    /** Whether something is drawn. */
    enum Figures {
        NONE, SHOWN
    }

    private Looks.Axis axis() {
        Optional<Mapping> axis = keys.isMapping("axis") ? keys.mapping("axis").map(mapping -> mapping.allowing(LooksSchema.AXIS)) : Optional.empty();
        Optional<Figures> figures = axis.isPresent() ? axis.get().choice("figures", Figures.class) : keys.choice("axis", Figures.class);
        Looks.Axis bare = new Looks.Axis(figures.map(Figures.SHOWN::equals), axis.flatMap(mapping -> mapping.text("title")).map(Text::value).orElse(""),
                axis.flatMap(mapping -> mapping.text("format").flatMap(text -> parsed(mapping, "format", () -> Format.stated(text.value())))), Optional.empty());
        return axis.flatMap(mapping -> mapping.text("dates").flatMap(text -> parsed(mapping, "dates", () -> new Looks.Axis(bare.figures(), bare.title(), bare.format(), Optional.of(text.value()))))).orElse(bare);
    }

    private Optional<Covered> scale() {
        if (!keys.has("scale")) {
            return Optional.empty();
        }
        List<Double> ends = keys.numbers("scale");
        if (keys.isList("scale") && ends.size() != 2) {
            keys.refuse("scale", ProblemKind.INVALID, "takes the two figures that the axis goes from and to: [0, 600]");
        }
        return ends.size() == 2 ? parsed(keys, "scale", () -> new Covered(ends.get(0), ends.get(1))) : Optional.empty();
    }

    private OptionalDouble gap() {
        OptionalDouble gap = keys.number("gap");
        if (gap.isPresent() && !(gap.getAsDouble() >= 0 && gap.getAsDouble() <= 10)) {
            keys.refuse("gap", ProblemKind.INVALID, "is the room between bars as a share of their width, from 0 to 10");
            return OptionalDouble.empty();
        }
        return gap;
    }

    /** One word or mapping for all lines, or one for each by its name. */
    private Map<String, Reference> references() {
        Map<String, Reference> references = new LinkedHashMap<>();
        if (!keys.isMapping("reference")) {
            keys.choice("reference", Figures.class).ifPresent(figures -> references.put(ALL, new Reference(figures == Figures.SHOWN, Optional.empty())));
            return references;
        }
        lines().forEach((line, looks) -> references.put(line, looks.isEmpty() ? new Reference(false, Optional.empty()) : new Reference(true, color(looks.get(), "color"))));
        return references;
    }

    /** The words that lines are called by. */
    Map<String, Text> lineNames() {
        Map<String, Text> names = new LinkedHashMap<>();
        if (keys.isMapping("reference")) {
            lines().forEach((line, looks) -> looks.flatMap(mapping -> mapping.text("name")).ifPresent(name -> names.put(line, name)));
        }
        return names;
    }

    /** What is said of each line; nothing where it is not to be drawn. */
    private Map<String, Optional<Mapping>> lines() {
        Mapping all = keys.mapping("reference").orElseThrow();
        Map<String, Optional<Mapping>> lines = new LinkedHashMap<>();
        if (all.keyList().stream().allMatch(key -> (key.equals("name") || key.equals("color")) && !all.isMapping(key))) {
            lines.put(ALL, Optional.of(all));
            return lines;
        }
        for (String line : all.keys()) {
            if (all.isMapping(line)) {
                lines.put(line, all.mapping(line).map(mapping -> mapping.allowing(LooksSchema.LINE)));
            } else {
                all.choice(line, Figures.class).filter(Figures.NONE::equals).ifPresent(none -> lines.put(line, Optional.empty()));
            }
        }
        return lines;
    }

    private Looks.Marker marker() {
        Optional<Mapping> marker = keys.mapping("marker").map(mapping -> mapping.allowing(LooksSchema.MARKER));
        OptionalDouble size = marker.map(mapping -> mapping.number("size")).orElse(OptionalDouble.empty());
        if (size.isPresent() && !(size.getAsDouble() > 0 && size.getAsDouble() <= 10)) {
            marker.get().refuse("size", ProblemKind.INVALID, "is a share of the usual size, above 0 and at most 10");
            size = OptionalDouble.empty();
        }
        return new Looks.Marker(size, marker.flatMap(mapping -> color(mapping, "color")), marker.flatMap(mapping -> mapping.choice("shape", Points.Shape.class)));
    }

    private Optional<Mapping> text() {
        return keys.mapping("text").map(mapping -> mapping.allowing(LooksSchema.TEXTS));
    }

    private Map<Purpose, Double> sizes() {
        Map<Purpose, Double> sizes = new EnumMap<>(Purpose.class);
        text().ifPresent(mapping -> Stream.of(Purpose.values()).forEach(purpose -> mapping.number(word(purpose)).ifPresent(size -> {
            if (size >= SMALLEST_TEXT && size <= LARGEST_TEXT) {
                sizes.put(purpose, size);
            } else {
                mapping.refuse(word(purpose), ProblemKind.INVALID, "is a size in pixels, from 6 to 400");
            }
        })));
        return sizes;
    }

    private Map<Purpose, Boolean> bold() {
        Map<Purpose, Boolean> bold = new EnumMap<>(Purpose.class);
        if (keys.isMapping("text") && keys.mapping("text").orElseThrow().has("bold")) {
            List<Purpose> strong = keys.mapping("text").orElseThrow().choices("bold", Purpose.class);
            Stream.of(Purpose.values()).forEach(purpose -> bold.put(purpose, strong.contains(purpose)));
        }
        return bold;
    }

    /** The colours of roles, which a theme has. */
    private Map<Role, Color> palette() {
        Map<Role, Color> palette = new EnumMap<>(Role.class);
        keys.mapping(COLORS).ifPresent(colors -> Stream.of(Role.values()).filter(role -> colors.has(role.toString())).forEach(role -> color(colors, role.toString()).ifPresent(color -> palette.put(role, color))));
        return palette;
    }

    private Optional<Color> color(Mapping mapping, String key) {
        return mapping.text(key).flatMap(text -> parsed(mapping, key, () -> Color.parse(text.value(), theme::color)));
    }

    private static <T> Optional<T> parsed(Mapping mapping, String key, Supplier<T> parser) {
        try {
            return Optional.of(parser.get());
        } catch (IllegalArgumentException e) {
            mapping.refuse(key, ProblemKind.INVALID, e.getMessage());
            return Optional.empty();
        }
    }

    static String word(Purpose purpose) {
        return purpose.name().toLowerCase(Locale.ROOT);
    }
}
