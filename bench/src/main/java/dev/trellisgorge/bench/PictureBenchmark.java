package dev.trellisgorge.bench;

import dev.trellisgorge.chart.Series;
import dev.trellisgorge.chart.Size;
import dev.trellisgorge.engine.Engines;
import dev.trellisgorge.engine.Options;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Columns;
import dev.trellisgorge.pattern.Split;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.stream.IntStream;
import org.jfree.chart.ChartFactory;
import org.jfree.chart.ChartUtils;
import org.jfree.chart.JFreeChart;
import org.jfree.chart.labels.StandardCategoryItemLabelGenerator;
import org.jfree.chart.plot.PlotOrientation;
import org.jfree.data.category.DefaultCategoryDataset;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/** A chart of twelve categories to PNG, 1280 by 800: through the engine, and by the drawing library alone from the same series. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(value = 1, jvmArgs = "-Djava.awt.headless=true")
@Warmup(iterations = 4, time = 2)
@Measurement(iterations = 6, time = 2)
public class PictureBenchmark {
    private static final int CATEGORIES = 12;

    private final PlainChart chart = Chart.of("station", Columns.of("mwh").classify(Split.at(400))).title("Generation").over(Table.of("stations",
            Column.texts("station", IntStream.range(0, CATEGORIES).mapToObj(i -> "Station " + i).toArray(String[]::new)),
            Column.numbers("mwh", IntStream.range(0, CATEGORIES).mapToDouble(i -> 100 + i * 137 % 500).toArray())), Settings.NONE);

    @Benchmark
    public Object engine() throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        Engines.draw(List.of(Page.of(chart)), "png", Options.STANDARD, out);
        return out;
    }

    @Benchmark
    public Object libraryAlone() throws IOException {
        DefaultCategoryDataset data = new DefaultCategoryDataset();
        for (Series series : chart.series()) {
            Column cells = chart.data().column(series.column());
            for (int row = 0; row < CATEGORIES; row++) {
                data.addValue(cells.isPresent(row) ? cells.number(row) : null, series.name(), chart.categoryText(row));
            }
        }
        JFreeChart drawn = ChartFactory.createStackedBarChart("Generation", null, null, data, PlotOrientation.VERTICAL, true, false, false);
        drawn.getCategoryPlot().getRenderer().setDefaultItemLabelGenerator(new StandardCategoryItemLabelGenerator());
        drawn.getCategoryPlot().getRenderer().setDefaultItemLabelsVisible(true);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ChartUtils.writeChartAsPNG(out, drawn, Size.STANDARD.width(), Size.STANDARD.height());
        return out;
    }
}
