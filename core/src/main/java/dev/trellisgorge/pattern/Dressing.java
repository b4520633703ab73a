package dev.trellisgorge.pattern;

import dev.trellisgorge.chart.Drawing;
import dev.trellisgorge.chart.Format;
import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.chart.Panel;
import dev.trellisgorge.chart.Panels;
import dev.trellisgorge.chart.Points;
import dev.trellisgorge.chart.ReferenceLine;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.chart.TextCells;
import dev.trellisgorge.chart.ValueAxis;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.problem.Problems;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;

/** Gives a pattern's drawing the looks that a user asks for, and refuses what has no effect on it. */
final class Dressing {
    private static final String ALL = "";
    private static final Set<Role> JUDGING = Set.of(Role.GOOD, Role.BAD);

    private final Chart chart;
    private final Pattern pattern;
    private final Looks own;
    private final Looks looks;
    private final Wording wording;
    private final Problems problems = new Problems();

    /** @param looks the chart's own, over its theme */
    Dressing(Chart chart, Pattern pattern, Looks looks, Wording wording) {
        this.wording = wording;
        this.chart = chart;
        this.pattern = pattern;
        this.own = chart.looks();
        this.looks = looks;
    }

    Drawing dressed(Drawing bare) {
        if (own.good().isPresent() && bare.series().stream().noneMatch(series -> JUDGING.contains(series.role()))) {
            refuse("good", "nothing here is coloured by whether it is good");
        }
        Drawing drawing = bare instanceof Panels panels ? panels(panels) : unplotted(bare);
        problems.throwIfAny();
        return legend(drawing);
    }

    private void refuse(String key, String why) {
        problems.add(Place.of("chart '" + chart.name() + "'"), ProblemKind.CONFLICT, "'" + key + "' has no effect here: " + why);
    }

    private Drawing unplotted(Drawing drawing) {
        String why = "a chart of the pattern '" + pattern.type().name() + "' has no axis of figures";
        if (own.axis().isAsked() || own.axis().format().isPresent()) {
            refuse("axis", why);
        }
        own.scale().ifPresent(scale -> refuse("scale", why));
        own.gap().ifPresent(gap -> refuse("gap", why));
        if (!own.references().isEmpty()) {
            refuse("reference", why);
        }
        markers(List.of());
        return drawing;
    }

    private void markers(List<Points> points) {
        if (points.isEmpty() && !own.marker().equals(Looks.OWN.marker())) {
            refuse("marker", "no points are drawn");
        }
    }

    /** Where a legend is asked for and nothing would be named, every series is. */
    private Drawing legend(Drawing drawing) {
        boolean asked = own.legend().filter(place -> place != Looks.Legend.NONE).isPresent();
        if (looks.legend().equals(Optional.of(Looks.Legend.NONE))) {
            return drawing.each(series -> series.inLegend(false));
        }
        if (asked && drawing instanceof TextCells && drawing.series().stream().noneMatch(Series::inLegend)) {
            refuse("legend", "there is nothing to tell apart");
            problems.throwIfAny();
        }
        return asked && drawing.series().stream().noneMatch(Series::inLegend) ? drawing.each(series -> series.inLegend(series.fill().isPresent())) : drawing;
    }

    private Panels panels(Panels bare) {
        OptionalInt scaled = pattern.scaled(bare.panels().size());
        if (scaled.isEmpty()) {
            own.scale().ifPresent(scale -> refuse("scale", "its panes have one scale"));
        }
        if (bare.panels().stream().allMatch(panel -> panel.bars().isEmpty())) {
            own.gap().ifPresent(gap -> refuse("gap", "no bars are drawn"));
        }
        List<String> lines = bare.panels().stream().flatMap(panel -> panel.references().stream()).map(ReferenceLine::name).toList();
        references(lines);
        markers(bare.panels().stream().flatMap(panel -> panel.points().stream()).toList());
        List<Panel> dressed = new ArrayList<>();
        for (int i = 0; i < bare.panels().size(); i++) {
            boolean main = scaled.isPresent() ? scaled.getAsInt() == i : i == bare.panels().size() - 1;
            dressed.add(panel(bare.panels().get(i), main, scaled.isPresent() && main));
        }
        return new Panels(dressed, bare.categoriesShown());
    }

    private Words name(String line) {
        return chart.lineNames().getOrDefault(line, chart.lineNames().get(ALL));
    }

    private void references(List<String> lines) {
        chart.lineNames().keySet().stream().filter(name -> !name.equals(ALL) && !lines.contains(name) && !own.references().containsKey(name))
                .forEach(name -> refuse("reference", "there is no line '" + name + "'. " + Nearest.hint(name, lines)));
        if (!own.references().isEmpty() && lines.isEmpty()) {
            refuse("reference", "no reference line is drawn");
            return;
        }
        own.references().keySet().stream().filter(name -> !name.equals(ALL) && !lines.contains(name))
                .forEach(name -> refuse("reference", "there is no line '" + name + "'. " + Nearest.hint(name, lines)));
    }

    private Panel panel(Panel bare, boolean main, boolean scaled) {
        Panel panel = bare;
        if (looks.gap().isPresent()) {
            panel = panel.bars(panel.bars().stream().map(group -> group.gap(looks.gap().getAsDouble())).toList());
        }
        if (scaled && looks.scale().isPresent()) {
            panel = panel.scale(panel.scale().covering(looks.scale().get()));
        }
        panel = panel.references(panel.references().stream().flatMap(line -> dressed(line).stream()).toList());
        panel = panel.points(panel.points().stream().map(this::dressed).toList());
        boolean figures = looks.axis().figures().orElse(panel.valueAxisShown());
        return panel.axis(new ValueAxis(figures, main ? looks.axis().title() : "", looks.axis().format().orElse(Format.FITTING).in(chart.locale())));
    }

    private Optional<ReferenceLine> dressed(ReferenceLine line) {
        Looks.Reference asked = looks.references().getOrDefault(line.name(), looks.references().get(ALL));
        if (asked != null && !asked.shown()) {
            return Optional.empty();
        }
        Words words = name(line.name());
        return Optional.of(new ReferenceLine(words == null || words.said().isEmpty() ? line.name() : words.said(), line.at(), asked == null ? line.color() : asked.color().or(line::color),
                words == null ? Optional.empty() : wording.column(words, "name of the line")));
    }

    private Points dressed(Points points) {
        Looks.Marker asked = looks.marker();
        Series series = asked.color().isPresent() ? points.series().filled(asked.color()) : points.series();
        return new Points(series, asked.shape().orElse(points.shape()), asked.size().orElse(points.size()));
    }
}
