package dev.trellisgorge.engine.workbook;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.conformance.RandomPlan.Within;
import dev.trellisgorge.engine.Engine;
import dev.trellisgorge.engine.Engines;
import dev.trellisgorge.engine.Options;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.pattern.Gallery;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.test.TestSize;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What another program draws of native charts is what their cells say. */
public class DrawnTest {
    private static final int A_START = 50;

    @DataProvider
    public Object[][] kinds() {
        return new Object[][] {{"xlsx", new WorkbookEngine()}, {"pptx", new SlideEngine()}};
    }

    @Test(dataProvider = "kinds", groups = TestSize.SLOW)
    public void everyBarMarkAndLabelStandsWhereItsCellSays(String kind, Engine engine) throws Exception {
        Office.require();
        // With every build those that differ most from what programs like to draw; the others are looked at once their cells are edited.
        List<Gallery.Example> some = TestSize.of(1, 2) == 1 ? List.of() : Gallery.all();
        assertThat(DrawnCharts.differences(Gallery.bothWays(Stream.concat(some.stream(), Gallery.narrow().stream()).toList(), engine), kind)).isEqualTo(Map.of());
    }

    /** Figures that change sides, become zero, three times as large or a tenth; one stays, with the decimals that it has. */
    private static Table edited(Table table) {
        double[] factors = {0.25, -1, 1, 0, 3, -0.1, 0.5};
        return Table.of(table.name(), table.columns().stream().map(column -> column.kind() != Kind.NUMBER ? column : Column.numbers(column.name(), IntStream.range(0, column.size())
                .mapToDouble(row -> !column.isPresent(row) ? Double.NaN : factors[row] == 1 ? column.number(row) : isWhole(column) ? Math.rint(column.number(row) * factors[row]) : Math.rint(column.number(row) * factors[row] * 2) / 2).toArray())).toArray(Column[]::new));
    }

    private static boolean isWhole(Column column) {
        return IntStream.range(0, column.size()).filter(column::isPresent).allMatch(row -> column.number(row) == Math.rint(column.number(row)));
    }

    @Test(groups = TestSize.SLOW)
    public void whatIsDrawnFollowsEditedCells() throws Exception {
        Office.require();
        List<Gallery.Example> before = Stream.concat(Gallery.some().stream(), Gallery.narrow().stream()).toList();
        List<Gallery.Example> after = before.stream().map(example -> new Gallery.Example(example.chart(), edited(example.table()), example.settings())).toList();
        List<PlainChart> wanted = Gallery.bothWays(after, new WorkbookEngine());
        Set<String> possible = wanted.stream().map(PlainChart::name).collect(Collectors.toSet());
        List<PlainChart> drawn = Gallery.bothWays(before, new WorkbookEngine()).stream().filter(chart -> possible.contains(chart.name())).toList();
        Path file = Files.createTempFile("edited", ".xlsx");
        try {
            try (OutputStream out = Files.newOutputStream(file)) {
                Engines.draw(drawn.stream().map(Page::of).toList(), "xlsx", Options.STANDARD, out);
            }
            DrawnCharts.edit(file, drawn, wanted);
            assertThat(DrawnCharts.differences(wanted, file, true)).isEqualTo(Map.of());
        } finally {
            Files.delete(file);
        }
    }

    /** Each as its own file, so that one at which the program ends is known. */
    @Test(groups = TestSize.SLOW)
    public void noWorkbookEndsTheProgramThatPrintsIt() throws Exception {
        Office.require();
        int many = TestSize.of(40, 1000);
        Path folder = Files.createTempDirectory("printed");
        try {
            List<Path> files = new ArrayList<>();
            for (List<PlanSheets.Drawn> book : PlanSheets.books(many, Within.SHEET)) {
                for (PlanSheets.Drawn each : book) {
                    files.add(Files.move(PlanSheets.drawn(List.of(each), "xlsx"), folder.resolve("plan" + files.size() + ".xlsx")));
                }
            }
            for (int from = 0; from < files.size(); from += A_START) {
                List<Path> some = files.subList(from, Math.min(files.size(), from + A_START));
                assertThat(Office.printed(some, folder)).as("pages of %s", some).hasSameSizeAs(some);
            }
        } finally {
            Office.delete(folder);
        }
    }
}
