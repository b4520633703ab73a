package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.PlainChart;
import dev.trellisgorge.chart.Size;
import org.apache.poi.ss.usermodel.Cell;
import org.apache.poi.ss.usermodel.PageMargin;
import org.apache.poi.ss.usermodel.Row;
import org.apache.poi.xssf.usermodel.XSSFClientAnchor;
import org.apache.poi.xssf.usermodel.XSSFSheet;

/** The sheet that a reader opens: the chart, and below it the settings it follows and whether its pieces add back. */
final class ChartSheet {
    private static final int COLUMN_PIXELS = 64;
    private static final int ROW_PIXELS = 20;

    private final PlainChart chart;
    private final XSSFSheet sheet;
    private final HelperSheet helpers;
    private final SheetNames names;
    private final Styles styles;

    ChartSheet(PlainChart chart, XSSFSheet sheet, HelperSheet helpers, SheetNames names, Styles styles) {
        this.chart = chart;
        this.sheet = sheet;
        this.helpers = helpers;
        this.names = names;
        this.styles = styles;
    }

    void fill(Size size) {
        int columns = Math.max(4, Math.round(size.width() * 0.75f / COLUMN_PIXELS));
        int rows = Math.max(8, Math.round(size.height() * 0.75f / ROW_PIXELS));
        XSSFClientAnchor anchor = new XSSFClientAnchor(0, 0, 0, 0, 0, 0, columns, rows);
        new NativeChart(chart, helpers).drawOn(sheet.createDrawingPatriarch().createChart(anchor));
        int at = rows + 1;
        for (String setting : chart.data().settingsRead()) {
            Row row = sheet.createRow(at++);
            note(row, 0).setCellValue(setting);
            Cell value = note(row, 1);
            value.setCellFormula(names.defined(setting));
            value.setCellValue(chart.data().settings().value(setting));
            note(row, 2).setCellValue("(change it on the sheet Settings)");
        }
        if (helpers.proofs().isPresent()) {
            Cell proof = note(sheet.createRow(at), 0);
            String holds = "The pieces add back to the figures on every row.";
            String fails = "CHECK: the pieces do not add back; see FALSE on the sheet of the series.";
            proof.setCellFormula("IF(AND(" + helpers.proofs().get() + "),\"" + holds + "\",\"" + fails + "\")");
            proof.setCellValue(chart.data().identities().stream().allMatch(this::holds) ? holds : fails);
        }
        print();
    }

    private boolean holds(dev.trellisgorge.formula.Identity identity) {
        var truths = chart.data().evaluate("holds", identity.holdsOrNeedNot());
        return java.util.stream.IntStream.range(0, truths.size()).allMatch(row -> truths.number(row) == 1);
    }

    private Cell note(Row row, int column) {
        Cell cell = row.createCell(column);
        cell.setCellStyle(styles.note());
        return cell;
    }

    private void print() {
        sheet.setDisplayGridlines(false);
        sheet.setHorizontallyCenter(true);
        LiveWorkbook.onePageWide(sheet);
        sheet.getPrintSetup().setFitHeight((short) 1);
        for (PageMargin margin : new PageMargin[] {PageMargin.LEFT, PageMargin.RIGHT, PageMargin.TOP, PageMargin.BOTTOM}) {
            sheet.setMargin(margin, 0.5);
        }
    }
}
