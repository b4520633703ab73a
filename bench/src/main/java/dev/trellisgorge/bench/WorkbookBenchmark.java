package dev.trellisgorge.bench;

import dev.trellisgorge.engine.Engines;
import dev.trellisgorge.engine.Options;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Columns;
import dev.trellisgorge.pattern.Split;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.pattern.Waterfall;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.shape.Total;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.stream.IntStream;
import org.apache.poi.ss.usermodel.Cell;
import org.apache.poi.ss.usermodel.CellType;
import org.apache.poi.ss.usermodel.Row;
import org.apache.poi.ss.usermodel.Sheet;
import org.apache.poi.xssf.streaming.SXSSFWorkbook;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/**
 * A workbook of 100,000 raw rows in a small heap, with live helper formulas over each of them, or with a live total of them and a
 * waterfall of that: through the engine, and the same cells by the workbook
 * library's streaming writer alone. What the cells hold is read from a workbook of three rows, whose last row is then written
 * with other row numbers.
 */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(value = 1, jvmArgs = {"-Djava.awt.headless=true", "-Xmx256m"})
@Warmup(iterations = 2, time = 5)
@Measurement(iterations = 4, time = 5)
public class WorkbookBenchmark {
    private static final int ROWS = 100_000;
    private static final int SHORT = 3;
    private static final int MONTHS = 12;
    private static final String MARK = "\u0001";

    @Param({"columns", "waterfall of a total"})
    private String kind;
    private PlainChart chart;
    private List<List<Model>> sheets;

    /** A cell of every row: its formula with the row marked, or its kind alone. */
    private record Model(CellType type, CellType result, String formula) {
    }

    @Setup
    public void make() throws IOException {
        chart = chart(ROWS);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        Engines.draw(List.of(Page.of(chart(SHORT))), "xlsx", Options.STANDARD, out);
        sheets = new ArrayList<>();
        try (XSSFWorkbook book = new XSSFWorkbook(new ByteArrayInputStream(out.toByteArray()))) {
            for (String name : List.of("stations", isTotal() ? "chart rows" : "chart series")) {
                List<Model> models = new ArrayList<>();
                for (Cell cell : book.getSheet(name).getRow(name.equals("stations") ? SHORT : SHORT + 5)) { // totals of so few rows stand further up
                    boolean formula = cell.getCellType() == CellType.FORMULA;
                    models.add(new Model(cell.getCellType(), formula ? cell.getCachedFormulaResultType() : cell.getCellType(),
                            formula ? cell.getCellFormula().replaceAll("(?<=[A-Z])(" + (SHORT + 1) + "|" + (SHORT + 6) + ")\\b", MARK) : ""));
                }
                sheets.add(models);
            }
        }
    }

    private boolean isTotal() {
        return !kind.equals("columns");
    }

    private PlainChart chart(int rows) {
        if (isTotal()) {
            Table table = Table.of("stations", Column.texts("month", IntStream.range(0, rows).mapToObj(i -> "Month " + (rows == SHORT ? 0 : i % MONTHS)).toArray(String[]::new)),
                    Column.texts("station", IntStream.range(0, rows).mapToObj(i -> "Station " + i).toArray(String[]::new)),
                    Column.numbers("mwh", IntStream.range(0, rows).mapToDouble(i -> 100 + i * 137L % 500).toArray()));
            Executor executor = Executor.over(table, Settings.of("goal", 400));
            Pipeline steps = Pipeline.of("stations").then(new Total(List.of("month"), List.of(new Total.Figure("mwh", Total.Fold.SUM, "mwh"))));
            return Chart.of("month", Waterfall.of("mwh")).plan(steps, executor.known()).over(executor);
        }
        Table table = Table.of("stations", Column.texts("station", IntStream.range(0, rows).mapToObj(i -> "Station " + i).toArray(String[]::new)),
                Column.numbers("mwh", IntStream.range(0, rows).mapToDouble(i -> 100 + i * 137L % 500).toArray()));
        return Chart.of("station", Columns.of("mwh").classify(Split.atSetting("goal"))).over(table, Settings.of("goal", 400));
    }

    @Benchmark
    public void engine() throws IOException {
        Engines.draw(List.of(Page.of(chart)), "xlsx", Options.STANDARD, OutputStream.nullOutputStream());
    }

    @Benchmark
    public void libraryAlone() throws IOException {
        try (SXSSFWorkbook book = new SXSSFWorkbook()) {
            for (List<Model> models : sheets) {
                Sheet sheet = book.createSheet();
                for (int row = 1; row <= ROWS; row++) {
                    Row line = sheet.createRow(row);
                    for (int column = 0; column < models.size(); column++) {
                        fill(line.createCell(column), models.get(column), row);
                    }
                }
            }
            book.write(OutputStream.nullOutputStream());
        }
    }

    private static void fill(Cell cell, Model model, int row) {
        if (model.type() == CellType.FORMULA) {
            cell.setCellFormula(model.formula().replace(MARK, String.valueOf(row + 1)));
        }
        switch (model.result()) {
            case NUMERIC -> cell.setCellValue(100 + row * 137L % 500);
            case BOOLEAN -> cell.setCellValue(true);
            case ERROR -> cell.setCellErrorValue((byte) 42);
            default -> cell.setCellValue("Station " + row);
        }
    }
}
