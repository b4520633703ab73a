package dev.trellisgorge.drawn;

import dev.trellisgorge.chart.BarGroup;
import dev.trellisgorge.chart.Color;
import dev.trellisgorge.chart.Line;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Panel;
import dev.trellisgorge.chart.Points;
import dev.trellisgorge.chart.ReferenceLine;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.drawn.DrawnPage.Fill;
import dev.trellisgorge.drawn.DrawnPage.Words;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.plan.PlainChart.Extent;
import dev.trellisgorge.table.Column;
import java.awt.geom.Rectangle2D;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * Holds a chart as it is drawn on a page to the chart's own cells: on one scale, which starts where bars do, every bar reaches
 * from where it begins to where it ends, every mark and line stands at its figure, each row in its place and every label beside
 * its own; and nothing is drawn that is not of a cell.
 */
public final class DrawnChart {
    /** About a pixel, in points. */
    private static final double CLOSE = 1;
    /** What is shorter may not be drawn at all. */
    private static final double SEEN = 1.5;
    /** How far the lines of a name go down. */
    private static final double NAMES = 30;

    private final PlainChart chart;
    private final DrawnPage page;
    private final boolean upright;
    private final List<Fill> left;
    private final List<Words> words;
    private final List<String> differences = new ArrayList<>();

    private DrawnChart(PlainChart chart, DrawnPage page) {
        this.chart = chart;
        this.page = page;
        this.upright = chart.orientation() == Orientation.VERTICAL;
        this.left = new ArrayList<>(page.fills());
        this.words = new ArrayList<>(page.words());
    }

    /** What differs, a sentence each. @param chart as it was made, before anything was lowered */
    public static List<String> differences(PlainChart chart, DrawnPage page) {
        DrawnChart drawn = new DrawnChart(chart.withoutEmptySeries(), page);
        drawn.chart.panels().forEach(drawn::panel);
        return drawn.differences;
    }

    /** A bar, from where to where on the value axis. */
    private record Bar(Series series, int row, double start, double end, Optional<Color> color) {
    }

    /** A place on the value axis that a figure has. */
    private record Scale(double zero, double unit) {
        double at(double figure) {
            return zero + unit * figure;
        }
    }

    private List<Bar> bars(Panel panel) {
        Extent extent = chart.extent(panel);
        List<Bar> bars = new ArrayList<>();
        for (BarGroup group : panel.bars()) {
            for (PlainChart.Bar bar : chart.bars(group)) {
                double start = extent.held(bar.start());
                double end = extent.held(bar.end());
                if ((bar.series().fill().isPresent() || bar.series().outline().isPresent()) && start != end) {
                    bars.add(new Bar(bar.series(), bar.row(), start, end, bar.series().fill()));
                }
            }
        }
        return bars;
    }

    private double low(Rectangle2D box) {
        return upright ? -box.getMaxY() : box.getMinX();
    }

    private double high(Rectangle2D box) {
        return upright ? -box.getMinY() : box.getMaxX();
    }

    private double across(Rectangle2D box) {
        return upright ? box.getCenterX() : box.getCenterY();
    }

    private double thick(Rectangle2D box) {
        return upright ? box.getWidth() : box.getHeight();
    }

    private List<Fill> boxes(Bar bar) {
        Optional<Color> outline = bar.series().outline();
        return bar.color().isPresent() ? left.stream().filter(fill -> fill.color().isEmpty() || fill.color().equals(bar.color())).toList()
                : page.frames().stream().filter(frame -> frame.color().equals(outline)).toList();
    }

    private void panel(Panel panel) {
        List<Bar> bars = bars(panel);
        Optional<Bar> longest = bars.stream().filter(bar -> bar.color().isPresent()).max(Comparator.comparingDouble(bar -> Math.abs(bar.end() - bar.start())));
        if (longest.isEmpty()) {
            return;
        }
        // Each box that the longest bar may be gives a scale; the right one is that on which most is in its place.
        Match best = null;
        for (Fill box : boxes(longest.get())) {
            boolean backwards = panel.scale().backwards();
            double from = Math.min(longest.get().start(), longest.get().end());
            double to = Math.max(longest.get().start(), longest.get().end());
            double unit = (high(box.box()) - low(box.box())) / (to - from) * (backwards ? -1 : 1);
            if (Math.abs(unit) * (to - from) < SEEN) {
                continue;
            }
            Match match = match(bars, new Scale((backwards ? high(box.box()) : low(box.box())) - unit * from, unit));
            if (best == null || match.missing.size() < best.missing.size()) {
                best = match;
            }
        }
        if (best == null) {
            differences.add("no bar is as '" + longest.get().series().name() + "'");
            return;
        }
        for (Bar bar : best.missing) {
            differences.add(chart.categoryText(bar.row()) + ": no bar of '" + bar.series().name() + "' from " + bar.start() + " to " + bar.end());
        }
        left.removeAll(best.found.values());
        if (!best.found.isEmpty()) {
            rows(panel, best);
        }
    }

    private static final class Match {
        private final Scale scale;
        private final Map<Bar, Fill> found = new IdentityHashMap<>();
        private final List<Bar> missing = new ArrayList<>();

        Match(Scale scale) {
            this.scale = scale;
        }
    }

    private Match match(List<Bar> bars, Scale scale) {
        Match match = new Match(scale);
        Set<Fill> taken = Collections.newSetFromMap(new IdentityHashMap<>());
        Map<Integer, Double> rows = new TreeMap<>();
        List<Bar> byLength = bars.stream().sorted(Comparator.comparingDouble((Bar bar) -> -Math.abs(bar.end() - bar.start()))).toList();
        for (Bar bar : byLength) {
            double from = Math.min(scale.at(bar.start()), scale.at(bar.end()));
            double to = Math.max(scale.at(bar.start()), scale.at(bar.end()));
            if (to - from < SEEN) {
                continue;
            }
            List<Fill> there = boxes(bar).stream().filter(fill -> !taken.contains(fill) && Math.abs(low(fill.box()) - from) <= CLOSE && Math.abs(high(fill.box()) - to) <= CLOSE).toList();
            Double row = rows.get(bar.row());
            Optional<Fill> box = row != null ? there.stream().filter(fill -> Math.abs(across(fill.box()) - row) <= CLOSE).findFirst()
                    : there.stream().filter(fill -> rows.entrySet().stream().allMatch(other -> (across(fill.box()) - other.getValue()) * (bar.row() - other.getKey()) > 0)).findFirst();
            if (box.isEmpty()) {
                match.missing.add(bar);
            } else {
                match.found.put(bar, box.get());
                taken.add(box.get());
                rows.put(bar.row(), across(box.get().box()));
            }
        }
        return match;
    }

    /** The rows stand at even steps; what is between them is held to them. */
    private void rows(Panel panel, Match match) {
        TreeMap<Integer, Double> seen = new TreeMap<>();
        match.found.forEach((bar, fill) -> seen.put(bar.row(), across(fill.box())));
        double widest = match.found.values().stream().mapToDouble(fill -> thick(fill.box())).max().orElse(0);
        double step;
        double first;
        if (seen.size() > 1) {
            step = (seen.lastEntry().getValue() - seen.firstEntry().getValue()) / (seen.lastKey() - seen.firstKey());
            first = seen.firstEntry().getValue() - step * seen.firstKey();
        } else {
            step = chart.data().rowCount() == 1 ? widest * 1.2 : Double.NaN;
            first = seen.firstEntry().getValue();
        }
        seen.forEach((row, at) -> {
            if (Math.abs(first + step * row - at) > CLOSE) {
                differences.add(chart.categoryText(row) + " doesn't stand in its place");
            }
        });
        base(panel, match.scale);
        if (Double.isNaN(step)) {
            return; // one bar of several rows says nothing of where the others are
        } else if (step < widest - CLOSE) {
            differences.add("bars of different rows lie over each other, " + step + " from middle to middle and " + widest + " wide");
            return;
        }
        panel.references().stream().filter(line -> !Double.isNaN(chart.level(line))).forEach(line -> reference(line, match.scale, first, step));
        panel.points().forEach(points -> points(points, match.scale, first, step));
        panel.lines().stream().filter(line -> !line.guide()).forEach(line -> line(line, match.scale, first, step));
        extras(match);
        labels(panel, first, step);
        words.stream().filter(some -> match.found.values().stream().anyMatch(bar -> bar.box().contains(some.box()))).forEach(some -> differences.add("'" + some.text() + "' stands on a bar, and no cell says so"));
    }

    /** The base line stands where bars start. */
    private void base(Panel panel, Scale scale) {
        double base = scale.at(chart.extent(panel).base());
        if (marks(Optional.empty()).noneMatch(box -> thin(box) && Math.abs((low(box) + high(box)) / 2 - base) <= CLOSE && thick(box) > 10)) {
            differences.add("no base line where bars start");
        }
    }

    private boolean thin(Rectangle2D box) {
        return high(box) - low(box) < 4;
    }

    private Stream<Rectangle2D> marks(Optional<Color> color) {
        return Stream.concat(page.lines().stream().filter(line -> color.isEmpty() || line.color().equals(color.get())).map(DrawnPage.Line::box),
                page.fills().stream().filter(fill -> color.isEmpty() || fill.color().isEmpty() || fill.color().equals(color)).map(Fill::box));
    }

    private void reference(ReferenceLine line, Scale scale, double first, double step) {
        double level = scale.at(chart.level(line));
        double last = first + step * (chart.data().rowCount() - 1);
        List<Rectangle2D> pieces = marks(Optional.of(line.color().orElse(Role.INK.color()))).filter(box -> thin(box) && Math.abs((low(box) + high(box)) / 2 - level) <= CLOSE).toList();
        double from = pieces.stream().mapToDouble(box -> across(box) - thick(box) / 2).min().orElse(Double.NaN);
        double to = pieces.stream().mapToDouble(box -> across(box) + thick(box) / 2).max().orElse(Double.NaN);
        if (pieces.isEmpty()) {
            differences.add("no line of '" + line.name() + "' at " + chart.level(line));
        } else if (from > Math.min(first, last) + step * 0.1 || to < Math.max(first, last) - step * 0.1) {
            differences.add("the line of '" + line.name() + "' is too short");
        }
    }

    private void points(Points points, Scale scale, double first, double step) {
        Column cells = chart.data().column(points.series().column());
        for (int row = 0; row < cells.size(); row++) {
            if (cells.isPresent(row)) {
                double at = scale.at(cells.number(row));
                double middle = first + step * row;
                if (marks(points.series().fill()).noneMatch(box -> high(box) - low(box) < 25 && isAt(box, at) && Math.abs(across(box) - middle) <= CLOSE)) {
                    differences.add(chart.categoryText(row) + ": no point of '" + points.series().name() + "' at " + cells.number(row));
                }
            }
        }
    }

    /** A mark stands on its figure; at the base it may begin there. */
    private boolean isAt(Rectangle2D box, double at) {
        return Math.abs((low(box) + high(box)) / 2 - at) <= CLOSE || thin(box) && (Math.abs(low(box) - at) <= CLOSE / 2 || Math.abs(high(box) - at) <= CLOSE / 2);
    }

    private void line(Line line, Scale scale, double first, double step) {
        Column cells = chart.data().column(line.series().column());
        for (int row = 0; row + 1 < cells.size(); row++) {
            if (cells.isPresent(row) && cells.isPresent(row + 1)) {
                double level = (scale.at(cells.number(row)) + scale.at(cells.number(row + 1))) / 2;
                double middle = first + step * (row + 0.5);
                if (marks(line.series().fill()).noneMatch(box -> level >= low(box) - CLOSE && level <= high(box) + CLOSE && Math.abs(across(box) - middle) <= step * 0.5 + CLOSE)) {
                    differences.add(chart.categoryText(row) + ": no line of '" + line.series().name() + "' to the next");
                }
            }
        }
    }

    /** Nothing in the colour of a bar is there beside them. */
    private void extras(Match match) {
        Rectangle2D all = match.found.values().stream().map(Fill::box).reduce(Rectangle2D::createUnion).orElseThrow();
        Set<Color> colors = match.found.keySet().stream().flatMap(bar -> bar.color().stream()).collect(Collectors.toSet());
        double half = match.found.values().stream().mapToDouble(fill -> thick(fill.box())).max().orElse(0) / 2;
        left.stream().filter(fill -> fill.color().filter(colors::contains).isPresent() && all.intersects(fill.box()) && thick(fill.box()) > half && high(fill.box()) - low(fill.box()) > 2 * SEEN)
                .filter(fill -> chart.panels().stream().flatMap(panel -> panel.points().stream()).noneMatch(points -> points.series().fill().equals(fill.color())))
                .filter(fill -> match.found.values().stream().noneMatch(bar -> bar.color().equals(fill.color()) && bar.box().contains(fill.box()))) // the ground of a label, in the bar's colour
                .forEach(fill -> differences.add("a bar is drawn that no cell is: " + fill));
    }

    private void labels(Panel panel, double first, double step) {
        Map<Integer, List<String>> wanted = new TreeMap<>();
        for (Series series : panel.series()) {
            for (var label : series.labels()) {
                for (int row = 0; row < chart.data().rowCount(); row++) {
                    String text = chart.labelText(series.column(), label, row);
                    if (!text.isEmpty()) {
                        wanted.computeIfAbsent(row, any -> new ArrayList<>()).add(text);
                    }
                }
            }
        }
        wanted.forEach((row, texts) -> {
            double middle = first + step * row;
            for (String text : texts) {
                Optional<Words> there = words.stream().filter(some -> plain(some.text()).equals(plain(text)) && Math.abs(across(some.box()) - middle) <= step * 0.55).findFirst();
                there.ifPresent(words::remove);
                if (there.isEmpty() && !afterName(row, middle, step).contains(plain(text))) {
                    differences.add(chart.categoryText(row) + ": no label '" + text + "'");
                }
            }
        });
    }

    /** The labels that stand after the name of a row, however that is broken into lines. */
    private List<String> afterName(int row, double middle, double step) {
        double base = page.words().stream().filter(some -> Math.abs(across(some.box()) - middle) <= step * 0.5 && plain(chart.categoryText(row)).startsWith(plain(some.text().split(" ")[0]))).mapToDouble(some -> some.box().getMaxY()).max().orElse(0);
        String whole = plain(page.words().stream().filter(some -> Math.abs(across(some.box()) - middle) <= step * 0.5 && thick(some.box()) <= step && some.box().getMaxY() <= base + NAMES).sorted(Comparator.comparingLong((Words some) -> Math.round(some.box().getMaxY() / 2)).thenComparing(some -> some.box().getX())).map(Words::text).collect(Collectors.joining()));
        int name = whole.indexOf(plain(chart.categoryText(row)));
        return name < 0 ? List.of() : List.of(whole.substring(name + plain(chart.categoryText(row)).length()).split("\u00b7"));
    }

    private static String plain(String text) {
        return text.replaceAll("[\\s\\u00a0\\u202f]+", "").replace('\u2212', '-').toLowerCase(Locale.ROOT);
    }
}
