package dev.trellisgorge.cli;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.engine.Engines;
import java.net.URL;
import java.net.URLClassLoader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Figures, dates and sizes at their edges, as a user meets them. */
public class EdgesTest {
    private Desk desk;

    @BeforeMethod
    public void make() {
        desk = new Desk();
    }

    @AfterMethod
    public void clean() {
        desk.close();
    }

    private Desk.Answer run(String data, String chart, String... command) {
        desk.with("t.csv", data).with("b.yaml", "brief: 1\ndata: {t: t.csv}\n" + (chart.startsWith("shape") ? chart : "charts:\n  c: {" + chart + "}\n"));
        return desk.type(command);
    }

    private static String rows(int count, String cell) {
        return IntStream.range(0, count).mapToObj(row -> "r" + row + "," + cell).collect(Collectors.joining("\n", "n,v\n", "\n"));
    }

    @Test
    public void tenTenthsAreOne() {
        assertThat(run(rows(10, "0.1"), "pattern: waterfall, category: n, value: v, closing: end", "series", "DESK/b.yaml", "--as", "csv").out()).endsWith("end,,,,,,1,,,1\n");
        assertThat(run("n,v\na,1e16\na,1\na,1\na,-1e16\n", "shape:\n  - total: {by: n, sum: v}\ncharts:\n  c: {pattern: columns, category: n, value: v}\n", "series", "DESK/b.yaml", "--as", "csv").out())
                .isEqualTo("n,value\na,2\n");
    }

    @Test
    public void differenceByRoundingAloneIsTold() {
        String steps = "shape:\n  - add: {x: \"v + 0.2\"}\ncharts:\n";
        Desk.Answer answer = run("n,v\na,0.1\nb,0.1000001\nc,0.05\n", steps + "  c: {pattern: columns, category: n, value: x, classify: {split: {at: 0.3}}}\n  d: {pattern: to-target, category: n, value: x, target: 0.3}\n",
                "check", "DESK/b.yaml");
        assertThat(answer.out()).contains("note   above the limit by rounding alone: a (0.30000000000000004 against 0.3)\n", "note   above the target by rounding alone: a (0.30000000000000004 against 0.3)\n")
                .doesNotContain("rounding alone: b");
    }

    @Test
    public void roundingIsThatOfTheLabel() {
        assertThat(run("n,v\na,0.285\nb,1.005\nc,-0.285\n", "shape:\n  - add: {r: \"ROUND(v, 2)\"}\ncharts:\n  c: {pattern: columns, category: n, value: r, labels: {format: \"0.00\"}}\n", "series", "DESK/b.yaml", "--as", "csv").out())
                .isEqualTo("n,value\na,0.29\nb,1.01\nc,-0.29\n");
    }

    @Test
    public void shareThatIsNoNumberAnyMoreIsAnErrorAtItsRow() {
        for (String ending : List.of("json", "svg", "xlsx", "txt")) {
            assertThat(run("n,v,w\na,4,2\nb,1e10,1e-305\n", "pattern: columns, category: n, value: v, labels: {show: v / w}", "draw", "DESK/b.yaml", "-o", "DESK/o." + ending))
                    .isEqualTo(new Desk.Answer(2, "", "gorge: DESK/t.csv:3: 'b': 'label of value' overflows (infinite)\n"));
        }
    }

    @DataProvider
    Object[][] dates() {
        return new Object[][] {{"0000-02-01", "quarter", "0000-Q1"}, {"9999-12-31", "week", "9999-W52"}, {"0001-01-01", "month", "0001-01"}};
    }

    @Test(dataProvider = "dates")
    public void yearsFromZeroToTheLastOfFourDigitsHavePeriods(String day, String unit, String period) {
        String steps = "shape:\n  - period: {of: d, unit: " + unit + ", as: p}\ncharts:\n  c: {pattern: columns, category: p, value: v}\n";
        assertThat(run("d,v\n" + day + ",1\n", steps, "series", "DESK/b.yaml", "--as", "csv").out()).isEqualTo("p,value\n" + period + ",1\n");
        assertThat(run("d,v\n0000-01-01,1\n", steps.replace(unit, "week"), "check", "DESK/b.yaml").err()).contains("'0000-01-01' is before the year 0 or after 9999");
    }

    @Test
    public void dateThatNoSheetKnowsIsRefusedThere() {
        String chart = "pattern: columns, category: d, value: v";
        assertThat(run("d,v\n1900-03-01,1\n9999-12-31,2\n", chart, "draw", "DESK/b.yaml", "-o", "DESK/o.xlsx").code()).isZero();
        assertThat(run("d,v\n2031-01-01,1\n1900-02-28,2\n", chart, "draw", "DESK/b.yaml", "-o", "DESK/o.xlsx"))
                .isEqualTo(new Desk.Answer(2, "", "gorge: DESK/t.csv:3, column 'd': 1900-02-28 is no date on a sheet of a workbook, which knows 1900-03-01 to 9999-12-31\n"));
    }

    @Test
    public void pictureOfMoreRowsThanPixelsKeepsWhatReachesFarthestAndSaysSo() throws Exception {
        String data = IntStream.range(0, 30_000).mapToObj(row -> "r" + row + "," + (row == 12_345 ? 99 : row == 20_000 ? -50 : row % 10)).collect(Collectors.joining("\n", "n,v\n", "\n"));
        Desk.Answer answer = run(data, "pattern: columns, category: n, value: v, subtitle: Mine", "draw", "DESK/b.yaml", "-o", "DESK/o.svg", "--size", "400x300");
        String sentence = "30,000 rows are more than can be told apart here: of each 150 neighbours those that reach farthest are drawn";
        assertThat(answer).isEqualTo(new Desk.Answer(0, "DESK/o.svg\n", "gorge: DESK/o.svg: 'c': " + sentence
                + "\ngorge: DESK/o.svg: 'c': only every 6th name along the base is written; the others found no room\n"));
        String svg = Files.readString(desk.path("o.svg"));
        assertThat(svg.lines().map(line -> line.split("Mine – ").length - 1).reduce(0, Integer::sum)).isPositive();
        assertThat(svg.split("<rect").length).isLessThan(700);
        assertThat(desk.type("draw", "DESK/b.yaml", "-o", "DESK/o.json").err()).isEmpty();
        assertThat(Files.readString(desk.path("o.json"))).contains("r29999");
    }

    @Test
    public void textBarsThatNobodyCouldReadAreNoPicture() {
        assertThat(run(rows(1_001, "1"), "pattern: text-bar, category: n, value: v", "draw", "DESK/b.yaml", "-o", "DESK/o.png").err())
                .isEqualTo("gorge: chart 'c': a picture shows at most 1000 lines of text, and there are 1001 rows; keep some of them with 'rank' or 'keep'\n");
    }

    @Test
    public void sameChartsGiveTheSameBytes() throws Exception {
        for (String ending : List.of("xlsx", "pdf", "svg", "png", "txt", "json")) {
            run("n,v\na,1\nb,2\n", "pattern: columns, category: n, value: v", "draw", "DESK/b.yaml", "-o", "DESK/one." + ending);
            Thread.sleep(ending.equals("xlsx") ? 2_100 : 0); // the times in the format are of two seconds
            desk.type("draw", "DESK/b.yaml", "-o", "DESK/two." + ending);
            assertThat(desk.path("one." + ending)).hasSameBinaryContentAs(desk.path("two." + ending));
        }
    }

    @Test
    public void enginesAreFoundFromAnyThread() throws Exception {
        run("n,v\na,1\n", "pattern: columns, category: n, value: v", "check", "DESK/b.yaml");
        dev.trellisgorge.brief.Brief brief = dev.trellisgorge.brief.Brief.read(desk.path("b.yaml"));
        List<Throwable> failures = new ArrayList<>();
        List<ClassLoader> loaders = new ArrayList<>(List.of(new URLClassLoader(new URL[0], null), ClassLoader.getPlatformClassLoader()));
        loaders.add(null);
        for (ClassLoader loader : loaders) {
            Path file = desk.path("from-" + loaders.indexOf(loader) + ".svg");
            Thread thread = new Thread(() -> Engines.draw(brief.compute(brief.charts()).get(0), file));
            thread.setContextClassLoader(loader);
            thread.setUncaughtExceptionHandler((of, failure) -> failures.add(failure));
            thread.start();
            thread.join();
            assertThat(failures).isEmpty();
            assertThat(file).exists();
        }
    }
}
