package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.BarGroup;
import dev.trellisgorge.chart.Color;
import dev.trellisgorge.chart.Format;
import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.chart.Panel;
import dev.trellisgorge.chart.Points;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.sheet.Sheet;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Numbers;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import java.util.stream.DoubleStream;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import dev.trellisgorge.sheet.Cell;
import dev.trellisgorge.sheet.CellLook.Across;
import org.apache.poi.ss.util.CellRangeAddress;
import org.apache.poi.ss.util.CellReference;

/**
 * Bars in cells beside a table's figures, as the format's own data bars: a column of cells for each series, as a cell holds one bar in one
 * colour. Panels that reach for the same figures have one scale; it starts at 0, or at the least figure below it, and its end stands in a
 * cell below the bars. A panel that runs backwards has its bars from right to left: its cells hold the figures below zero, as not every
 * program turns bars round.
 */
final class CellBars {
    private static final String ENDS = "Bars end at";
    /** From here on decimals say nothing of where bars end. */
    private static final int WHOLE = 100;
    /** Below it two decimals say too little. */
    private static final double TINY = 0.1;

    private final List<PlainChart> parts;
    private final HelperSheet helpers;
    private final TableCells table;
    private final Consumer<String> warnings;
    private final List<Pane> panes = new ArrayList<>();

    /**
     * A column of cells.
     *
     * @param backwards whether its bars go from right to left; its cells are then 0 or less
     * @param negated   whether the cells hold the figures with the other sign
     * @param scale     what panes with one scale have in common
     * @param behind    what stands behind the bars, one after the other, and is as long as the scale
     */
    private record Pane(Series series, String heading, boolean backwards, boolean negated, Object scale, List<Series> behind, Optional<Looks.Covered> covered) {
    }

    /** @param parts the panels, each as a chart */
    CellBars(List<PlainChart> parts, HelperSheet helpers, TableCells table, Consumer<String> warnings) {
        this.parts = parts;
        this.helpers = helpers;
        this.table = table;
        this.warnings = warnings;
        if (areAsked()) {
            parts.forEach(part -> part.panels().forEach(this::panes));
        }
    }

    private void panes(Panel panel) {
        // Bars that are stacked behind points are what the points stand on: their figure is the bar here.
        boolean onBands = !panel.points().isEmpty() && panel.bars().stream().allMatch(group -> group.placing() == BarGroup.Placing.STACKED);
        List<Series> drawn = Stream.concat(onBands ? Stream.empty() : panel.bars().stream().flatMap(group -> group.series().stream()), panel.points().stream().map(Points::series))
                .filter(series -> series.fill().isPresent() && !(series.column().startsWith("unjudged") && helpers.data().isEmpty(series.column()))).toList();
        Object scale = panel.scale().reaches().isEmpty() ? panel : panel.scale().reaches();
        for (Series series : drawn) {
            boolean negated = panel.scale().backwards();
            panes.add(new Pane(series, drawn.size() == 1 && !panel.heading().isEmpty() ? panel.heading() : series.name(), negated != isBelow(series), negated, scale,
                    onBands ? panel.bars().stream().flatMap(group -> group.series().stream()).toList() : List.of(), panel.scale().covered()));
        }
    }

    /** Whether all of its figures lie below zero, as those of a left side do. */
    private boolean isBelow(Series series) {
        return figures(series).anyMatch(figure -> figure < 0) && figures(series).noneMatch(figure -> figure > 0);
    }

    private DoubleStream figures(Series series) {
        Column column = helpers.data().column(series.column());
        return IntStream.range(0, column.size()).filter(column::isPresent).mapToDouble(column::number);
    }

    boolean areAsked() {
        return parts.get(0).plan().areInCells();
    }

    /** How many of the sheet's columns they take at least. */
    int least() {
        return panes.size() + gaps();
    }

    /** Bars fill their cells: one column stays free before each, but where bars from both sides meet. */
    private int gaps() {
        return (int) IntStream.range(0, panes.size()).filter(this::isApart).count();
    }

    private boolean isApart(int pane) {
        return pane == 0 || !panes.get(pane - 1).backwards() || panes.get(pane).backwards();
    }

    /** @param area a row of the sheet for each row */
    void fill(Area area) {
        if (area.columns() < least()) {
            throw new BadInput(Place.of("chart '" + parts.get(0).name() + "'"), ProblemKind.UNSUPPORTED, "has " + panes.size() + " columns of bars in cells, and no room for them beside its figures; make the picture larger, or leave 'in-cells' out");
        }
        List<String> lines = parts.stream().flatMap(part -> part.panels().stream()).flatMap(panel -> panel.references().stream()).map(line -> line.words().orElse(line.name())).toList();
        if (!lines.isEmpty()) {
            warnings.accept("'" + parts.get(0).name() + "': bars in cells have no line across them, so left out: " + String.join(", ", lines));
        }
        int wide = (area.columns() - gaps()) / panes.size();
        Map<Object, List<CellRangeAddress>> scales = new LinkedHashMap<>();
        int at = area.column();
        for (int i = 0; i < panes.size(); i++) {
            Pane pane = panes.get(i);
            if (isApart(i)) {
                heading(area.row() - 1, at, 1, "", Across.LEFT);
                for (int row = 0; row < helpers.lines(); row++) {
                    ruled(area.row() + row, at, 1);
                }
                at++;
            }
            Across edge = pane.backwards() ? Across.RIGHT : Across.LEFT;
            heading(area.row() - 1, at, wide, pane.heading(), edge);
            for (int row = 0; row < helpers.lines(); row++) {
                cell(area.row() + row, at, pane, row, wide);
            }
            if (helpers.lines() > 0) {
                scales.computeIfAbsent(pane.scale(), key -> new ArrayList<>()).add(new CellRangeAddress(area.row(), area.row() + helpers.lines() - 1, at, at + wide - 1));
            }
            at += wide;
        }
        scales.forEach((scale, cells) -> rule(panes.stream().filter(pane -> pane.scale().equals(scale)).toList(), cells, area));
    }

    private void heading(int line, int column, int columns, String words, Across edge) {
        for (int across = 0; across < columns; across++) {
            table.write(line, column + across, across == 0 ? words : "", Styles.heading(edge));
        }
        table.merge(line, column, 1, columns);
    }

    private Cell ruled(int line, int column, int columns) {
        for (int across = 1; across < columns; across++) {
            table.write(line, column + across, "", Styles.ruled(Across.LEFT, Optional.empty()));
        }
        table.merge(line, column, 1, columns);
        return table.write(line, column, "", Styles.ruled(Across.LEFT, Optional.empty()));
    }

    private void cell(int line, int column, Pane pane, int row, int wide) {
        Cell cell = ruled(line, column, wide);
        cell.formula("IFERROR(" + (pane.negated() ? "-" : "") + helpers.cellOf(pane.series(), row) + ",\"\")");
        PlainChart chart = parts.get(0);
        if (row < chart.data().rowCount() && helpers.data().column(pane.series().column()).isPresent(row)) {
            double figure = helpers.data().column(pane.series().column()).number(row);
            cell.value(pane.negated() ? -figure : figure);
        } else {
            cell.value("");
        }
    }

    /** The bars of one scale, whose end stands in a cell that all of them follow. */
    private void rule(List<Pane> some, List<CellRangeAddress> cells, Area area) {
        String from = some.stream().anyMatch(pane -> !pane.backwards()) ? "MIN(0," + all(some, cells, false) + ")" : "0";
        String to = Stream.of(true, false).filter(backwards -> some.stream().anyMatch(pane -> pane.backwards() == backwards))
                .map(backwards -> (backwards ? "-MIN(0," : "MAX(0,") + all(some, cells, backwards) + ")").collect(Collectors.joining("|"));
        Optional<Looks.Covered> covered = some.get(0).covered();
        int line = area.row() + area.rows();
        CellRangeAddress first = cells.get(0);
        if (some.get(0) == panes.get(0)) {
            table.write(line, area.column() - 1, ENDS, Styles.note(Across.RIGHT, Optional.empty()));
        }
        String behind = some.get(0).behind().stream().map(series -> helpers.cellOf(series, 0)).collect(Collectors.joining("+"));
        double length = some.get(0).behind().stream().mapToDouble(series -> figures(series).findFirst().orElse(0)).sum();
        double largest = Math.max(length, some.stream().flatMapToDouble(pane -> figures(pane.series()).map(figure -> pane.negated() == pane.backwards() ? figure : -figure)).max().orElse(0));
        Cell end = table.write(line, first.getFirstColumn(), "", Styles.note(some.get(0).backwards() ? Across.RIGHT : Across.LEFT, figures(largest)));
        if (covered.isPresent()) {
            end.value(covered.get().to());
        } else {
            List<String> ends = new ArrayList<>(List.of(to.split("\\|")));
            if (!behind.isEmpty()) {
                ends.add("IFERROR(" + behind + ",0)");
            }
            end.formula(ends.size() == 1 ? to : "MAX(" + String.join(",", ends) + ")");
            end.value(Math.max(0, largest));
        }
        table.merge(line, first.getFirstColumn(), 1, first.getLastColumn() - first.getFirstColumn() + 1);
        String largestAt = new CellReference(line, first.getFirstColumn(), true, true).formatAsString();
        String least = covered.map(range -> Numbers.shortest(range.from())).orElse(from);
        for (int at = 0; at < some.size(); at++) {
            Color color = some.get(at).series().fill().orElseThrow();
            boolean backwards = some.get(at).backwards();
            table.dataBar(new Sheet.DataBar(cells.get(at), backwards ? "-" + largestAt : least, backwards ? "0" : largestAt, color, color));
        }
    }

    private static String all(List<Pane> some, List<CellRangeAddress> cells, boolean backwards) {
        return IntStream.range(0, some.size()).filter(at -> some.get(at).backwards() == backwards).mapToObj(at -> cells.get(at).formatAsString(null, true)).collect(Collectors.joining(","));
    }

    private static Optional<Format> figures(double largest) {
        if (largest >= WHOLE) {
            return Optional.of(new Format("#,##0"));
        }
        return largest < TINY || largest == Math.rint(largest) ? Optional.empty() : Optional.of(new Format("0.00"));
    }
}
