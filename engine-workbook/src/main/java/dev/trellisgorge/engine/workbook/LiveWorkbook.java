package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Size;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.engine.Tile;
import dev.trellisgorge.plan.Cells;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import java.io.IOException;
import java.io.OutputStream;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import org.apache.poi.ss.usermodel.Cell;
import org.apache.poi.ss.usermodel.Name;
import org.apache.poi.ss.usermodel.PrintSetup;
import org.apache.poi.ss.usermodel.Row;
import org.apache.poi.ss.usermodel.Sheet;
import org.apache.poi.ss.util.CellReference;
import org.apache.poi.xssf.usermodel.XSSFSheet;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;

/**
 * The workbook: a sheet for each page, one for the settings, one for each raw table, and one for each tile's helper
 * columns, in that order. Rows are written to disk as they are made, so that a table of any length takes little memory.
 */
final class LiveWorkbook {
    private static final int LONGEST_HEADER = 255;
    static final String PICKED = "(steps read it when this was drawn; draw again for another value)";
    private static final String SETTINGS = "Settings";

    private final List<Page> pages;
    private final Size size;
    private final Consumer<String> told;
    private final SheetNames names = new SheetNames();
    private final XSSFWorkbook book = new XSSFWorkbook();
    private final Styles styles = new Styles(book);

    /** @param told given what is left out */
    LiveWorkbook(List<Page> pages, Size size, Consumer<String> told) {
        this.pages = pages;
        this.told = told;
        this.size = size;
    }

    /** Sheets are all made first, as their order is that of the workbook; then filled. */
    void writeTo(OutputStream out) throws IOException {
        List<XSSFSheet> pageSheets = new ArrayList<>();
        pages.forEach(page -> pageSheets.add(book.createSheet(names.sheet(page.name()))));
        settings();
        Map<Table, String> raw = new IdentityHashMap<>();
        List<Table> tables = new ArrayList<>();
        for (Cells data : data()) {
            raw.computeIfAbsent(data.rows().whole(), table -> {
                SheetBounds.refuseTooLarge(table);
                tables.add(table);
                XSSFSheet sheet = book.createSheet(names.sheet(table.name()));
                ColumnWidths.set(sheet, table.columns().stream().map(Styles::width).toList());
                return sheet.getSheetName();
            });
        }
        Map<Tile, HelperSheet> helpers = new IdentityHashMap<>();
        Map<HelperSheet, String> helperNames = new LinkedHashMap<>();
        for (Page page : pages) {
            for (Tile tile : page.tiles()) {
                XSSFSheet made = book.createSheet(names.sheet(name(tile) + " series"));
                HelperSheet sheet = helperSheet(tile, made.getSheetName(), raw);
                ColumnWidths.set(made, sheet.widths(), sheet.folded()[0], sheet.folded()[1]);
                SheetHead.mute(made, sheet.data().rowCount(), sheet.widths().size());
                helpers.put(tile, sheet);
                helperNames.put(sheet, made.getSheetName());
            }
        }
        for (int i = 0; i < pages.size(); i++) {
            new PageSheet(pages.get(i), pageSheets.get(i), helpers, names, styles, told).fill(size);
        }
        book.setActiveSheet(0);
        book.setForceFormulaRecalculation(true); // whatever program opens it works all out anew
        titled();
        book.getProperties().getCoreProperties().setCreator("Trellis Gorge");
        book.getProperties().getCoreProperties().setCreated(Optional.empty());
        try (StreamedWorkbook streamed = new StreamedWorkbook(book)) {
            tables.forEach(table -> raw(streamed.getSheet(raw.get(table)), table));
            helperNames.forEach((sheet, name) -> sheet.fill(streamed.getSheet(name)));
            streamed.write(out);
        }
    }

    /** The title that programs list the file by. */
    private void titled() {
        Page first = pages.get(0);
        String title = !first.title().isEmpty() || first.charts().isEmpty() ? first.title() : first.charts().get(0).title();
        if (!title.isEmpty()) {
            book.getProperties().getCoreProperties().setTitle(title);
        }
    }

    private List<Cells> data() {
        return pages.stream().flatMap(page -> page.tiles().stream()).map(LiveWorkbook::data).toList();
    }

    private static Cells data(Tile tile) {
        return tile instanceof Tile.OfFigure figure ? figure.data() : ((Tile.OfChart) tile).parts().get(0).data();
    }

    private static String name(Tile tile) {
        return tile instanceof Tile.OfFigure figure ? figure.name() : ((Tile.OfChart) tile).parts().get(0).name();
    }

    private HelperSheet helperSheet(Tile tile, String name, Map<Table, String> raw) {
        String rows = raw.get(data(tile).rows().whole());
        return tile instanceof Tile.OfFigure figure ? new HelperSheet(figure, name, rows, names, styles)
                : new HelperSheet(((Tile.OfChart) tile).parts(), name, rows, names, styles);
    }

    /** One line a setting: its name, and the cell that carries the name. */
    private void settings() {
        Map<String, Column> settings = new LinkedHashMap<>();
        data().forEach(data -> settings.putAll(data.settings().values()));
        if (settings.isEmpty()) {
            return;
        }
        XSSFSheet sheet = book.createSheet(names.sheet(SETTINGS));
        header(sheet, styles, List.of("Setting", "Value"), 0);
        int at = 1;
        Set<String> ofSteps = data().stream().flatMap(data -> data.plan().settingsOfSteps().stream()).collect(Collectors.toSet());
        for (Map.Entry<String, Column> setting : settings.entrySet()) {
            Row row = sheet.createRow(at);
            row.createCell(0).setCellValue(setting.getKey());
            Cell value = row.createCell(1);
            if (setting.getValue().isPresent(0)) {
                fill(value, setting.getValue(), 0);
            }
            value.setCellStyle(setting.getValue().kind() == Kind.DATE ? styles.changeableDate() : styles.changeable());
            if (ofSteps.contains(setting.getKey())) {
                row.createCell(2).setCellValue(PICKED);
            }
            Name name = book.createName();
            name.setNameName(names.defined(setting.getKey()));
            name.setRefersToFormula(new CellReference(sheet.getSheetName(), at, 1, true, true).formatAsString());
            at++;
        }
        sheet.createRow(at + 1).createCell(0).setCellValue("Change a value here: the helper columns and the charts follow.");
        ColumnWidths.set(sheet, List.of(24.0, 14.0));
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

    private static void fill(Cell cell, Column column, int row) {
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
