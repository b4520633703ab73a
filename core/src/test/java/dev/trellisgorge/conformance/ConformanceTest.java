package dev.trellisgorge.conformance;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.plan.ComputedColumns;
import dev.trellisgorge.plan.Derived;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.test.TestSize;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Random;
import org.testng.annotations.Test;

/** The evaluator held to the oracle, cell by cell, on random plans: every step, node, pattern and rule. */
public class ConformanceTest {
    private static final int PLANS = TestSize.of(800, 6_000);

    @Test
    public void everyCellOfRandomPlansIsTheOracles() {
        long cells = 0;
        for (int seed = 0; seed < PLANS; seed++) {
            RandomPlan random = RandomPlan.of(seed, RandomPlan.Within.EVERYTHING);
            Map<String, List<Object>> expected = random.naive();
            Table rows = random.executor().run(random.plan().pipeline());
            for (Column column : rows.columns()) {
                same(seed, column.name() + " after " + random.plan().pipeline().steps(), column, expected.get("table: " + column.name()));
            }
            ComputedColumns data = random.plan().cells(rows, random.settings());
            for (Derived column : random.plan().columns()) {
                same(seed, column.toString(), data.column(column.name()), expected.get(column.name()));
                cells += rows.rowCount();
            }
        }
        assertThat(cells).isGreaterThan(PLANS * 15L);
    }

    @Test
    public void formulasOfManyRowsAreThoseOfFew() {
        // More rows than a block, and than one processor is given.
        int rows = 140_000;
        double[] a = new Random(3).ints(rows, -5, 6).mapToDouble(i -> i == 5 ? Double.NaN : i / 2.0).toArray();
        Table table = Table.of("many", Column.numbers("a", a));
        dev.trellisgorge.formula.Formula f = dev.trellisgorge.formula.Formulas.column("a");
        Map<String, Column> cells = new dev.trellisgorge.formula.Evaluator(table, RandomPlan.SETTINGS).evaluate(Map.of(
                "twice", f.plus(f), "sum", dev.trellisgorge.formula.Formulas.cumulative(f), "before", dev.trellisgorge.formula.Formulas.lag(f),
                "share", f.over(dev.trellisgorge.formula.Formulas.max(f))), Map.of());
        double sum = 0;
        for (int row = 0; row < rows; row++) {
            sum += Double.isNaN(a[row]) ? 0 : a[row];
            assertThat(List.of(cells.get("twice").number(row), cells.get("sum").number(row), cells.get("before").number(row), cells.get("share").number(row)))
                    .isEqualTo(List.of(a[row] + a[row] + 0.0, sum, row == 0 ? Double.NaN : a[row - 1] + 0.0, a[row] / 2 + 0.0));
        }
    }

    private static void same(long seed, String what, Column found, List<Object> expected) {
        assertThat(found.size()).as("plan %d: rows of %s", seed, what).isEqualTo(expected.size());
        for (int row = 0; row < found.size(); row++) {
            Object cell = RandomPlan.cell(found, row);
            if (!Objects.equals(cell, expected.get(row)) && !(cell instanceof Double one && expected.get(row) instanceof Double other && one.doubleValue() == other)) {
                throw new AssertionError("plan " + seed + ", row " + row + ": " + what + " is " + cell + ", not " + expected.get(row));
            }
        }
    }
}
