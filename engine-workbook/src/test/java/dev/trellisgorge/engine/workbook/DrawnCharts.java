package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.drawn.DrawnChart;
import dev.trellisgorge.drawn.DrawnPage;
import dev.trellisgorge.engine.Engines;
import dev.trellisgorge.engine.Options;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.apache.poi.ss.usermodel.Cell;
import org.apache.poi.ss.usermodel.CellType;
import org.apache.poi.ss.usermodel.Row;
import org.apache.poi.ss.usermodel.Sheet;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;

/** Native charts as an office suite draws them, held to their cells. */
public final class DrawnCharts {
    private DrawnCharts() {
    }

    /** What differs from their cells where charts are drawn as a file of a kind, by their names. */
    public static Map<String, List<String>> differences(List<PlainChart> charts, String kind) throws IOException, InterruptedException {
        Path folder = Files.createTempDirectory("drawn");
        try {
            Path file = folder.resolve("charts." + kind);
            try (OutputStream out = Files.newOutputStream(file)) {
                Engines.draw(charts.stream().map(Page::of).toList(), kind, Options.STANDARD, out);
            }
            return differences(charts, file, false);
        } finally {
            Office.delete(folder);
        }
    }

    /**
     * The same of a file that holds the charts, each on a page of its own.
     *
     * @param unlessTold without the labels of charts under which it says that they are texts of cells, which not every program follows
     */
    public static Map<String, List<String>> differences(List<PlainChart> charts, Path file, boolean unlessTold) throws IOException, InterruptedException {
        Path out = Files.createTempDirectory("pages");
        try {
            Office.convert(List.of(file), "pdf", out);
            String name = file.getFileName().toString();
            List<DrawnPage> pages = DrawnPage.of(out.resolve(name.substring(0, name.lastIndexOf('.')) + ".pdf"));
            Map<String, List<String>> differences = new LinkedHashMap<>();
            for (int i = 0; i < charts.size(); i++) {
                List<String> some = DrawnChart.differences(charts.get(i), pages.get(i));
                boolean told = unlessTold && pages.get(i).words().stream().anyMatch(words -> words.text().contains("some labels are texts of cells"));
                if (!some.isEmpty() && !(told && some.stream().allMatch(each -> each.contains("no label") || each.contains("stands on a bar")))) {
                    differences.put(charts.get(i).name(), some);
                }
            }
            return differences;
        } finally {
            Office.delete(out);
        }
    }

    /** Types the figures of some charts over those that a workbook was drawn with. */
    public static void edit(Path file, List<PlainChart> drawn, List<PlainChart> wanted) throws IOException {
        try (InputStream in = Files.newInputStream(file); XSSFWorkbook book = new XSSFWorkbook(in)) {
            for (int i = 0; i < drawn.size(); i++) {
                Table before = drawn.get(i).data().rows().whole();
                Table after = wanted.get(i).data().rows().whole();
                for (Sheet sheet : book) {
                    if (holds(sheet, before)) {
                        type(sheet, after);
                    }
                }
            }
            try (OutputStream out = Files.newOutputStream(file)) {
                book.write(out);
            }
        }
    }

    private static boolean holds(Sheet sheet, Table table) {
        Row header = sheet.getRow(0);
        for (int column = 0; column < table.columns().size(); column++) {
            Column cells = table.columns().get(column);
            Cell name = header == null ? null : header.getCell(column);
            if (name == null || name.getCellType() != CellType.STRING || !name.getStringCellValue().equals(cells.name())) {
                return false;
            }
            for (int row = 0; row < cells.size(); row++) {
                if (cells.kind() == Kind.NUMBER && cells.isPresent(row) && sheet.getRow(row + 1).getCell(column).getNumericCellValue() != cells.number(row)) {
                    return false;
                }
            }
        }
        return true;
    }

    private static void type(Sheet sheet, Table table) {
        for (int column = 0; column < table.columns().size(); column++) {
            Column cells = table.columns().get(column);
            for (int row = 0; row < cells.size(); row++) {
                if (cells.kind() == Kind.NUMBER && cells.isPresent(row)) {
                    sheet.getRow(row + 1).getCell(column).setCellValue(cells.number(row));
                }
            }
        }
    }
}
