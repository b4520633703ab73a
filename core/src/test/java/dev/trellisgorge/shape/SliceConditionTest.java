package dev.trellisgorge.shape;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.stream.IntStream;
import org.testng.annotations.Test;

/** A slice as a condition keeps the rows that the slice keeps. */
public class SliceConditionTest {
    private static final Settings SETTINGS = Settings.of("figure", 3).with("day", LocalDate.of(2031, 2, 3)).with("word", "b");

    private static Table random(Random random, int rows) {
        return Table.of("rows", Column.texts("t", random.ints(rows, 0, 5).mapToObj(i -> i == 4 ? null : "abcd".substring(i, i + 1)).toArray(String[]::new)),
                Column.numbers("v", random.ints(rows, 0, 8).mapToDouble(i -> i == 7 ? Double.NaN : i - 1.5 + i % 2 * 0.5).toArray()),
                Column.dates("d", random.ints(rows, 0, 70).mapToObj(i -> i > 60 ? null : LocalDate.of(2031, 1, 20).plusDays(i)).toArray(LocalDate[]::new)),
                Column.numbers("row", IntStream.range(0, rows).asDoubleStream().toArray()));
    }

    private static Cut cut(Random random, String column) {
        List<Formula> cells = switch (column) {
            case "t" -> List.of(Formulas.text("a"), Formulas.text("c"), Formulas.setting("word"));
            case "v" -> List.of(Formulas.text("1.0"), Formulas.text("3"), Formulas.setting("figure"));
            default -> List.of(Formulas.text("2031-02-03"), Formulas.text("2031-02"), Formulas.text("2031-01-25"), Formulas.setting("day"));
        };
        List<Formula> some = new ArrayList<>(cells);
        java.util.Collections.shuffle(some, random);
        return random.nextBoolean() ? new Cut.OneOf(some.subList(0, 1 + random.nextInt(some.size()))) : new Cut.Range(random.nextInt(3) == 0 ? Optional.empty() : Optional.of(some.get(0)), Optional.of(some.get(1)));
    }

    private static List<Double> rows(Table table) {
        return IntStream.range(0, table.rowCount()).mapToObj(table.column("row")::number).toList();
    }

    @Test
    public void conditionKeepsTheRowsOfTheSlice() {
        int compared = 0;
        for (long seed = 0; seed < 600; seed++) {
            Random random = new Random(seed);
            Table table = random(random, 30);
            String column = List.of("t", "v", "d").get(random.nextInt(3));
            Slice slice = new Slice(column, cut(random, column));
            Optional<Formula> condition = slice.condition(table.schema(), SETTINGS);
            Executor executor = Executor.over(table, SETTINGS);
            Table sliced;
            try {
                sliced = executor.run(Pipeline.of("rows").then(slice));
            } catch (BadInput none) {
                continue; // no row has such a cell
            }
            if (condition.isPresent()) {
                assertThat(rows(executor.run(Pipeline.of("rows").then(new Keep(condition.get()))))).as("%s of %s", slice, table).isEqualTo(rows(sliced));
                compared++;
            }
        }
        assertThat(compared).isGreaterThan(300);
    }

    @Test
    public void settingOfAnotherKindAndTextThatIsNoFigureHaveNone() {
        Table table = random(new Random(1), 5);
        assertThat(new Slice("v", Cut.isSetting("word")).condition(table.schema(), SETTINGS)).isEmpty();
        assertThat(new Slice("v", Cut.is("three")).condition(table.schema(), SETTINGS)).isEmpty();
        assertThat(new Slice("d", Cut.is("soon")).condition(table.schema(), SETTINGS)).isEmpty();
        assertThat(new Slice("t", Cut.is("b")).condition(table.schema(), SETTINGS)).contains(Formulas.column("t").equalTo(Formulas.text("b")));
    }
}
