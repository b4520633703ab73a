package dev.trellisgorge.pattern;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.audit.Audit;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.plan.Moved;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.test.TestSize;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.function.Consumer;
import java.util.stream.IntStream;

/** Random rows: two columns of figures with ties, zeros and missing cells, of any size and magnitude. NaN is missing. */
record Rows(String[] names, double[] a, double[] b) {
    static final double MISSING = Double.NaN;
    private static final int TABLES = TestSize.of(60, 1_000);

    /** Runs a check on a thousand seeded tables: most are short, some have no row or one, a few have many. */
    static void each(long seed, int lowest, int many, Consumer<Rows> check) {
        Random random = new Random(seed);
        for (int i = 0; i < TABLES; i++) {
            int count = i % 250 == 249 || i == TABLES - 1 ? many : i % 10 == 0 ? i / 10 % 2 : random.nextInt(25);
            double scale = i % 3 == 0 ? 1 : Math.pow(10, random.nextInt(200) - 100);
            check.accept(new Rows(IntStream.range(0, count).mapToObj(row -> "r" + row).toArray(String[]::new),
                    figures(random, count, lowest, scale), figures(random, count, lowest, scale)));
        }
    }

    private static double[] figures(Random random, int count, int lowest, double scale) {
        return random.ints(count, lowest, 8).mapToDouble(v -> v == 7 ? MISSING : v * scale).toArray();
    }

    int count() {
        return names.length;
    }

    Table table() {
        return Table.of("random", Column.texts("name", names), Column.numbers("a", a), Column.numbers("b", b));
    }

    /** The chart of a pattern over these rows, with all its identities proved. */
    PlainChart proved(Pattern pattern) {
        PlainChart chart = Chart.of("name", pattern).over(table(), Settings.NONE);
        Audit audit = Audit.of(chart);
        assertThat(audit.proofs()).isNotEmpty().allMatch(proof -> proof.holds(), "holds");
        return chart;
    }

    /** Whether a series' cells are what an oracle says, to a relative 1e-12; absent is absent and nothing else. */
    static void same(PlainChart chart, String series, double[] expected) {
        Column cells = chart.data().column(series);
        assertThat(cells.size()).isEqualTo(expected.length);
        for (int row = 0; row < expected.length; row++) {
            double found = cells.number(row);
            boolean equal = Double.isNaN(expected[row]) ? Double.isNaN(found)
                    : found == expected[row] || Math.abs(found - expected[row]) <= 1e-12 * Math.max(Math.abs(found), Math.abs(expected[row]));
            if (!equal) {
                throw new AssertionError(series + " on row " + row + " is " + found + ", expected " + expected[row]);
            }
        }
    }

    static double[] cells(int count) {
        double[] cells = new double[count];
        Arrays.fill(cells, MISSING);
        return cells;
    }

    /** The chart with one cell of a column moved on purpose: what proofs must notice. */
    static PlainChart moved(PlainChart chart, String column, int row, double to) {
        Column before = chart.data().column(column);
        double[] cells = IntStream.range(0, before.size()).mapToDouble(before::number).toArray();
        cells[row] = to;
        return Moved.column(chart, Column.numbers(column, cells));
    }

    /** The series that hold a row, each with its cell. */
    static List<String> held(PlainChart chart, int row) {
        return chart.data().series().stream().filter(cells -> cells.isPresent(row)).map(Column::name).toList();
    }

    /** The statements that fail on a chart, each with the rows it fails on. */
    static List<String> failures(PlainChart chart) {
        return Audit.of(chart).proofs().stream().filter(proof -> !proof.holds())
                .map(proof -> proof.statement() + ": " + proof.failures().get(0).category()).toList();
    }

    static List<String> notes(PlainChart chart) {
        return Audit.of(chart).notes().stream().map(Object::toString).toList();
    }
}
