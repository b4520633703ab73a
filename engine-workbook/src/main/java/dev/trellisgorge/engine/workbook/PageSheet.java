package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Drawing;
import dev.trellisgorge.chart.Looks.Purpose;
import dev.trellisgorge.chart.Panels;
import dev.trellisgorge.chart.Ring;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.chart.Size;
import dev.trellisgorge.chart.TextCells;
import dev.trellisgorge.engine.Options;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.engine.Tile;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.plan.Plan;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.stream.Stream;
import dev.trellisgorge.sheet.Cell;
import dev.trellisgorge.sheet.CellLook;
import dev.trellisgorge.sheet.Sheet;

/** The sheet that a reader opens: the tiles on their grid, and below them the settings they follow and whether all adds back. */
final class PageSheet {
    /** Of a page's pixels on the sheet, so that it is in sight as a whole. */
    private static final double SCALE = 0.75;
    private static final int LEAST_COLUMNS = 6;
    private static final int LEAST_ROWS = 12;
    private static final int LEAST_FIGURE_ROWS = 6;
    private static final int TITLE_ROWS = 2;
    /** What the value of a setting takes below the charts: one is too narrow for a date. */
    private static final int VALUE_COLUMNS = 2;
    private static final String HOLDS = "The pieces add back to the figures on every row.";
    private static final String FAILS = "CHECK: the pieces do not add back; the sheet of the series says on which row.";
    private static final String NOT_FILLED = "CHECK: a cell of %s that was filled is blank now, or of another kind, and may count as 0 here; fill it, or draw the workbook anew.";
    private static final int LONGEST_NAME = 60;
    private static final String NO_ROOM = "CHECK: there are more rows or columns now than are read; draw it again.";

    static final String NO_SPARE = "has no room for rows to come, as its own stay as they were when this was drawn";

    private final Page page;
    private final Sheet sheet;
    private final Map<Tile, HelperSheet> helpers;
    private final Map<Tile, TileRows> rows;
    private final SheetNames names;
    private final Consumer<String> warnings;

    PageSheet(Page page, Sheet sheet, Map<Tile, HelperSheet> helpers, Map<Tile, TileRows> rows, SheetNames names, Consumer<String> warnings) {
        this.page = page;
        this.sheet = sheet;
        this.helpers = helpers;
        this.rows = rows;
        this.names = names;
        this.warnings = warnings;
    }

    void fill(Options options) {
        Size size = options.size();
        int top = 0;
        if (!page.title().isEmpty()) {
            says(line(0, 0, page.title(), Purpose.TITLE), page.line(Page.ABOVE), Plan::titleColumn);
            top = TITLE_ROWS;
        }
        if (!page.subtitle().isEmpty()) {
            says(line(top, 0, page.subtitle(), Purpose.SUBTITLE), page.line(Page.ABOVE), Plan::subtitleColumn);
            top += TITLE_ROWS;
        }
        int columns = Math.max(LEAST_COLUMNS, (int) Math.round(size.width() * SCALE / Area.COLUMN / page.columns()));
        for (int row = 0; row < top && page.looks().titleAt().isPresent(); row += TITLE_ROWS) {
            merge(row, 0, columns * page.columns());
        }
        List<Double> heights = page.heights();
        double unit = size.height() * SCALE / Area.ROW / heights.stream().mapToDouble(Double::doubleValue).sum();
        List<Page.Place> places = page.places();
        int[] from = new int[heights.size() + 1];
        from[0] = top;
        for (int row = 0; row < heights.size(); row++) {
            int at = row;
            int needed = places.stream().filter(place -> place.row() + place.span().rows() - 1 == at).mapToInt(place -> rowsOfText(place.tile()) - (from[at] - from[place.row()])).max().orElse(0);
            int least = heights.get(row) < 1 ? LEAST_FIGURE_ROWS : LEAST_ROWS;
            from[row + 1] = from[row] + Math.max(Math.max(least, (int) Math.round(unit * heights.get(row))), needed);
        }
        evenRows(0, from[heights.size()]);
        sheet.widths(Collections.nCopies(columns * page.columns(), Area.COLUMN_WIDTH));
        for (Page.Place place : places) {
            draw(place.tile(), new Area(place.column() * columns, from[place.row()], place.span().columns() * columns, from[place.row() + place.span().rows()] - from[place.row()]));
        }
        top = from[heights.size()];
        if (!page.source().isEmpty()) {
            says(write(top, 0, page.source(), Styles.note()), page.line(Page.FOOT), Plan::titleColumn);
            top++;
        }
        notes(top + 1, options.spareRows());
        print();
    }

    private void evenRows(int from, int to) {
        for (int i = from; i < to; i++) {
            if (!sheet.hasRow(i)) {
                sheet.row(i).height(Area.ROW_POINTS);
            }
        }
    }

    private int rowsOfText(Tile tile) {
        if (!(tile instanceof Tile.OfChart chart)) {
            return 0;
        }
        PlainChart first = chart.parts().get(0);
        return first.drawing() instanceof TextCells ? TextBlock.rows(helpers.get(tile)) : first.beside().isEmpty() ? 0 : TableBlock.rows(helpers.get(tile));
    }

    private void draw(Tile tile, Area area) {
        HelperSheet cells = helpers.get(tile);
        if (tile instanceof Tile.OfFigure figure) {
            figure(figure, cells, area);
            return;
        }
        List<PlainChart> parts = ((Tile.OfChart) tile).parts();
        PlainChart first = parts.get(0);
        if (first.drawing() instanceof TextCells texts) {
            new TextBlock(first, texts, cells, sheet, warnings).fill(area);
        } else if (!first.beside().isEmpty()) {
            new TableBlock(parts, cells, sheet, warnings).fill(area);
        } else if (first.plan().titleColumn().isPresent() || first.plan().subtitleColumn().isPresent()) {
            // Lines that cells say stand in cells: a native title refers to one alone, and writes it in one style.
            new TableCells(sheet, cells, warnings).titles(area, first);
            Area below = new Area(area.column(), area.row() + TITLE_ROWS, area.columns(), area.rows() - TITLE_ROWS);
            List<PlainChart> untitled = new ArrayList<>(parts);
            untitled.set(0, NativeTile.untitled(first));
            new NativeTile(untitled, cells, warnings).drawOn(new SheetCanvas(sheet), below);
        } else {
            new NativeTile(parts, cells, warnings).drawOn(new SheetCanvas(sheet), area);
        }
    }

    private void figure(Tile.OfFigure tile, HelperSheet cells, Area area) {
        int middle = area.row() + area.rows() / 2 - 1;
        says(line(area.row() + 1, area.column(), tile.title(), Purpose.TITLE), Optional.of(tile), Plan::titleColumn);
        Cell figure = write(middle, area.column(), "", Styles.bigFigure(tile.label().format()));
        if (tile.data().rowCount() > 0) {
            figure.formula("IFERROR(" + cells.cellOf(tile.label().column(), 0) + ",\"no figure\")");
            if (tile.written().isEmpty()) {
                figure.value("no figure");
            } else {
                figure.value(tile.data().column(tile.label().column()).number(0));
            }
        }
        sheet.row(middle).height(Styles.BIG_LINE);
        says(line(middle + 1, area.column(), tile.text(), Purpose.SUBTITLE), Optional.of(tile), Plan::subtitleColumn);
        figure.look(figure.look().at(sheet.row(middle + 1).find(area.column()).orElseThrow().look().across()));
        for (int row : page.looks().titleAt().isPresent() ? new int[] {area.row() + 1, middle, middle + 1} : new int[] {middle}) {
            merge(row, area.column(), area.columns());
        }
    }

    private Cell line(int row, int column, String words, Purpose purpose) {
        CellLook style = Styles.line(page.looks(), purpose);
        Cell cell = write(row, column, words, style);
        sheet.row(row).fit(style, Area.ROW_POINTS);
        return cell;
    }

    /** Has a line follow the column that says it, where one does. */
    private void says(Cell line, Optional<Tile.OfFigure> from, Function<Plan, Optional<String>> column) {
        from.filter(figure -> figure.data().rowCount() > 0).ifPresent(figure -> column.apply(figure.data().plan()).ifPresent(said -> {
            String words = line.text();
            line.formula(helpers.get(figure).cellOf(said, 0));
            line.value(words);
        }));
    }

    private void merge(int row, int column, int columns) {
        sheet.merge(row, column, 1, columns);
    }

    private void notes(int from, int spare) {
        int at = from;
        Map<String, Column> settings = new LinkedHashMap<>();
        page.computed().stream().map(tile -> helpers.get(tile).data()).forEach(data -> Stream.of(data.plan().settingsRead(), data.plan().settingsOfSteps()).flatMap(Set::stream)
                .forEach(name -> settings.put(name, data.settings().value(name))));
        for (Map.Entry<String, Column> setting : settings.entrySet()) {
            write(at, 0, setting.getKey(), Styles.note());
            Cell value = write(at, 2, "", Styles.note());
            value.formula(names.defined(setting.getKey()));
            if (setting.getValue().kind() == Kind.NUMBER) {
                value.value(setting.getValue().number(0));
                value.look(Styles.note(about(setting.getKey())));
            } else if (setting.getValue().kind() == Kind.DATE) {
                value.value(setting.getValue().date(0).orElseThrow());
                value.look(Styles.noteOfDate());
            } else {
                value.value(setting.getValue().written(0));
            }
            merge(at, 2, VALUE_COLUMNS);
            boolean picks = page.computed().stream().anyMatch(tile -> rows.get(tile).settingsThatStay().contains(setting.getKey()));
            write(at++, 2 + VALUE_COLUMNS, picks ? LiveWorkbook.PICKED : "(change it on the sheet Settings)", Styles.note());
        }
        List<HelperSheet> proved = page.computed().stream().map(helpers::get).filter(sheet -> sheet.proofCell().isPresent()).toList();
        List<String> rooms = page.computed().stream().flatMap(tile -> rows.get(tile).source() instanceof Block block ? block.rooms().stream() : Stream.empty()).distinct().map(PageSheet::isOk).toList();
        List<RawSheets.Filled> filled = page.computed().stream().flatMap(tile -> rows.get(tile).filled().stream()).distinct().toList();
        if (!proved.isEmpty() || !rooms.isEmpty() || !filled.isEmpty()) {
            String said = proved.isEmpty() ? "\"\"" : "IF(" + SheetHead.all(proved.stream().map(sheet -> isOk(sheet.proofCell().orElseThrow())).toList()) + ",\"" + HOLDS + "\",\"" + FAILS + "\")";
            Cell proof = write(at++, 0, "", Styles.note());
            for (RawSheets.Filled each : filled) {
                said = "IF(" + each.condition() + "," + said + ",\"" + NOT_FILLED.formatted(shortened(each.table()).replace("\"", "\"\"")) + "\")";
            }
            proof.formula(rooms.isEmpty() ? said : "IF(" + SheetHead.all(rooms) + "," + said + ",\"" + NO_ROOM + "\")");
            proof.value(proved.isEmpty() ? "" : proved.stream().allMatch(HelperSheet::isProved) ? HOLDS : FAILS);
        }
        for (Tile tile : page.computed()) {
            Optional<String> drawn = fromCells(tile);
            if (drawn.isPresent()) {
                write(at++, 0, "'" + TileRows.name(tile) + "': " + drawn.get(), Styles.note());
            }
        }
        if (spare > 0) {
            write(at++, 0, "Each raw sheet has room for " + spare + " rows more below its own, which all formulas and charts take in.", Styles.note());
        }
        for (Tile tile : page.computed()) {
            if (spare > 0 && !(rows.get(tile).source() instanceof Block)) {
                write(at++, 0, "'" + TileRows.name(tile) + "': " + NO_SPARE, Styles.note());
            }
            for (String stays : rows.get(tile).stays()) {
                write(at++, 0, "'" + TileRows.name(tile) + "': " + stays, Styles.note());
            }
        }
    }

    /** What not every program takes from its cell, and how the others show it. */
    private Optional<String> fromCells(Tile tile) {
        Optional<Drawing> drawing = tile instanceof Tile.OfChart chart ? Optional.of(chart.parts().get(0).drawing()) : Optional.empty();
        if (drawing.filter(Panels.class::isInstance).isPresent() && helpers.get(tile).hasLabelsFromCells()) {
            return Optional.of("some labels are texts of cells; a program that doesn't know such labels shows them as they were drawn.");
        }
        boolean centred = drawing.filter(each -> each instanceof Ring ring && ring.centre().flatMap(Series::label).isPresent()).isPresent();
        return centred ? Optional.of("the figure in the middle is the text of a cell; a program that doesn't know such texts shows it as it was drawn.") : Optional.empty();
    }

    private Settings.About about(String setting) {
        return page.computed().stream().map(tile -> helpers.get(tile).data().settings()).filter(some -> some.find(setting).isPresent()).map(some -> some.about(setting)).findFirst().orElse(Settings.About.NOTHING);
    }

    private static String shortened(String name) {
        return name.length() <= LONGEST_NAME ? name : name.substring(0, LONGEST_NAME - 1) + "…";
    }

    private static String isOk(String cell) {
        return cell + "=\"" + SheetHead.OK + "\"";
    }

    private Cell write(int line, int column, String words, CellLook style) {
        return TableCells.write(sheet, line, column, words, style);
    }

    private void print() {
        sheet.withoutGridlines();
        sheet.print(Sheet.Printing.ONE_PAGE);
    }
}
