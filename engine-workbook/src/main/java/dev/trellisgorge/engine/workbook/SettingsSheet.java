package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Format;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.engine.Tile;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.plan.Plan;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.apache.poi.ss.usermodel.Cell;
import org.apache.poi.ss.usermodel.CellStyle;
import org.apache.poi.ss.usermodel.DataValidation;
import org.apache.poi.ss.usermodel.Name;
import org.apache.poi.ss.usermodel.Row;
import org.apache.poi.ss.util.CellRangeAddress;
import org.apache.poi.ss.util.CellRangeAddressList;
import org.apache.poi.ss.util.CellReference;
import org.apache.poi.xssf.usermodel.XSSFSheet;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;

/** The sheet of what a reader may change: a line a setting, with its name, its value, its unit and what it is, and lists to pick from. */
final class SettingsSheet {
    private static final int FIRST_LIST = 5;
    private static final List<String> TITLES = List.of("Setting", "Value", "Unit", "What it is");

    private final XSSFWorkbook book;
    private final SheetNames names;
    private final Styles styles;
    private final DropDowns choices;

    SettingsSheet(XSSFWorkbook book, SheetNames names, Styles styles, DropDowns choices) {
        this.book = book;
        this.names = names;
        this.styles = styles;
        this.choices = choices;
    }

    /** Makes it where there are settings. */
    void fill(String sheetName, List<Page> pages, Map<Tile, TileRows> rows) {
        Map<String, Column> settings = new LinkedHashMap<>();
        Map<String, Settings.About> told = new LinkedHashMap<>();
        pages.stream().flatMap(page -> page.computed().stream()).map(tile -> TileRows.data(tile).settings()).forEach(some -> some.values().forEach((name, value) -> {
            settings.put(name, value);
            told.put(name, some.about(name));
        }));
        settings.putAll(choices.values());
        if (settings.isEmpty()) {
            return;
        }
        XSSFSheet sheet = book.createSheet(sheetName);
        LiveWorkbook.header(sheet, styles, TITLES, 0);
        int at = 1;
        int lists = 0;
        Set<String> ofSteps = rows.values().stream().flatMap(each -> each.settingsThatStay().stream()).collect(Collectors.toSet());
        for (Map.Entry<String, Column> setting : settings.entrySet()) {
            Settings.About about = told.getOrDefault(setting.getKey(), Settings.About.NOTHING);
            Row row = row(sheet, at);
            row.createCell(0).setCellValue(setting.getKey());
            Cell value = row.createCell(1);
            if (setting.getValue().isPresent(0)) {
                LiveWorkbook.fill(value, setting.getValue(), 0);
            }
            value.setCellStyle(style(setting.getValue().kind(), about));
            row.createCell(2).setCellValue(about.unit());
            String use = ofSteps.contains(setting.getKey()) ? LiveWorkbook.PICKED : choices.meaning(setting.getKey()).orElseGet(() -> usedBy(setting.getKey(), pages));
            row.createCell(3).setCellValue(Stream.of(about.meaning(), use).filter(words -> !words.isEmpty()).collect(Collectors.joining("; ")));
            if (choices.offered(setting.getKey()).isPresent()) {
                offer(sheet, at, setting.getKey(), choices.offered(setting.getKey()).get(), lists++);
            }
            Name name = book.createName();
            name.setNameName(names.defined(setting.getKey()));
            name.setRefersToFormula(new CellReference(sheet.getSheetName(), at, 1, true, true).formatAsString());
            at++;
        }
        row(sheet, at + 1).createCell(0).setCellValue("Change a value here: the helper columns and the charts follow.");
        ColumnWidths.set(sheet, Stream.concat(Stream.of(24.0, 14.0, 10.0, 50.0, 4.0), Collections.nCopies(lists, 16.0).stream()).toList());
    }

    private CellStyle style(Kind kind, Settings.About about) {
        return kind == Kind.DATE ? styles.changeableDate() : kind == Kind.NUMBER && !about.format().isEmpty() ? styles.changeable(new Format(about.format())) : styles.changeable();
    }

    private static Row row(XSSFSheet sheet, int at) {
        return sheet.getRow(at) == null ? sheet.createRow(at) : sheet.getRow(at);
    }

    private static String usedBy(String setting, List<Page> pages) {
        String tiles = pages.stream().flatMap(page -> page.computed().stream()).filter(tile -> reads(TileRows.data(tile).plan(), setting)).map(TileRows::name).distinct().collect(Collectors.joining(", "));
        return tiles.isEmpty() ? "read by none of the charts here" : "read by " + tiles;
    }

    private static boolean reads(Plan plan, String setting) {
        return plan.settingsRead().contains(setting) || plan.settingsOfSteps().contains(setting);
    }

    /** A list to pick a setting's value from: the cells stand at the right, a column for each list. */
    private void offer(XSSFSheet sheet, int line, String setting, Column cells, int list) {
        int column = FIRST_LIST + list;
        Cell title = sheet.getRow(0).createCell(column);
        title.setCellValue(setting + " may be");
        title.setCellStyle(styles.header());
        Optional<DropDowns.Growing> growing = choices.growing(setting);
        int lines = Math.max(1, growing.map(DropDowns.Growing::lines).orElse(cells.size()));
        for (int row = 0; row < lines; row++) {
            Row at = sheet.getRow(row + 1) == null ? sheet.createRow(row + 1) : sheet.getRow(row + 1);
            Cell cell = at.createCell(column);
            if (growing.isPresent()) {
                cell.setCellFormula(growing.get().cell().apply(row + 1));
            }
            if (row < cells.size()) {
                LiveWorkbook.fill(cell, cells, row);
            } else {
                cell.setCellValue("");
            }
            if (growing.isEmpty() || cells.kind() == Kind.DATE) {
                cell.setCellStyle(growing.isPresent() ? styles.date() : cells.kind() == Kind.DATE ? styles.inputDate() : styles.input());
            }
        }
        String whole = new CellRangeAddress(1, lines, column, column).formatAsString(sheet.getSheetName(), true);
        // Blank cells below the last are no choice.
        String from = growing.isEmpty() ? whole : new CellReference(sheet.getSheetName(), 1, column, true, true).formatAsString() + ":INDEX(" + whole + ",MAX(1,ROWS(" + whole + ")-COUNTIF(" + whole + ",\"\")))";
        DataValidation picks = sheet.getDataValidationHelper().createValidation(sheet.getDataValidationHelper().createFormulaListConstraint(from), new CellRangeAddressList(line, line, 1, 1));
        picks.setShowErrorBox(true);
        picks.createErrorBox("Not there", "No row holds this; pick one from the list.");
        sheet.addValidationData(picks);
    }
}
