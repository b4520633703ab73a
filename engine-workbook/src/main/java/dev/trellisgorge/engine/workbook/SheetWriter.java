package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.sheet.Cell;
import dev.trellisgorge.sheet.Row;
import dev.trellisgorge.sheet.Sheet;
import dev.trellisgorge.sheet.Sheet.DataBar;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.apache.poi.ss.usermodel.DateUtil;
import org.apache.poi.ss.util.CellRangeAddress;
import org.apache.poi.ss.util.CellReference;

/** Writes a sheet as a part of a workbook (SpreadsheetML, ECMA-376 part 1, 18.3), its rows as they come. Used by one thread. */
final class SheetWriter {
    private static final String OF_RULE = "{B025F937-C7B1-47D3-B67F-A62EFF666E3E}";
    private static final String OF_SHEET = "{78C0D931-6437-407d-A8EE-F0AAD7539E65}";
    private static final String USUAL_HEIGHT = "15";
    private static final String AFTER_FOLDED = "9";
    /** What a reader would take for a character in the words of the format. */
    private static final Pattern ESCAPE = Pattern.compile("_(?=x[0-9A-Fa-f]{4}_)");

    private final Sheet sheet;
    private final StyleSheet styles;
    private final OfficeXml part;
    private final Map<String, Integer> texts;
    private String[] letters = new String[0];

    private SheetWriter(Sheet sheet, StyleSheet styles, Map<String, Integer> texts, OfficeXml part) {
        this.sheet = sheet;
        this.styles = styles;
        this.texts = texts;
        this.part = part;
    }

    /**
     * Writes a sheet.
     *
     * @param texts   those that cells share, with their numbers; more are added. Texts of rows that are made as they are written stand in their cells
     * @param shown   whether it is the one that is seen
     * @param drawing the id of the relationship to what stands over its cells; empty where nothing does
     */
    static void write(OutputStream out, Sheet sheet, StyleSheet styles, Map<String, Integer> texts, boolean shown, Optional<String> drawing) {
        try (OfficeXml part = OfficeXml.of(out, OfficeXml.SHEETS, "worksheet", "r")) {
            new SheetWriter(sheet, styles, texts, part).write(shown, drawing);
        }
    }

    private void write(boolean shown, Optional<String> drawing) {
        if (sheet.printing() != Sheet.Printing.AS_IT_COMES) {
            part.open("sheetPr").leaf("pageSetUpPr", "fitToPage", "1").close(1);
        }
        view(shown);
        part.leaf("sheetFormatPr", "defaultRowHeight", USUAL_HEIGHT, "outlineLevelCol", sheet.columns().stream().anyMatch(Sheet.Columns::folded) ? "1" : null);
        columns();
        part.open("sheetData");
        sheet.rows().forEach(row -> row(row, true));
        sheet.generated().ifPresent(rows -> {
            for (int at = 0; at < rows.count(); at++) {
                Row row = new Row(rows.first() + at);
                rows.fill().accept(row);
                row(row, false);
            }
        });
        part.close(1);
        if (!sheet.merged().isEmpty()) {
            part.open("mergeCells", "count", String.valueOf(sheet.merged().size()));
            sheet.merged().forEach(cells -> part.leaf("mergeCell", "ref", cells.formatAsString()));
            part.close(1);
        }
        rules();
        picks();
        boolean page = sheet.printing() == Sheet.Printing.ONE_PAGE;
        if (page) {
            part.leaf("printOptions", "horizontalCentered", "1");
        }
        String margin = page ? "0.5" : "0.7";
        String above = page ? "0.5" : "0.75";
        part.leaf("pageMargins", "left", margin, "right", margin, "top", above, "bottom", above, "header", "0.3", "footer", "0.3");
        boolean fits = sheet.printing() != Sheet.Printing.AS_IT_COMES;
        part.leaf("pageSetup", "paperSize", "9", "fitToWidth", fits ? "1" : null, "fitToHeight", page ? "1" : fits ? "0" : null, "orientation", "landscape");
        drawing.ifPresent(id -> part.leaf("drawing", "r:id", id));
        if (!sheet.dataBars().isEmpty()) {
            part.open("extLst").open("ext", "uri", OF_SHEET).space("x14").space("xm").open("x14:conditionalFormattings");
            sheet.dataBars().forEach(this::extended);
            part.close(3);
        }
    }

    private void view(boolean shown) {
        part.open("sheetViews").open("sheetView", "showGridLines", sheet.hasGridlines() ? null : "0", "tabSelected", shown ? "1" : null, "workbookViewId", "0");
        int across = sheet.columnsInSight();
        int down = sheet.rowsInSight();
        if (across + down > 0) {
            String pane = across == 0 ? "bottomLeft" : down == 0 ? "topRight" : "bottomRight";
            part.leaf("pane", "xSplit", across == 0 ? null : String.valueOf(across), "ySplit", down == 0 ? null : String.valueOf(down), "topLeftCell", new CellReference(down, across).formatAsString(), "activePane", pane, "state", "frozen");
            part.leaf("selection", "pane", pane);
        }
        part.close(2);
    }

    private void columns() {
        if (sheet.columns().isEmpty()) {
            return;
        }
        part.open("cols");
        int folded = -1;
        for (Sheet.Columns some : sheet.columns()) {
            part.leaf("col", "min", String.valueOf(some.first() + 1), "max", String.valueOf(some.last() + 1), "width", String.valueOf(some.width()), "hidden", some.folded() ? "1" : null, "customWidth", "1",
                    "outlineLevel", some.folded() ? "1" : null);
            folded = some.folded() ? some.last() : folded;
        }
        if (folded >= 0) {
            part.leaf("col", "min", String.valueOf(folded + 2), "max", String.valueOf(folded + 2), "width", AFTER_FOLDED, "collapsed", "1");
        }
        part.close(1);
    }

    private void row(Row row, boolean sharing) {
        String line = String.valueOf(row.at() + 1);
        boolean sized = row.height().isPresent();
        part.open("row", "r", line, "ht", sized ? String.valueOf(row.height().getAsDouble()) : null, "customHeight", sized ? "1" : null);
        for (int column = 0; column <= row.lastColumn(); column++) {
            Optional<Cell> cell = row.find(column);
            if (cell.isPresent()) {
                cell(cell.get(), letters(column) + line, sharing);
            }
        }
        part.close(1);
    }

    private String letters(int column) {
        if (column >= letters.length) {
            String[] more = new String[column + 64];
            for (int at = 0; at < more.length; at++) {
                more[at] = CellReference.convertNumToColString(at);
            }
            letters = more;
        }
        return letters[column];
    }

    private void cell(Cell cell, String at, boolean sharing) {
        Optional<Object> value = cell.value();
        boolean worked = cell.formula().isPresent();
        int style = styles.number(cell.look());
        String kind = value.isEmpty() ? null : value.get() instanceof String ? worked ? "str" : sharing ? "s" : "inlineStr" : value.get() instanceof Cell.Missing ? "e"
                : value.get() instanceof Boolean && !worked ? "b" : null; // a truth that a formula gives is written as 1 or 0: one that says its kind is worked out anew in the midst of drawing by some programs, which end then
        part.open("c", "r", at, "s", style == 0 ? null : String.valueOf(style), "t", kind);
        cell.formula().ifPresent(formula -> {
            if (formula.length() > SheetBounds.FORMULA) {
                throw SheetBounds.tooLong(Place.of("sheet '" + sheet.name() + "', cell " + at), "the formula", formula.length(), SheetBounds.FORMULA, "take the expression apart with 'add'");
            }
            part.element("f", formula);
        });
        value.ifPresent(what -> value(what, worked, sharing));
        part.close(1);
    }

    private void value(Object value, boolean worked, boolean sharing) {
        if (value instanceof String words) {
            if (words.length() > SheetBounds.CELL_TEXT) {
                throw new BadInput(Place.of("sheet '" + sheet.name() + "'"), ProblemKind.TOO_LARGE, "a cell of a sheet takes " + SheetBounds.CELL_TEXT + " characters, and a title or a text in the tables has more");
            }
            if (worked) {
                part.element("v", escaped(words));
            } else if (sharing) {
                part.element("v", String.valueOf(texts.computeIfAbsent(words, each -> texts.size())));
            } else {
                text(part.open("is"), words).close(1);
            }
        } else if (value instanceof LocalDate date) {
            part.element("v", String.valueOf(DateUtil.getExcelDate(date)));
        } else if (value instanceof Boolean truth) {
            part.element("v", truth ? "1" : "0");
        } else {
            part.element("v", value instanceof Cell.Missing ? "#N/A" : String.valueOf(value));
        }
    }

    /** A text, in an element that holds one. */
    static OfficeXml text(OfficeXml part, String words) {
        boolean edged = !words.isEmpty() && (Character.isWhitespace(words.charAt(0)) || Character.isWhitespace(words.charAt(words.length() - 1)) || words.indexOf('\n') >= 0);
        return part.open("t", "xml:space", edged ? "preserve" : null).words(escaped(words)).close(1);
    }

    private static String escaped(String words) {
        String safe = words.indexOf("_x") < 0 ? words : ESCAPE.matcher(words).replaceAll(Matcher.quoteReplacement("_x005F_"));
        return safe.indexOf('\r') < 0 ? safe : safe.replace("\r", "_x000D_");
    }

    private void rules() {
        int priority = 1;
        for (Sheet.Rule rule : sheet.rules()) {
            part.open("conditionalFormatting", "sqref", rule.cells().formatAsString()).open("cfRule", "type", "expression", "dxfId", String.valueOf(styles.rule(rule.color())), "priority", String.valueOf(priority++))
                    .element("formula", rule.formula()).close(2);
        }
        for (DataBar bar : sheet.dataBars()) {
            part.open("conditionalFormatting", "sqref", bar.cells().formatAsString()).open("cfRule", "type", "dataBar", "priority", String.valueOf(priority++)).open("dataBar", "minLength", "0", "maxLength", "100", "showValue", "0");
            part.leaf("cfvo", "type", "formula", "val", bar.least()).leaf("cfvo", "type", "formula", "val", bar.largest()).leaf("color", "rgb", "FF" + OfficeXml.hex(bar.above())).close(1);
            part.open("extLst").open("ext", "uri", OF_RULE).space("x14").element("x14:id", id(bar)).close(4);
        }
    }

    private String id(DataBar bar) {
        return "{" + UUID.nameUUIDFromBytes((sheet.name() + " " + bar.cells().formatAsString()).getBytes(StandardCharsets.UTF_8)).toString().toUpperCase(Locale.ROOT) + "}";
    }

    /**
     * What the first edition of the format has no words for: bars are flat, and start at 0, to the left below it. Programs that don't know
     * the extension start them at the least figure, which is 0 where none is below it.
     */
    private void extended(DataBar bar) {
        part.open("x14:conditionalFormatting").open("x14:cfRule", "type", "dataBar", "id", id(bar)).open("x14:dataBar", "minLength", "0", "maxLength", "100", "showValue", "0", "gradient", "0", "axisPosition", "automatic");
        for (String end : List.of(bar.least(), bar.largest())) {
            part.open("x14:cfvo", "type", "formula").element("xm:f", end).close(1);
        }
        part.leaf("x14:negativeFillColor", "rgb", "FF" + OfficeXml.hex(bar.below())).leaf("x14:axisColor", "rgb", "FF000000").close(2).element("xm:sqref", bar.cells().formatAsString()).close(1);
    }

    private void picks() {
        if (sheet.picks().isEmpty()) {
            return;
        }
        part.open("dataValidations", "count", String.valueOf(sheet.picks().size()));
        for (Sheet.Picks picks : sheet.picks()) {
            part.open("dataValidation", "type", "list", "allowBlank", "1", "showErrorMessage", "1", "errorTitle", picks.title(), "error", picks.message(), "sqref",
                    new CellRangeAddress(picks.row(), picks.row(), picks.column(), picks.column()).formatAsString()).element("formula1", picks.from()).close(1);
        }
        part.close(1);
    }
}
