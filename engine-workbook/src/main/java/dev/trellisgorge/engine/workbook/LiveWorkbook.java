package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.engine.Options;
import dev.trellisgorge.engine.Ability;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.engine.SheetAnchor;
import dev.trellisgorge.engine.Tile;
import dev.trellisgorge.chart.TextCells;
import dev.trellisgorge.plan.ComputedColumns;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.sheet.Book;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import dev.trellisgorge.sheet.Cell;
import dev.trellisgorge.sheet.Row;
import dev.trellisgorge.sheet.Sheet;
import dev.trellisgorge.sheet.Sheet;

/**
 * The workbook: a sheet for each page, one for the settings, one for each raw table, one for the steps of each tile, and one for
 * each tile's helper columns, in that order. Rows are written to disk as they are made, so that a table of any length takes little memory.
 */
final class LiveWorkbook {
    private static final int LONGEST_HEADER = 255;
    static final String PROGRAM = "Trellis Gorge";
    static final String PICKED = "(steps read it when this was drawn; draw again for another value)";
    private static final String SETTINGS = "Settings";

    private final Optional<HostWorkbook> host;
    private final Map<String, String> onOther = new LinkedHashMap<>();
    private final List<Page> pages;
    private final Options options;
    private final boolean textsFollow;
    private final Consumer<String> warnings;
    private final SheetNames names = new SheetNames();
    private final Book book;
    private final DropDowns choices = new DropDowns();
    private final RawSheets raw;
    private final Map<Tile, TileRows> rows = new LinkedHashMap<>();

    /**
     * @param abilities those of the engine that writes it
     * @param warnings takes what is left out
     * @param host the workbook that it is for, whose names are taken; empty where it is for none
     */
    LiveWorkbook(List<Page> pages, Set<Ability> abilities, Options options, Consumer<String> warnings, Optional<HostWorkbook> host) {
        this.host = host;
        host.ifPresent(other -> names.taken(other.sheetNames(), other.definedNames()));
        this.pages = pages;
        this.textsFollow = abilities.contains(Ability.LABELS_OF_CELLS);
        this.warnings = warnings;
        this.options = options;
        this.raw = new RawSheets(names, host, options);
        this.book = new Book(pages.get(0).listed(), options.author().orElse(PROGRAM), options.date());
    }

    /** A sheet for each page, and all that they need. */
    Book describe() {
        List<Sheet> pageSheets = pages.stream().map(page -> book.sheet(names.sheet(page.name()))).toList();
        Map<Tile, HelperSheet> helpers = helpers();
        for (int i = 0; i < pages.size(); i++) {
            if (host.isPresent() && pages.get(i).at().isPresent()) {
                onOther(pages.get(i), pageSheets.get(i), helpers);
            } else {
                new PageSheet(pages.get(i), pageSheets.get(i), helpers, rows, names, warnings).fill(options);
            }
        }
        return book;
    }

    /** A chart for a sheet of the host: it is drawn on one of ours, and put there later. */
    private void onOther(Page page, Sheet sheet, Map<Tile, HelperSheet> helpers) {
        SheetAnchor spot = page.at().orElseThrow();
        Place place = Place.of("chart '" + page.name() + "'");
        Tile.OfChart tile = (Tile.OfChart) page.tiles().get(0);
        PlainChart chart = tile.parts().get(0);
        if (chart.drawing() instanceof TextCells || !chart.beside().isEmpty()) {
            throw new BadInput(place, ProblemKind.CONFLICT, "stands in cells, which are somebody else's on '" + spot.sheet() + "'; leave out 'at', and it gets a sheet of its own");
        }
        HostCanvas canvas = new HostCanvas(sheet, host.orElseThrow().grid(spot.sheet(), place), spot);
        if (chart.plan().titleColumn().isPresent() || chart.plan().subtitleColumn().isPresent()) {
            warnings.accept("'" + page.name() + "': its title stays as it was drawn");
        }
        new NativeTile(tile.parts(), helpers.get(tile), warnings).drawOn(canvas, canvas.area());
        onOther.put(sheet.name(), spot.sheet());
    }

    /** Sheets of ours that stand for places on sheets of the host, with those. */
    Map<String, String> onOther() {
        return Map.copyOf(onOther);
    }

    /** The book as far as it is described. */
    Book book() {
        return book;
    }

    /**
     * Describes all sheets but those of the pages, and tells which cells and steps are not followed.
     *
     * @return the helper columns of each tile
     */
    Map<Tile, HelperSheet> helpers() {
        String settings = names.sheet(SETTINGS);
        data().forEach(data -> choices.taken(data.settings().values().keySet()));
        rows.putAll(TileRows.of(pages.stream().flatMap(page -> page.computed().stream()).toList(), raw, choices, names, options));
        new SettingsSheet(book, names, choices).fill(settings, pages, rows);
        raw.forEach((table, name) -> raw(book.sheet(name), table));
        rows.values().stream().map(TileRows::steps).distinct().filter(sheet -> !sheet.isEmpty()).toList().forEach(each -> each.describe(book.sheet(each.name())));
        Map<Tile, HelperSheet> helpers = new IdentityHashMap<>();
        for (Page page : pages) {
            for (Tile tile : page.computed()) {
                Sheet made = book.sheet(names.sheet(TileRows.name(tile) + " series"));
                HelperSheet sheet = helperSheet(tile, made.name());
                sheet.describe(made);
                helpers.put(tile, sheet);
            }
        }
        raw.copied().forEach(warnings);
        rows.entrySet().stream().filter(each -> options.spareRows() > 0 && !(each.getValue().source() instanceof Block)).forEach(each -> warnings.accept("'" + TileRows.name(each.getKey()) + "': " + PageSheet.NO_SPARE));
        rows.forEach((tile, each) -> each.stays().forEach(stays -> warnings.accept("'" + TileRows.name(tile) + "': " + stays)));
        return helpers;
    }

    private List<ComputedColumns> data() {
        return pages.stream().flatMap(page -> page.computed().stream()).map(TileRows::data).toList();
    }

    private HelperSheet helperSheet(Tile tile, String name) {
        SourceRows source = rows.get(tile).source();
        return tile instanceof Tile.OfFigure figure ? new HelperSheet(figure, name, source, names) : new HelperSheet(((Tile.OfChart) tile).parts(), name, source, names, textsFollow);
    }

    private static void raw(Sheet sheet, Table table) {
        header(sheet, table.columnNames(), 0);
        sheet.widths(table.columns().stream().map(Styles::width).toList());
        List<Column> columns = table.columns();
        sheet.generate(1, table.rowCount(), line -> {
            for (int i = 0; i < columns.size(); i++) {
                if (columns.get(i).isPresent(line.at() - 1)) {
                    Cell cell = line.cell(i).look(columns.get(i).kind() == Kind.DATE ? Styles.inputDate() : Styles.input());
                    fill(cell, columns.get(i), line.at() - 1);
                }
            }
        });
    }

    static void fill(Cell cell, Column column, int row) {
        if (column.kind() == Kind.TEXT) {
            cell.value(column.written(row));
        } else if (column.kind() == Kind.DATE) {
            cell.value(column.date(row).orElseThrow());
        } else if (column.kind() == Kind.TRUTH) {
            cell.value(column.number(row) == 1);
        } else {
            cell.value(column.number(row));
        }
    }

    /** A first row that stays in sight, with so many columns at its left. */
    static void header(Sheet sheet, List<String> titles, int columnsInSight) {
        Row row = sheet.row(0);
        for (int i = 0; i < titles.size(); i++) {
            Cell cell = row.cell(i);
            cell.value(titles.get(i).length() <= LONGEST_HEADER ? titles.get(i) : titles.get(i).substring(0, LONGEST_HEADER - 1) + "…");
            cell.look(Styles.header());
        }
        sheet.keepInSight(columnsInSight, 1);
        sheet.print(Sheet.Printing.ONE_PAGE_WIDE);
    }
}
