package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Format;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.engine.Tile;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.plan.Plan;
import dev.trellisgorge.sheet.Book;
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
import dev.trellisgorge.sheet.Cell;
import dev.trellisgorge.sheet.CellLook;
import dev.trellisgorge.sheet.Row;
import org.apache.poi.ss.util.CellRangeAddress;
import org.apache.poi.ss.util.CellReference;
import dev.trellisgorge.sheet.Sheet;

/** The sheet of what a reader may change: a line a setting, with its name, its value, its unit and what it is, and lists to pick from. */
final class SettingsSheet {
    private static final int FIRST_LIST = 5;
    private static final List<String> TITLES = List.of("Setting", "Value", "Unit", "What it is");

    private final Book book;
    private final SheetNames names;
    private final DropDowns choices;

    SettingsSheet(Book book, SheetNames names, DropDowns choices) {
        this.book = book;
        this.names = names;
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
        Sheet sheet = book.sheet(sheetName);
        LiveWorkbook.header(sheet, TITLES, 0);
        int at = 1;
        int lists = 0;
        Set<String> ofSteps = rows.values().stream().flatMap(each -> each.settingsThatStay().stream()).collect(Collectors.toSet());
        for (Map.Entry<String, Column> setting : settings.entrySet()) {
            Settings.About about = told.getOrDefault(setting.getKey(), Settings.About.NOTHING);
            Row row = sheet.row(at);
            row.cell(0).value(setting.getKey());
            Cell value = row.cell(1);
            if (setting.getValue().isPresent(0)) {
                LiveWorkbook.fill(value, setting.getValue(), 0);
            }
            value.look(style(setting.getValue().kind(), about));
            row.cell(2).value(about.unit());
            String use = ofSteps.contains(setting.getKey()) ? LiveWorkbook.PICKED : choices.meaning(setting.getKey()).orElseGet(() -> usedBy(setting.getKey(), pages));
            row.cell(3).value(Stream.of(about.meaning(), use).filter(words -> !words.isEmpty()).collect(Collectors.joining("; ")));
            if (choices.offered(setting.getKey()).isPresent()) {
                offer(sheet, at, setting.getKey(), choices.offered(setting.getKey()).get(), lists++);
            }
            book.name(names.defined(setting.getKey()), new CellReference(sheet.name(), at, 1, true, true).formatAsString());
            at++;
        }
        sheet.row(at + 1).cell(0).value("Change a value here: the helper columns and the charts follow.");
        sheet.widths(Stream.concat(Stream.of(24.0, 14.0, 10.0, 50.0, 4.0), Collections.nCopies(lists, 16.0).stream()).toList());
    }

    private CellLook style(Kind kind, Settings.About about) {
        return kind == Kind.DATE ? Styles.changeableDate() : kind == Kind.NUMBER && !about.format().isEmpty() ? Styles.changeable(new Format(about.format())) : Styles.changeable();
    }

    private static String usedBy(String setting, List<Page> pages) {
        String tiles = pages.stream().flatMap(page -> page.computed().stream()).filter(tile -> reads(TileRows.data(tile).plan(), setting)).map(TileRows::name).distinct().collect(Collectors.joining(", "));
        return tiles.isEmpty() ? "read by none of the charts here" : "read by " + tiles;
    }

    private static boolean reads(Plan plan, String setting) {
        return plan.settingsRead().contains(setting) || plan.settingsOfSteps().contains(setting);
    }

    /** A list to pick a setting's value from: the cells stand at the right, a column for each list. */
    private void offer(Sheet sheet, int line, String setting, Column cells, int list) {
        int column = FIRST_LIST + list;
        Cell title = sheet.row(0).cell(column);
        title.value(setting + " may be");
        title.look(Styles.header());
        Optional<DropDowns.Growing> growing = choices.growing(setting);
        int lines = Math.max(1, growing.map(DropDowns.Growing::lines).orElse(cells.size()));
        for (int row = 0; row < lines; row++) {
            Cell cell = sheet.row(row + 1).cell(column);
            if (growing.isPresent()) {
                cell.formula(growing.get().cell().apply(row + 1));
            }
            if (row < cells.size()) {
                LiveWorkbook.fill(cell, cells, row);
            } else {
                cell.value("");
            }
            if (growing.isEmpty() || cells.kind() == Kind.DATE) {
                cell.look(growing.isPresent() ? Styles.date() : cells.kind() == Kind.DATE ? Styles.inputDate() : Styles.input());
            }
        }
        String whole = new CellRangeAddress(1, lines, column, column).formatAsString(sheet.name(), true);
        // Blank cells below the last are no choice.
        String from = growing.isEmpty() ? whole : new CellReference(sheet.name(), 1, column, true, true).formatAsString() + ":INDEX(" + whole + ",MAX(1,ROWS(" + whole + ")-COUNTIF(" + whole + ",\"\")))";
        sheet.picks(new Sheet.Picks(line, 1, from, "Not there", "No row holds this; pick one from the list."));
    }
}
