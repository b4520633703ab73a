package dev.trellisgorge.plan;

import dev.trellisgorge.chart.BarGroup;
import dev.trellisgorge.chart.Color;
import dev.trellisgorge.chart.Drawing;
import dev.trellisgorge.chart.FigureColumn;
import dev.trellisgorge.chart.Format;
import dev.trellisgorge.chart.Label;
import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Panel;
import dev.trellisgorge.chart.Panels;
import dev.trellisgorge.chart.ReferenceLine;
import dev.trellisgorge.chart.Ring;
import dev.trellisgorge.chart.Scale;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.chart.TextCells;
import dev.trellisgorge.formula.Evaluator;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/**
 * A chart that any chart engine can draw: a plan with its cells. The only thing engines are given. One row a category, in
 * drawing order; an engine never sorts, groups or drops a row. Immutable and thread-safe.
 */
public final class PlainChart {
    private static final double FULL_TURN = 360;
    private static final int MOST_ROWS_NAMED = 100;

    private final Plan plan;
    private final ComputedColumns data;
    private final List<Note> notes;
    private final List<StepProof> stepProofs;
    private final Optional<String> stamp;
    private final Optional<String> described;
    private final Drawing drawing;
    private final Map<String, List<Label>> labels;
    private final Optional<Label> note;
    private final List<FigureColumn> beside;
    private final Map<Formula, Double> levels = new ConcurrentHashMap<>();

    PlainChart(Plan plan, ComputedColumns data, List<Note> notes, List<StepProof> stepProofs) {
        this(plan, data, notes, stepProofs, Optional.empty(), plan.drawing(), Optional.empty());
    }

    private PlainChart(Plan plan, ComputedColumns data, List<Note> notes, List<StepProof> stepProofs, Optional<String> stamp, Drawing drawing, Optional<String> described) {
        this.plan = plan;
        this.data = data;
        this.notes = List.copyOf(notes);
        this.stepProofs = List.copyOf(stepProofs);
        this.stamp = stamp;
        this.described = described;
        if (data.rowCount() > 0) {
            Stream<Label> all = Stream.of(drawing.series().stream().flatMap(series -> series.labels().stream()), plan.labels().values().stream().flatMap(List::stream), plan.note().stream(),
                    plan.beside().stream().map(FigureColumn::label)).flatMap(some -> some);
            data.compute(all.filter(label -> label.format().isFitting()).flatMap(label -> label.decimals().stream()).toList());
        }
        Formats formats = new Formats(data);
        this.drawing = named(said(drawing).each(series -> series.labelled(series.labels().stream().map(formats::settled).toList())));
        Map<String, List<Label>> settled = new LinkedHashMap<>();
        plan.labels().forEach((series, some) -> settled.put(series, some.stream().map(formats::settled).toList()));
        this.labels = Collections.unmodifiableMap(settled);
        this.note = plan.note().map(formats::settled);
        this.beside = plan.beside().stream().map(column -> column.labelled(formats::settled)).toList();
    }

    /** Reference lines by the names that their columns say. */
    private Drawing said(Drawing all) {
        return !(all instanceof Panels panels) ? all : new Panels(panels.panels().stream().map(panel -> panel.references(panel.references().stream()
                .map(line -> said(line.words()).map(line::called).orElse(line)).toList())).toList(), panels.categoriesShown());
    }

    /** The category axis carries the names, unless every row's label does. */
    private Drawing named(Drawing all) {
        return plan.parts().namesInLabels() && all instanceof Panels panels && IntStream.range(0, data.rowCount())
                .allMatch(row -> all.series().stream().anyMatch(series -> !labelText(series, row).isEmpty())) ? panels.categoriesShown(false) : all;
    }

    /** This chart with words printed across it, where it must not be taken for right. */
    public PlainChart stamped(String words) {
        return new PlainChart(plan, data, notes, stepProofs, Optional.of(words), drawing, described);
    }

    /** This chart with one more note on its rows. */
    public PlainChart withNotes(Note more) {
        return new PlainChart(plan, data, Stream.concat(notes.stream(), Stream.of(more)).toList(), stepProofs, stamp, drawing, described);
    }

    /** This chart by a plan that adds columns to this one's and draws otherwise. */
    public PlainChart by(Plan lowered) {
        return new PlainChart(lowered, data.over(lowered), notes, stepProofs, stamp, lowered.drawing(), described);
    }

    /**
     * This chart with about {@code most} of its rows, where it has more than twice as many: of each so many neighbours the ones that
     * reach farthest, with their cells as they are and without figures. The second line of the chart then says so. Rings and texts stay as they are.
     *
     * @param most how many rows can be told apart where it is drawn, 1 or more
     */
    public PlainChart downsampled(int most) {
        if (!Thinning.isNeeded(this, most)) {
            return this;
        }
        Thinning thinning = new Thinning(this, most);
        Plan told = plan.change().titles(title(), (subtitle().isEmpty() ? "" : subtitle() + " – ") + thinning.sentence())
                .beside(List.of()).drawing(plan.drawing().each(series -> series.labelled(List.of()))).build();
        return new PlainChart(told, data.at(thinning.rows(), told), notes, stepProofs, stamp, told.drawing(), described);
    }

    /** A sentence that says what {@link #downsampled} leaves out; empty where it leaves out nothing. */
    public Optional<String> thinning(int most) {
        return Thinning.isNeeded(this, most) ? Optional.of(new Thinning(this, most).sentence()) : Optional.empty();
    }

    /** @throws BadInput where a figure that a label shows overflows, with its row */
    public void checkLabels() {
        RowCheck.refuseInfiniteLabels(this);
    }

    /** The same cells drawn without the series that have none, and the lines without a level: what people look at. */
    public PlainChart withoutEmptySeries() {
        Drawing seen = drawing.without(series -> data.rowCount() > 0 && data.isEmpty(series.column()));
        return drawn(seen instanceof Panels all ? new Panels(all.panels().stream().map(panel -> panel.references(panel.references().stream()
                .filter(line -> !Double.isNaN(level(line))).toList())).toList(), all.categoriesShown()) : seen);
    }

    /** The same chart with the words of another for readers who can't see it: of the one that it is another drawing of. */
    public PlainChart describedAs(PlainChart other) {
        return new PlainChart(plan, data, notes, stepProofs, stamp, drawing, Optional.of(other.alternative()));
    }

    /** The same cells drawn otherwise. */
    public PlainChart drawn(Drawing other) {
        return new PlainChart(plan, data, notes, stepProofs, stamp, other, described);
    }

    public Plan plan() {
        return plan;
    }

    /** Names files and sheets. */
    public String name() {
        return plan.name();
    }

    /** One line, or empty. */
    public String title() {
        return said(plan.titleColumn()).orElse(plan.title());
    }

    /** One line, or empty. */
    public String subtitle() {
        String line = said(plan.subtitleColumn()).orElse(plan.subtitle());
        String cut = cutOff();
        return line + (line.isEmpty() || cut.isEmpty() ? "" : " – ") + cut;
    }

    /** What a scale that is not the whole one leaves out, for the second line; empty where all is seen, and bars start at zero. */
    private String cutOff() {
        return panels().stream().filter(panel -> panel.scale().covered().isPresent()).map(panel -> {
            Looks.Covered covered = panel.scale().covered().get();
            Extent all = extent(panel.scale(new Scale(panel.scale().reaches(), panel.scale().backwards(), Optional.empty())));
            Format format = figures(panel);
            String from = format.write(covered.from());
            return covered.from() > 0 || covered.to() < 0 ? "axis from " + from + " to " + format.write(covered.to()) + ", not from zero"
                    : all.low() < covered.from() || all.high() > covered.to() ? "cut off beyond the axis, " + from + " to " + format.write(covered.to()) : "";
        }).filter(sentence -> !sentence.isEmpty()).findFirst().orElse("");
    }

    /** How looks that are not in the drawing were asked for. */
    public Looks looks() {
        return plan.looks();
    }

    private Optional<String> said(Optional<String> column) {
        return column.filter(line -> data.rowCount() > 0).map(line -> data.column(line).written(0));
    }

    /** Which way bars run. */
    public Orientation orientation() {
        return plan.orientation();
    }

    public ComputedColumns data() {
        return data;
    }

    /** The series as they are printed, whatever their cells are. */
    public Table printed() {
        return data.printed();
    }

    /** What a reader should know of the rows, whatever the patterns' watches find. */
    public List<Note> notes() {
        return notes;
    }

    /** What the steps left as it was, or did not. */
    public List<StepProof> stepProofs() {
        return stepProofs;
    }

    /** The labels of each series that has some, by the series. */
    public Map<String, List<Label>> labels() {
        return labels;
    }

    /** What is written after a category's name, or none. */
    public Optional<Label> note() {
        return note;
    }

    /** Figures between the names of lying bars and the bars, from the left. */
    public List<FigureColumn> beside() {
        return beside;
    }

    /** What is written in one of them; empty where the figure is missing. */
    public String besideText(FigureColumn column, int row) {
        return data.column(column.label().column()).isPresent(row) ? text(column.label(), row) : "";
    }

    /** What is on the sheet. */
    public Drawing drawing() {
        return drawing;
    }

    public Optional<String> stamp() {
        return stamp;
    }

    /** The panels; none where the chart is a ring or texts. */
    public List<Panel> panels() {
        return drawing instanceof Panels shared ? shared.panels() : List.of();
    }

    /** Every series, in drawing order. */
    public List<Series> series() {
        return drawing.series();
    }

    /** Where a reference line stands; NaN where its limit is missing. */
    public double level(ReferenceLine line) {
        return levels.computeIfAbsent(line.at(), at -> new Evaluator(Table.of("any", Column.numbers("any", 0)), data.settings()).evaluate("level", at).number(0));
    }

    /** What stands at a reference line: its name, and its level as the panel's figures are written. */
    public String words(ReferenceLine line, Panel panel) {
        return line.name() + " " + figures(panel).write(level(line));
    }

    /** How the figures of a panel are written: by its axis's format, or as its labels are. */
    public Format figures(Panel panel) {
        return !panel.axis().format().isFitting() ? panel.axis().format() : panel.series().stream().flatMap(series -> series.label().stream()).map(Label::format)
                .filter(format -> !format.isFitting()).findFirst().orElseGet(() -> new Format("#,##0.##").in(plan.locale()));
    }

    /** What is written along the base for a row: its name, and the note after it. */
    public String categoryText(int row) {
        String name = name(row);
        String after = note.map(label -> text(label, row)).orElse("");
        return after.isEmpty() ? name : name + " (" + after + ")";
    }

    /** What readers call a row: its category, dates as they are to be written. */
    public String name(int row) {
        return plan.nameColumn().map(data::column).orElseGet(data::category).written(row);
    }

    /**
     * A part of a text, in one colour.
     *
     * @param fill empty for the ink's
     */
    public record Piece(String text, Optional<Color> fill) {
        public Piece {
            Objects.requireNonNull(text, "text");
            Objects.requireNonNull(fill, "fill");
        }
    }

    /** A text of a column on a row, in its colours: the bar, then what is left; nothing where it is absent or empty. */
    public List<Piece> pieces(TextCells.TextColumn column, int row) {
        Optional<Series> there = column.series().stream().filter(series -> data.column(series.column()).isPresent(row)).findFirst();
        String whole = there.map(series -> data.column(series.column()).written(row)).orElse("");
        String rest = column.rest().map(series -> data.column(series.column())).filter(cells -> cells.isPresent(row)).map(cells -> cells.written(row)).orElse("");
        String bar = whole.endsWith(rest) ? whole.substring(0, whole.length() - rest.length()) : whole;
        return Stream.of(new Piece(bar, there.flatMap(Series::fill)), new Piece(whole.substring(bar.length()), column.rest().flatMap(Series::fill)))
                .filter(piece -> !piece.text().isEmpty()).toList();
    }

    /** The whole of a text of a column on a row. */
    public String text(TextCells.TextColumn column, int row) {
        return pieces(column, row).stream().map(Piece::text).collect(Collectors.joining());
    }

    /** The text of the first label of a series' cell; empty where nothing is drawn there, or nothing written. */
    public String labelText(Series series, int row) {
        return series.label().map(label -> labelText(series.column(), label, row)).orElse("");
    }

    /** The texts of all labels of a series' cell, joined by blanks. */
    public String labelTexts(Series series, int row) {
        return series.labels().stream().map(label -> labelText(series.column(), label, row)).filter(text -> !text.isEmpty()).collect(Collectors.joining(" "));
    }

    /** The text of one label, of a series that may not be drawn. */
    public String labelText(String series, Label label, int row) {
        return data.column(series).isPresent(row) ? text(label, row) : "";
    }

    private String text(Label label, int row) {
        return data.column(label.words()).written(row);
    }

    /** What the chart shows, in words and figures, for readers who can't see it: the rows, and what each series has there. */
    public String alternative() {
        if (described.isPresent()) {
            return described.get();
        }
        String rows = IntStream.range(0, Math.min(MOST_ROWS_NAMED, data.rowCount()))
                .mapToObj(row -> (plan.category().isPresent() ? categoryText(row) + " " : "") + figures(row)).collect(Collectors.joining("; "));
        String more = data.rowCount() > MOST_ROWS_NAMED ? "; and " + (data.rowCount() - MOST_ROWS_NAMED) + " rows more" : "";
        return (title().isEmpty() ? "Chart" : title()) + ": " + rows + more + ".";
    }

    /** The figures that the labels show; of a chart without labels, what each series has. */
    private String figures(int row) {
        String figures = shown().map(series -> Map.entry(series, labels.isEmpty() ? data.column(series.column()).written(row) : labelTexts(series, row)))
                .filter(entry -> !entry.getValue().isEmpty())
                .map(entry -> entry.getValue() + (entry.getKey().inLegend() ? " (" + entry.getKey().name() + ")" : ""))
                .collect(Collectors.joining(", "));
        return figures.isEmpty() ? "no figure" : figures;
    }

    /** The series that say something; in a ring, the one in its middle. */
    private Stream<Series> shown() {
        return drawing instanceof Ring ring && ring.centre().isPresent() && !labels.isEmpty() ? ring.centre().stream()
                : series().stream().filter(series -> series.fill().isPresent());
    }

    /** The slices of a ring's track that have a size, clockwise; none where the chart has no row. */
    public List<Ring.Slice> slices(Ring ring, List<Series> track) {
        List<Ring.Slice> slices = new ArrayList<>();
        double whole = data.rowCount() == 0 ? 0 : track.stream().mapToDouble(this::size).sum();
        double at = ring.start();
        for (Series series : track) {
            double sweep = whole > 0 ? size(series) / whole * FULL_TURN : 0;
            if (sweep > 0) {
                slices.add(new Ring.Slice(series, at, sweep));
            }
            at += sweep;
        }
        return slices;
    }

    private double size(Series slice) {
        Column cells = data.column(slice.column());
        return cells.isPresent(0) ? cells.number(0) : 0;
    }

    /**
     * A bar as it is drawn.
     *
     * @param series whose it is; a spacer's is not seen
     * @param row    its category, 0-based
     * @param start  where it starts on the value axis: zero, or in a stack the end of the one before on its side of zero
     * @param end    where it ends
     */
    public record Bar(Series series, int row, double start, double end) {
        public Bar {
            Objects.requireNonNull(series, "series");
        }
    }

    /** The bars of a group, row by row in drawing order; none where a cell is absent. */
    public List<Bar> bars(BarGroup group) {
        List<Bar> bars = new ArrayList<>();
        List<Column> columns = group.series().stream().map(series -> data.column(series.column())).toList();
        for (int row = 0; row < data.rowCount(); row++) {
            double down = 0;
            double up = 0;
            for (int i = 0; i < columns.size(); i++) {
                if (columns.get(i).isPresent(row)) {
                    double length = columns.get(i).number(row);
                    double start = group.placing() != BarGroup.Placing.STACKED ? 0 : length < 0 ? down : up;
                    down = Math.min(down, start + length);
                    up = Math.max(up, start + length);
                    bars.add(new Bar(group.series().get(i), row, start, start + length));
                }
            }
        }
        return bars;
    }

    /**
     * What a panel's value axis covers.
     *
     * @param low  at most zero, unless a scale was asked for that starts above it
     * @param high at least zero, unless a scale was asked for that ends below it
     */
    public record Extent(double low, double high) {

        /** The place within it that is nearest to a figure. */
        public double held(double figure) {
            return Math.max(low, Math.min(high, figure));
        }

        /** Where bars start: zero, or what is nearest to it. */
        public double base() {
            return held(0);
        }

        Extent with(double figure) {
            return Double.isNaN(figure) ? this : new Extent(Math.min(low, figure), Math.max(high, figure));
        }
    }

    /** From the lowest to the highest figure that the panel shows or reaches for, and zero; or what was asked for. */
    public Extent extent(Panel panel) {
        if (panel.scale().covered().isPresent()) {
            return new Extent(panel.scale().covered().get().from(), panel.scale().covered().get().to());
        }
        Extent extent = new Extent(0, 0);
        for (BarGroup group : panel.bars()) {
            for (Bar bar : bars(group)) {
                extent = extent.with(bar.end());
            }
        }
        for (ReferenceLine line : panel.references()) {
            extent = extent.with(level(line));
        }
        List<String> columns = Stream.of(panel.lines().stream().map(line -> line.series().column()),
                panel.points().stream().map(points -> points.series().column()), panel.scale().reaches().stream()).flatMap(c -> c).toList();
        for (String column : columns) {
            Column cells = data.column(column);
            for (int row = 0; row < cells.size(); row++) {
                extent = extent.with(cells.number(row));
            }
        }
        return extent;
    }

    /** Settles the formats that are as plain as the figures allow. */
    private record Formats(ComputedColumns data) {

        Label settled(Label label) {
            if (!label.format().isFitting()) {
                return label;
            }
            boolean words = data.plan().kind(label.column()) == Kind.TEXT;
            int decimals = words || label.decimals().isEmpty() || data.rowCount() == 0 ? 0 : (int) data.column(label.decimals().get()).number(0);
            return label.written(label.format().fitted(decimals));
        }
    }
}
