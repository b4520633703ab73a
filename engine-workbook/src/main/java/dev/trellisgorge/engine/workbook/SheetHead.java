package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Role;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import dev.trellisgorge.sheet.Cell;
import dev.trellisgorge.sheet.CellLook;
import dev.trellisgorge.sheet.Row;
import dev.trellisgorge.sheet.Sheet;
import org.apache.poi.ss.util.CellRangeAddress;
import org.apache.poi.ss.util.CellReference;
import dev.trellisgorge.sheet.Sheet;

/** What stands over the rows of a helper sheet: what it is, whether it all adds back, and the name and meaning of each column. */
final class SheetHead {
    static final String OK = "OK";
    static final String FAILS = "fails";
    private static final double LINE_POINTS = 12;
    private static final double NAME_POINTS = 13.5;
    private static final int MOST_LINES = 10;
    private static final int LONGEST = 255;
    private static final int MOST_ARGUMENTS = 30;
    /** Of the small words under a name, how many characters go into the width of one digit. */
    private static final double SIGNS_A_DIGIT = 1.15;

    private final Sheet sheet;
    private final List<SheetColumn> columns;

    SheetHead(Sheet sheet, List<SheetColumn> columns) {
        this.sheet = sheet;
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
        formula(cell(SheetLayout.TITLE, 0, title, Styles.title()), live);
        cell(SheetLayout.WHAT, 0, what, Styles.note());
        Row names = row(SheetLayout.NAMES);
        int longest = 1;
        int longestName = 1;
        for (int i = 0; i < columns.size(); i++) {
            SheetColumn column = columns.get(i);
            cell(names, i, column.name(), Styles.header());
            formula(cell(SheetLayout.SHOWN_AS, i, column.shown(), Styles.note()), column.live());
            cell(SheetLayout.MEANINGS, i, column.meaning(), Styles.meaning());
            longest = Math.max(longest, lines(column.meaning(), column.width()));
            longestName = Math.max(longestName, lines(column.name(), column.width()));
        }
        row(SheetLayout.MEANINGS).height(Math.min(MOST_LINES, longest + 1) * LINE_POINTS);
        names.height(Math.min(MOST_LINES, longestName > 1 ? longestName + 1 : 1) * NAME_POINTS); // lines break at words
        if (proofs != null && rows > 0) {
            proof(proofs, rows, fails);
        }
        sheet.keepInSight(1, SheetLayout.FIRST - 1);
        sheet.repeat(SheetLayout.NAMES - 1, SheetLayout.MEANINGS);
    }

    /** A formula that says what a cell holds. */
    private static void formula(Cell cell, Optional<String> live) {
        String words = cell.text();
        live.ifPresent(formula -> {
            cell.formula(formula);
            cell.value(words);
        });
    }

    private static int lines(String words, int width) {
        return (int) Math.ceil(words.length() / (width * SIGNS_A_DIGIT));
    }

    /** Where there is no figure, {@code #N/A} stands in the colour of what matters less. */
    static void mute(Sheet sheet, int rows, int columns) {
        if (rows == 0 || columns == 0) {
            return;
        }
        sheet.rule(new CellRangeAddress(SheetLayout.FIRST - 1, SheetLayout.line(rows) - 2, 0, columns - 1), "ISNA(A" + SheetLayout.FIRST + ")", Role.MUTED.color());
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
        words.forEach((column, said) -> cell(SheetLayout.PROOF, column, said, Styles.note()));
    }

    /** The total of each proof over its column, and that of them all at the left. */
    private void proof(CellRangeAddress proofs, int rows, List<Optional<Integer>> fails) {
        cell(SheetLayout.PROOF, 0, "Proof", Styles.header());
        for (int at = proofs.getFirstColumn(); at <= proofs.getLastColumn(); at++) {
            String cells = new CellRangeAddress(SheetLayout.FIRST - 1, SheetLayout.line(rows) - 2, at, at).formatAsString();
            Optional<Integer> failing = fails.get(at - proofs.getFirstColumn());
            Cell total = cell(SheetLayout.PROOF, at, failing.map(row -> "row " + SheetLayout.line(row) + " " + FAILS).orElse(OK), Styles.header());
            String value = total.text();
            total.formula("IF(COUNTIF(" + cells + ",\"" + OK + "\")=ROWS(" + cells + "),\"" + OK + "\",IFERROR(\"row \"&(MATCH(\"" + FAILS + "\"," + cells + ",0)+" + (SheetLayout.FIRST - 1)
                    + ")&\" " + FAILS + "\",\"a row is an error\"))");
            total.value(value);
        }
        String totals = new CellRangeAddress(SheetLayout.PROOF - 1, SheetLayout.PROOF - 1, proofs.getFirstColumn(), proofs.getLastColumn()).formatAsString();
        String first = CellReference.convertNumToColString(proofs.getFirstColumn());
        String last = CellReference.convertNumToColString(proofs.getLastColumn());
        boolean one = first.equals(last);
        String where = FAILS + ", see the columns " + first + " to " + last;
        boolean all = fails.stream().noneMatch(Optional::isPresent);
        Cell whole = cell(SheetLayout.PROOF, 1, "", Styles.header());
        String single = all ? OK : "row " + SheetLayout.line(fails.stream().flatMap(Optional::stream).findFirst().orElseThrow()) + " " + FAILS;
        whole.formula(one ? first + SheetLayout.PROOF : "IF(COUNTIF(" + totals + ",\"" + OK + "\")=COLUMNS(" + totals + "),\"" + OK + "\",\"" + where + "\")");
        whole.value(one ? single : all ? OK : where);
    }

    private Row row(int line) {
        return sheet.row(line - 1);
    }

    private Cell cell(int line, int column, String words, CellLook style) {
        return cell(row(line), column, words, style);
    }

    private static Cell cell(Row row, int column, String words, CellLook style) {
        Cell cell = row.cell(column);
        cell.look(style);
        if (!words.isEmpty()) {
            cell.value(words.length() <= LONGEST ? words : words.substring(0, LONGEST - 1) + "…");
        }
        return cell;
    }
}
