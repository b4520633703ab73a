package dev.trellisgorge.engine.text;

import dev.trellisgorge.chart.BarGroup;
import dev.trellisgorge.chart.FigureColumn;
import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.chart.Panel;
import dev.trellisgorge.chart.Panels;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.chart.Points;
import dev.trellisgorge.chart.Ring;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.chart.TextCells;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.DisplayWidth;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/** The lines of one chart: titles, what the glyphs say, then a line a category with its name, its bars and its figures. */
final class TextChart {
    private static final int EIGHTHS = 8;
    private static final int LEAST_BARS = 10;
    private static final double MOST_FOR_NAMES = 0.35;
    /** Over figures beside the names. */
    private static final int WIDEST_HEADING = 14;
    private static final String GAP = "  ";
    private static final String KEY_GAP = "   ";
    private static final List<String> DOTS = List.of("\u25CF", "\u25CB", "\u25C6", "\u25C7", "\u25B2", "\u25B3");
    private static final String DASH = "\u2503";
    /** At the end of a bar that goes on past the scale. */
    private static final String CUT = "\u00BB";
    private static final String REFERENCE = "\u2506";

    private final PlainChart chart;
    private final int wide;
    private final Palette palette;
    private final List<Points> points;
    private final List<Series> pointers;
    private final Glyphs glyphs;
    private final List<String> names;
    private final int nameWidth;
    private final List<FigureColumn> beside;
    private final Map<FigureColumn, Integer> besideWidths = new HashMap<>();

    TextChart(PlainChart chart, int wide, Palette palette) {
        this.chart = chart;
        this.wide = wide;
        this.palette = palette;
        this.points = chart.panels().stream().flatMap(panel -> panel.points().stream()).toList();
        this.pointers = chart.drawing() instanceof Ring ring ? ring.tracks().stream().skip(1).flatMap(List::stream).toList() : List.of();
        List<Series> marked = Stream.concat(pointers.stream(), points.stream().map(Points::series)).toList();
        this.glyphs = new Glyphs(chart.series().stream().filter(series -> !marked.contains(series)).toList());
        boolean named = chart.plan().category().isPresent();
        int most = (int) (wide * MOST_FOR_NAMES);
        this.names = IntStream.range(0, chart.data().rowCount()).mapToObj(row -> named ? cut(chart.categoryText(row), most) : "").toList();
        this.nameWidth = names.stream().mapToInt(DisplayWidth::of).max().orElse(0);
        this.beside = chart.beside();
    }

    /** What stands before the bars: the name and the figures beside it. */
    private String before(int row) {
        StringBuilder line = new StringBuilder(padded(names.get(row), nameWidth, false));
        beside.forEach(column -> line.append(' ').append(padded(chart.besideText(column, row), width(column), true)));
        return line.toString();
    }

    /** The names over the figures beside the names, as wide as what stands before the bars. */
    private String headed() {
        StringBuilder line = new StringBuilder(" ".repeat(nameWidth));
        beside.forEach(column -> line.append(' ').append(padded(cut(column.name(), width(column)), width(column), true)));
        return line.toString();
    }

    private int width(FigureColumn column) {
        return besideWidths.computeIfAbsent(column, this::widest);
    }

    private int widest(FigureColumn column) {
        int widest = IntStream.range(0, chart.data().rowCount()).map(row -> DisplayWidth.of(chart.besideText(column, row))).max().orElse(0);
        return Math.max(widest, Math.min(WIDEST_HEADING, DisplayWidth.of(column.name())));
    }

    private int beforeWidth() {
        return nameWidth + beside.stream().mapToInt(column -> 1 + width(column)).sum();
    }

    /** A text that is no wider than this; what is left out is marked. */
    private static String cut(String text, int most) {
        if (DisplayWidth.of(text) <= most) {
            return text;
        }
        StringBuilder kept = new StringBuilder();
        for (int at = 0; at < text.length();) {
            int next = text.offsetByCodePoints(at, 1);
            if (DisplayWidth.of(kept + text.substring(at, next)) >= most) {
                break;
            }
            kept.append(text, at, next);
            at = next;
        }
        return kept + "\u2026";
    }

    List<String> lines() {
        List<String> lines = new ArrayList<>();
        chart.stamp().ifPresent(words -> lines.add(palette.strong("*** " + words + " ***")));
        if (!chart.title().isEmpty()) {
            lines.add(palette.strong(chart.title()));
        }
        if (!chart.subtitle().isEmpty()) {
            lines.add(chart.subtitle());
        }
        boolean below = chart.looks().legend().equals(Optional.of(Looks.Legend.BOTTOM));
        lines.addAll(below ? List.of() : key());
        chart.drawing().match(panels -> panels(panels, lines), ring -> ring(ring, lines), texts -> texts(texts, lines));
        lines.addAll(below ? key() : List.of());
        return lines.stream().map(String::stripTrailing).toList();
    }

    /** What each glyph or colour says, on as many lines as it takes. */
    private List<String> key() {
        Map<String, String> signs = new LinkedHashMap<>();
        boolean ring = chart.drawing() instanceof Ring;
        boolean asked = chart.looks().legend().isPresent();
        if (chart.looks().legend().equals(Optional.of(Looks.Legend.NONE)) || chart.drawing() instanceof TextCells && !asked) {
            return List.of();
        }
        Map<Series, String> marks = new LinkedHashMap<>();
        points.forEach(some -> marks.put(some.series(), sign(some)));
        pointers.forEach(pointer -> marks.put(pointer, DASH));
        for (Series series : chart.series()) {
            if (series.fill().isPresent() && (series.inLegend() || ring || marks.containsKey(series))) {
                signs.putIfAbsent(series.name(), marks.containsKey(series) ? palette.painted(marks.get(series), series.fill().get(), null) : glyph(series));
            }
        }
        chart.panels().forEach(panel -> panel.references().forEach(line -> signs.put(chart.words(line, panel), REFERENCE)));
        List<String> lines = new ArrayList<>();
        int at = wide;
        for (Map.Entry<String, String> sign : signs.entrySet()) {
            String words = sign.getValue() + " " + cut(sign.getKey(), wide - 2);
            int room = DisplayWidth.of(sign.getKey()) + 2;
            if (at + KEY_GAP.length() + room > wide) {
                lines.add(words);
                at = room;
            } else {
                lines.set(lines.size() - 1, lines.get(lines.size() - 1) + KEY_GAP + words);
                at += KEY_GAP.length() + room;
            }
        }
        return lines;
    }

    private String glyph(Series series) {
        return palette.painted(palette == Palette.NONE ? String.valueOf(glyphs.of(series)) : String.valueOf(Glyphs.FULL), series.fill().orElse(null), null);
    }

    private String sign(Points some) {
        return some.shape() == Points.Shape.DASH ? DASH : DOTS.get(points.indexOf(some) % DOTS.size());
    }

    private void panels(Panels panels, List<String> lines) {
        List<Fields> figures = panels.panels().stream().map(panel -> new Fields(chart, panel.series())).toList();
        int[] figureWidths = figures.stream().mapToInt(Fields::width).toArray();
        int left = wide - beforeWidth() - IntStream.of(figureWidths).sum() - (nameWidth > 0 ? 1 : 0) - GAP.length() * (panels.panels().size() - 1)
                - panels.panels().size();
        double shares = panels.panels().stream().mapToDouble(Panel::share).sum();
        List<Scaled> scaled = panels.panels().stream().map(panel -> new Scaled(panel, Math.max(LEAST_BARS, (int) (left * panel.share() / shares)))).toList();
        axisTitles(scaled, figures).ifPresent(lines::add);
        heading(scaled, figures).ifPresent(lines::add);
        for (int row = 0; row < chart.data().rowCount(); row++) {
            StringBuilder line = new StringBuilder(before(row));
            for (int i = 0; i < scaled.size(); i++) {
                line.append(i == 0 && nameWidth > 0 ? " " : i == 0 ? "" : GAP).append(scaled.get(i).strip(row).text());
                for (int column = 0; column < figures.get(i).count(); column++) {
                    line.append(' ').append(padded(figures.get(i).text(column, row), figures.get(i).width(column), true));
                }
            }
            lines.add(line.toString());
        }
    }

    /** What the axes are of, each above its panel. */
    private Optional<String> axisTitles(List<Scaled> scaled, List<Fields> figures) {
        StringBuilder line = new StringBuilder(" ".repeat(beforeWidth()));
        for (int i = 0; i < scaled.size(); i++) {
            String title = scaled.get(i).axisWords();
            int room = scaled.get(i).width() + figures.get(i).width();
            line.append(i == 0 && nameWidth > 0 ? " " : i == 0 ? "" : GAP).append(padded(cut(title, Math.max(1, room)), room, false));
        }
        return Optional.of(line.toString()).filter(text -> !text.isBlank());
    }

    /** The names over the figures, where a row has several. */
    private Optional<String> heading(List<Scaled> scaled, List<Fields> figures) {
        if (figures.stream().noneMatch(fields -> fields.count() > 1) && beside.isEmpty()) {
            return Optional.empty();
        }
        StringBuilder line = new StringBuilder(headed());
        for (int i = 0; i < scaled.size(); i++) {
            line.append(i == 0 && nameWidth > 0 ? " " : i == 0 ? "" : GAP).append(" ".repeat(scaled.get(i).width()));
            for (int column = 0; column < figures.get(i).count(); column++) {
                String title = figures.get(i).count() > 1 ? figures.get(i).title(column) : "";
                line.append(' ').append(padded(title, figures.get(i).width(column), true));
            }
        }
        return Optional.of(line.toString()).filter(text -> !text.isBlank());
    }

    private static String padded(String text, int width, boolean atEnd) {
        String blanks = " ".repeat(Math.max(0, width - DisplayWidth.of(text)));
        return atEnd ? blanks + text : text + blanks;
    }

    /** A panel with its scale: how many characters are below zero and above it, and how many eighths a unit is. */
    private final class Scaled {
        private final Panel panel;
        private final PlainChart.Extent extent;
        private final int below;
        private final int above;
        private final double unit;
        private final Map<BarGroup, Map<Integer, List<PlainChart.Bar>>> bars = new LinkedHashMap<>();

        Scaled(Panel panel, int cells) {
            this.panel = panel;
            this.extent = chart.extent(panel);
            double from = extent.low() - extent.base();
            double to = extent.high() - extent.base();
            double low = panel.scale().backwards() ? -to : from;
            double high = panel.scale().backwards() ? -from : to;
            double span = high - low;
            this.below = span == 0 || low == 0 ? 0 : high == 0 ? cells : (int) Math.max(1, Math.min(cells - 1, Math.round(cells * -low / span)));
            this.above = cells - below;
            double unitBelow = low < 0 ? below * EIGHTHS / -low : Double.POSITIVE_INFINITY;
            double unitAbove = high > 0 ? above * EIGHTHS / high : Double.POSITIVE_INFINITY;
            this.unit = span == 0 ? 0 : Math.min(unitBelow, unitAbove);
            for (BarGroup group : panel.bars()) {
                Map<Integer, List<PlainChart.Bar>> rows = bars.computeIfAbsent(group, g -> new LinkedHashMap<>());
                chart.bars(group).forEach(bar -> rows.computeIfAbsent(bar.row(), r -> new ArrayList<>()).add(bar));
            }
        }

        /** What the axis is of, and from where to where it goes where its figures are asked for. */
        String axisWords() {
            boolean asked = chart.looks().axis().figures().orElse(false);
            String figures = asked ? chart.figures(panel).write(extent.low()) + " to " + chart.figures(panel).write(extent.high()) : "";
            return Stream.of(panel.heading(), panel.axis().title(), figures).filter(words -> !words.isEmpty()).collect(Collectors.joining(", "));
        }

        int width() {
            return below + above + 1;
        }

        private double place(double figure) {
            double offBase = extent.held(figure) - extent.base();
            return (panel.scale().backwards() ? -offBase : offBase) * unit;
        }

        Strip strip(int row) {
            Strip strip = new Strip(below, above, glyphs, palette);
            for (BarGroup group : panel.bars()) {
                bars.get(group).getOrDefault(row, List.of()).stream().filter(bar -> bar.series().fill().isPresent())
                        .forEach(bar -> {
                            strip.bar(bar.series(), place(bar.start()), place(bar.end()));
                            if (extent.held(bar.end()) != bar.end() && extent.base() != extent.held(bar.end())) {
                                strip.mark(CUT, null, place(bar.end()));
                            }
                        });
            }
            panel.references().stream().filter(line -> chart.level(line) != extent.base() && extent.held(chart.level(line)) == chart.level(line)).forEach(line -> strip.mark(REFERENCE, null, place(chart.level(line))));
            for (Points some : panel.points()) {
                Column cells = chart.data().column(some.series().column());
                if (cells.isPresent(row) && extent.held(cells.number(row)) == cells.number(row)) {
                    strip.mark(sign(some), some.series().fill().orElse(null), place(cells.number(row)));
                }
            }
            return strip;
        }
    }

    /** A ring as one bar of its slices; what points at them as a mark on it. */
    private void ring(Ring ring, List<String> lines) {
        if (chart.data().rowCount() == 0) {
            return;
        }
        List<Ring.Slice> seen = seen(ring, 0);
        double turn = seen.stream().mapToDouble(Ring.Slice::sweep).sum();
        String figure = ring.centre().map(centre -> chart.labelText(centre, 0)).orElse("");
        int cells = Math.max(LEAST_BARS, wide - DisplayWidth.of(figure) - 3);
        Strip strip = new Strip(0, cells, glyphs, palette);
        double unit = turn == 0 ? 0 : cells * EIGHTHS / turn;
        double from = seen.isEmpty() ? 0 : seen.get(0).start();
        seen.forEach(slice -> strip.bar(slice.series(), (slice.start() - from) * unit, (slice.start() - from + slice.sweep()) * unit));
        for (int track = 1; track < ring.tracks().size(); track++) {
            seen(ring, track).forEach(slice -> strip.mark(DASH, slice.series().fill().orElse(null), (slice.start() - from + slice.sweep() / 2) * unit));
        }
        lines.add(strip.text() + " " + figure);
        seen(ring, 0).stream().map(Ring.Slice::series).filter(slice -> !slice.labels().isEmpty()).forEach(slice -> lines.add(glyph(slice) + " " + chart.labelTexts(slice, 0)));
    }

    private List<Ring.Slice> seen(Ring ring, int track) {
        return chart.slices(ring, ring.tracks().get(track)).stream().filter(slice -> slice.series().isSeen()).toList();
    }

    private void texts(TextCells texts, List<String> lines) {
        List<Integer> widths = texts.columns().stream().map(column -> IntStream.range(0, chart.data().rowCount())
                .map(row -> DisplayWidth.of(chart.text(column, row))).max().orElse(0)).toList();
        Fields figures = new Fields(chart, chart.series());
        if (!beside.isEmpty()) {
            lines.add(headed());
        }
        for (int row = 0; row < chart.data().rowCount(); row++) {
            StringBuilder line = new StringBuilder(before(row));
            for (int i = 0; i < widths.size(); i++) {
                TextCells.TextColumn column = texts.columns().get(i);
                String blanks = " ".repeat(widths.get(i) - DisplayWidth.of(chart.text(column, row)));
                line.append(' ').append(column.flushEnd() ? blanks : "");
                chart.pieces(column, row).forEach(piece -> line.append(palette.painted(piece.text(), piece.fill().orElse(null), null)));
                line.append(column.flushEnd() ? "" : blanks);
            }
            for (int column = 0; column < figures.count(); column++) {
                line.append(' ').append(padded(figures.text(column, row), figures.width(column), true));
            }
            lines.add(line.toString());
        }
    }
}
