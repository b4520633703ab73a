package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Role;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.apache.poi.ss.usermodel.Cell;
import org.apache.poi.ss.usermodel.CellStyle;
import org.apache.poi.ss.usermodel.PrintSetup;
import org.apache.poi.ss.usermodel.Row;
import org.apache.poi.ss.usermodel.Sheet;
import org.apache.poi.ss.util.CellRangeAddress;
import org.apache.poi.ss.util.CellReference;
import org.apache.poi.xssf.usermodel.XSSFConditionalFormattingRule;
import org.apache.poi.xssf.usermodel.XSSFSheet;

/** What stands over the rows of a helper sheet: what it is, whether it all adds back, and the name and meaning of each column. */
final class SheetHead {
    static final String OK = "OK";
    static final String FAILS = "fails";
    private static final float LINE_POINTS = 12;
    private static final float NAME_POINTS = 13.5f;
    private static final int MOST_LINES = 10;
    private static final int LONGEST = 255;
    private static final int MOST_ARGUMENTS = 30;
    /** Of the small words under a name, how many characters go into the width of one digit. */
    private static final double SIGNS_A_DIGIT = 1.15;

    private final Sheet sheet;
    private final Styles styles;
    private final List<SheetColumn> columns;

    SheetHead(Sheet sheet, Styles styles, List<SheetColumn> columns) {
        this.sheet = sheet;
        this.styles = styles;
        this.columns = columns;
    }

    /**
     * Lines that stay in sight, with the first column.
     *
     * @param live   a formula for the title, where cells say it
     * @param proofs the columns of the proof; null where there are none
     * @param rows   how many rows stand below
     * @param fails  for each of the proofs the first row, from 0, on which it fails; empty where it holds on all
     */
    void write(String title, Optional<String> live, String what, CellRangeAddress proofs, int rows, List<Optional<Integer>> fails) {
        formula(cell(SheetLayout.TITLE, 0, title, styles.title()), live);
        cell(SheetLayout.WHAT, 0, what, styles.note());
        Row names = row(SheetLayout.NAMES);
        int longest = 1;
        int longestName = 1;
        for (int i = 0; i < columns.size(); i++) {
            SheetColumn column = columns.get(i);
            cell(names, i, column.name(), styles.header());
            formula(cell(SheetLayout.SHOWN_AS, i, column.shown(), styles.note()), column.live());
            cell(SheetLayout.MEANINGS, i, column.meaning(), styles.meaning());
            longest = Math.max(longest, lines(column.meaning(), column.width()));
            longestName = Math.max(longestName, lines(column.name(), column.width()));
        }
        row(SheetLayout.MEANINGS).setHeightInPoints(Math.min(MOST_LINES, longest + 1) * LINE_POINTS);
        names.setHeightInPoints(Math.min(MOST_LINES, longestName > 1 ? longestName + 1 : 1) * NAME_POINTS); // lines break at words
        if (proofs != null && rows > 0) {
            proof(proofs, rows, fails);
        }
        sheet.createFreezePane(1, SheetLayout.FIRST - 1);
        sheet.setRepeatingRows(new CellRangeAddress(SheetLayout.NAMES - 1, SheetLayout.MEANINGS - 1, -1, -1));
        sheet.getPrintSetup().setLandscape(true);
        sheet.getPrintSetup().setPaperSize(PrintSetup.A4_PAPERSIZE);
    }

    /** A formula that says what a cell holds. */
    private static void formula(Cell cell, Optional<String> live) {
        String words = cell.getStringCellValue();
        live.ifPresent(formula -> {
            cell.setCellFormula(formula);
            cell.setCellValue(words);
        });
    }

    private static int lines(String words, int width) {
        return (int) Math.ceil(words.length() / (width * SIGNS_A_DIGIT));
    }

    /** Where there is no figure, {@code #N/A} stands in the colour of what matters less. */
    static void mute(XSSFSheet sheet, int rows, int columns) {
        if (rows == 0 || columns == 0) {
            return;
        }
        XSSFConditionalFormattingRule absent = sheet.getSheetConditionalFormatting().createConditionalFormattingRule("ISNA(A" + SheetLayout.FIRST + ")");
        Styles.color(absent, ChartFrame.bytes(Role.MUTED.color()));
        sheet.getSheetConditionalFormatting().addConditionalFormatting(new CellRangeAddress[] {new CellRangeAddress(SheetLayout.FIRST - 1, SheetLayout.line(rows) - 2, 0, columns - 1)}, absent);
    }

    /** A formula that holds where all of some conditions do. */
    static String all(List<String> conditions) {
        if (conditions.size() <= MOST_ARGUMENTS) {
            return conditions.size() == 1 ? conditions.get(0) : "AND(" + String.join(",", conditions) + ")";
        }
        int half = conditions.size() / 2;
        return "AND(" + all(conditions.subList(0, half)) + "," + all(conditions.subList(half, conditions.size())) + ")";
    }

    /** Words over columns, in the line of the proof. */
    void over(Map<Integer, String> words) {
        words.forEach((column, said) -> cell(SheetLayout.PROOF, column, said, styles.note()));
    }

    /** The total of each proof over its column, and that of them all at the left. */
    private void proof(CellRangeAddress proofs, int rows, List<Optional<Integer>> fails) {
        cell(SheetLayout.PROOF, 0, "Proof", styles.header());
        for (int at = proofs.getFirstColumn(); at <= proofs.getLastColumn(); at++) {
            String cells = new CellRangeAddress(SheetLayout.FIRST - 1, SheetLayout.line(rows) - 2, at, at).formatAsString();
            Optional<Integer> failing = fails.get(at - proofs.getFirstColumn());
            Cell total = cell(SheetLayout.PROOF, at, failing.map(row -> "row " + SheetLayout.line(row) + " " + FAILS).orElse(OK), styles.header());
            String value = total.getStringCellValue();
            total.setCellFormula("IF(COUNTIF(" + cells + ",\"" + OK + "\")=ROWS(" + cells + "),\"" + OK + "\",IFERROR(\"row \"&(MATCH(\"" + FAILS + "\"," + cells + ",0)+" + (SheetLayout.FIRST - 1)
                    + ")&\" " + FAILS + "\",\"a row is an error\"))");
            total.setCellValue(value);
        }
        String totals = new CellRangeAddress(SheetLayout.PROOF - 1, SheetLayout.PROOF - 1, proofs.getFirstColumn(), proofs.getLastColumn()).formatAsString();
        String first = CellReference.convertNumToColString(proofs.getFirstColumn());
        String last = CellReference.convertNumToColString(proofs.getLastColumn());
        boolean one = first.equals(last);
        String where = FAILS + ", see the columns " + first + " to " + last;
        boolean all = fails.stream().noneMatch(Optional::isPresent);
        Cell whole = cell(SheetLayout.PROOF, 1, "", styles.header());
        String single = all ? OK : "row " + SheetLayout.line(fails.stream().flatMap(Optional::stream).findFirst().orElseThrow()) + " " + FAILS;
        whole.setCellFormula(one ? first + SheetLayout.PROOF : "IF(COUNTIF(" + totals + ",\"" + OK + "\")=COLUMNS(" + totals + "),\"" + OK + "\",\"" + where + "\")");
        whole.setCellValue(one ? single : all ? OK : where);
    }

    private Row row(int line) {
        return sheet.getRow(line - 1) == null ? sheet.createRow(line - 1) : sheet.getRow(line - 1);
    }

    private Cell cell(int line, int column, String words, CellStyle style) {
        return cell(row(line), column, words, style);
    }

    private static Cell cell(Row row, int column, String words, CellStyle style) {
        Cell cell = row.createCell(column);
        cell.setCellStyle(style);
        if (!words.isEmpty()) {
            cell.setCellValue(words.length() <= LONGEST ? words : words.substring(0, LONGEST - 1) + "…");
        }
        return cell;
    }
}
