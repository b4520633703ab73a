package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.engine.Options;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.engine.SheetAnchor;
import dev.trellisgorge.engine.Tile;
import dev.trellisgorge.chart.TextCells;
import dev.trellisgorge.plan.ComputedColumns;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import java.io.IOException;
import java.io.OutputStream;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Date;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import org.apache.poi.ooxml.POIXMLProperties;
import org.apache.poi.ss.usermodel.Cell;
import org.apache.poi.ss.usermodel.PrintSetup;
import org.apache.poi.ss.usermodel.Row;
import org.apache.poi.ss.usermodel.Sheet;
import org.apache.poi.xssf.usermodel.XSSFSheet;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;

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
    private final Consumer<String> told;
    private final SheetNames names = new SheetNames();
    private final XSSFWorkbook book = new XSSFWorkbook();
    private final Styles styles = new Styles(book);
    private final DropDowns choices = new DropDowns();
    private final RawSheets raw;
    private final Map<Tile, TileRows> rows = new LinkedHashMap<>();
    private final List<StepSheet> steps = new ArrayList<>();
    private final Map<HelperSheet, String> helperNames = new LinkedHashMap<>();

    /**
     * @param told given what is left out
     * @param host the workbook that it is for, whose names are taken; empty where it is for none
     */
    LiveWorkbook(List<Page> pages, Options options, Consumer<String> told, Optional<HostWorkbook> host) {
        this.host = host;
        host.ifPresent(other -> names.taken(other.sheetNames(), other.definedNames()));
        this.pages = pages;
        this.told = told;
        this.options = options;
        this.raw = new RawSheets(names, host, options);
    }

    /** A sheet for each page, and all that they need. */
    void writeTo(OutputStream out) throws IOException {
        List<XSSFSheet> pageSheets = new ArrayList<>();
        pages.forEach(page -> pageSheets.add(book.createSheet(names.sheet(page.name()))));
        Map<Tile, HelperSheet> helpers = prepare();
        tellWhatStays();
        for (int i = 0; i < pages.size(); i++) {
            if (host.isPresent() && pages.get(i).at().isPresent()) {
                onOther(pages.get(i), pageSheets.get(i), helpers);
            } else {
                new PageSheet(pages.get(i), pageSheets.get(i), helpers, rows, names, styles, told).fill(options);
            }
        }
        book.setActiveSheet(0);
        finish(out);
    }

    /** A chart for a sheet of the host: it is drawn on one of ours, and put there later. */
    private void onOther(Page page, XSSFSheet sheet, Map<Tile, HelperSheet> helpers) {
        SheetAnchor spot = page.at().orElseThrow();
        Place place = Place.of("chart '" + page.name() + "'");
        Tile.OfChart tile = (Tile.OfChart) page.tiles().get(0);
        PlainChart chart = tile.parts().get(0);
        if (chart.drawing() instanceof TextCells || !chart.beside().isEmpty()) {
            throw new BadInput(place, ProblemKind.CONFLICT, "stands in cells, which are somebody else's on '" + spot.sheet() + "'; leave out 'at', and it gets a sheet of its own");
        }
        HostCanvas canvas = new HostCanvas(sheet, host.orElseThrow().grid(spot.sheet(), place), spot);
        if (chart.plan().titleColumn().isPresent() || chart.plan().subtitleColumn().isPresent()) {
            told.accept("'" + page.name() + "': its title stays as it was drawn");
        }
        new NativeTile(tile.parts(), helpers.get(tile), told).drawOn(canvas, canvas.area());
        onOther.put(sheet.getSheetName(), spot.sheet());
    }

    /** Sheets of ours that stand for places on sheets of the host, with those. */
    Map<String, String> onOther() {
        return Map.copyOf(onOther);
    }

    /**
     * Makes all sheets but those of the pages, as their order is that of the workbook. They are filled by {@link #finish}.
     *
     * @return the helper columns of each tile
     */
    Map<Tile, HelperSheet> prepare() {
        String settings = names.sheet(SETTINGS);
        data().forEach(data -> choices.taken(data.settings().values().keySet()));
        rows.putAll(TileRows.of(pages.stream().flatMap(page -> page.computed().stream()).toList(), raw, choices, names, styles, options));
        steps.addAll(rows.values().stream().map(TileRows::steps).distinct().filter(sheet -> !sheet.isEmpty()).toList());
        new SettingsSheet(book, names, styles, choices).fill(settings, pages, rows);
        raw.forEach((table, name) -> ColumnWidths.set(book.createSheet(name), table.columns().stream().map(Styles::width).toList()));
        steps.forEach(each -> {
            XSSFSheet made = book.createSheet(each.name());
            ColumnWidths.set(made, each.widths());
            SheetHead.mute(made, each.lines(), each.widths().size());
        });
        Map<Tile, HelperSheet> helpers = new IdentityHashMap<>();
        for (Page page : pages) {
            for (Tile tile : page.computed()) {
                XSSFSheet made = book.createSheet(names.sheet(TileRows.name(tile) + " series"));
                HelperSheet sheet = helperSheet(tile, made.getSheetName());
                ColumnWidths.set(made, sheet.widths(), sheet.folded()[0], sheet.folded()[1]);
                SheetHead.mute(made, sheet.lines(), sheet.widths().size());
                helpers.put(tile, sheet);
                helperNames.put(sheet, made.getSheetName());
            }
        }
        book.setActiveSheet(book.getNumberOfSheets() - 1);
        return helpers;
    }

    /** Tells which cells and steps are not followed. */
    void tellWhatStays() {
        raw.copied().forEach(told);
        rows.entrySet().stream().filter(each -> options.spareRows() > 0 && !(each.getValue().source() instanceof Block)).forEach(each -> told.accept("'" + TileRows.name(each.getKey()) + "': " + PageSheet.NO_SPARE));
        rows.forEach((tile, each) -> each.stays().forEach(stays -> told.accept("'" + TileRows.name(tile) + "': " + stays)));
    }

    /** Fills the sheets that {@link #prepare} made, and writes the file. */
    void finish(OutputStream out) throws IOException {
        book.setForceFormulaRecalculation(true); // whatever program opens it works all out anew
        properties(book.getProperties().getCoreProperties());
        book.getProperties().getExtendedProperties().getUnderlyingProperties().setApplication(PROGRAM);
        try (StreamedWorkbook streamed = new StreamedWorkbook(book)) {
            raw.forEach((table, name) -> raw(streamed.getSheet(name), table));
            steps.forEach(each -> each.fill(streamed.getSheet(each.name())));
            helperNames.forEach((sheet, name) -> sheet.fill(streamed.getSheet(name)));
            streamed.write(out);
        }
    }

    /** The title that programs list the file by, who made it, and the day. */
    private void properties(POIXMLProperties.CoreProperties properties) {
        if (!pages.get(0).listed().isEmpty()) {
            properties.setTitle(pages.get(0).listed());
        }
        made(properties, options);
    }

    /** Who made a file, and the day. */
    static void made(POIXMLProperties.CoreProperties properties, Options options) {
        properties.setCreator(options.author().orElse(PROGRAM));
        properties.setCreated(options.date().map(day -> Date.from(day.atStartOfDay(ZoneOffset.UTC).toInstant())));
    }

    private List<ComputedColumns> data() {
        return pages.stream().flatMap(page -> page.computed().stream()).map(TileRows::data).toList();
    }

    private HelperSheet helperSheet(Tile tile, String name) {
        SourceRows source = rows.get(tile).source();
        return tile instanceof Tile.OfFigure figure ? new HelperSheet(figure, name, source, names, styles) : new HelperSheet(((Tile.OfChart) tile).parts(), name, source, names, styles);
    }

    private void raw(Sheet sheet, Table table) {
        header(sheet, styles, table.columnNames(), 0);
        List<Column> columns = table.columns();
        for (int row = 0; row < table.rowCount(); row++) {
            Row line = sheet.createRow(row + 1);
            for (int i = 0; i < columns.size(); i++) {
                if (columns.get(i).isPresent(row)) {
                    Cell cell = line.createCell(i);
                    fill(cell, columns.get(i), row);
                    cell.setCellStyle(columns.get(i).kind() == Kind.DATE ? styles.inputDate() : styles.input());
                }
            }
        }
    }

    static void fill(Cell cell, Column column, int row) {
        if (column.kind() == Kind.TEXT) {
            cell.setCellValue(column.written(row));
        } else if (column.kind() == Kind.DATE) {
            cell.setCellValue(column.date(row).orElseThrow());
        } else if (column.kind() == Kind.TRUTH) {
            cell.setCellValue(column.number(row) == 1);
        } else {
            cell.setCellValue(column.number(row));
        }
    }

    /** A first row that stays in sight, with so many columns at its left. */
    static void header(Sheet sheet, Styles styles, List<String> titles, int columnsInSight) {
        Row row = sheet.createRow(0);
        for (int i = 0; i < titles.size(); i++) {
            Cell cell = row.createCell(i);
            cell.setCellValue(titles.get(i).length() <= LONGEST_HEADER ? titles.get(i) : titles.get(i).substring(0, LONGEST_HEADER - 1) + "…");
            cell.setCellStyle(styles.header());
        }
        sheet.createFreezePane(columnsInSight, 1);
        onePageWide(sheet);
    }

    /** Landscape, as many pages down as it takes. */
    static void onePageWide(Sheet sheet) {
        sheet.setFitToPage(true);
        PrintSetup setup = sheet.getPrintSetup();
        setup.setLandscape(true);
        setup.setPaperSize(PrintSetup.A4_PAPERSIZE);
        setup.setFitWidth((short) 1);
        setup.setFitHeight((short) 0);
    }
}
