package dev.trellisgorge.formula;

import static dev.trellisgorge.formula.Formulas.absent;
import static dev.trellisgorge.formula.Formulas.choose;
import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.magnitude;
import static dev.trellisgorge.formula.Formulas.missing;
import static dev.trellisgorge.formula.Formulas.not;
import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.formula.Formulas.present;
import static dev.trellisgorge.formula.Formulas.setting;
import static dev.trellisgorge.formula.Formulas.words;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Numbers;
import dev.trellisgorge.table.Table;
import java.util.Random;
import org.testng.annotations.Test;

public class EvaluatorTest {
    private static final double[] FIGURES = {0, -0.0, 1, -1, 2.5, 400, 1e-30, 1e30, Double.NaN, Double.NaN};
    private static final Settings SETTINGS = Settings.of("goal", 2.5).with("unset", Double.NaN);

    @Test
    public void randomFormulasAgreeWithTheOracleOnEveryRow() {
        Random random = new Random(20310301);
        for (int i = 0; i < 3_000; i++) {
            Table table = table(random, i % 500 == 0 ? 1_100 : 1 + random.nextInt(12));
            Formula formula = i % 3 == 0 ? truth(random, 3) : i % 3 == 1 ? figure(random, 4) : text(random, 3);
            Column cells = HelperTable.over(table, SETTINGS, "t").evaluate("f", formula);
            for (int row = 0; row < table.rowCount(); row++) {
                Object expected = formula.match(new NaiveFormula(table, SETTINGS, row));
                assertThat(cells.written(row)).as("%s on row %d", formula, row).isEqualTo(written(expected));
            }
        }
    }

    private static String written(Object cell) {
        return cell == null ? "" : cell instanceof Double number ? Numbers.shortest(number) : cell.toString();
    }

    private static Table table(Random random, int rows) {
        double[] a = random.doubles(rows).map(d -> FIGURES[(int) (d * FIGURES.length)]).toArray();
        double[] b = random.doubles(rows).map(d -> FIGURES[(int) (d * FIGURES.length)]).toArray();
        String[] t = new String[rows];
        Boolean[] p = new Boolean[rows];
        for (int row = 0; row < rows; row++) {
            t[row] = random.nextInt(3) == 0 ? null : "weir " + random.nextInt(3);
            p[row] = random.nextInt(3) == 0 ? null : (Boolean) random.nextBoolean();
        }
        return Table.of("random", Column.texts("t", t), Column.numbers("a", a), Column.numbers("b", b), Column.truths("p", p));
    }

    private static Formula figure(Random random, int depth) {
        if (depth == 0) {
            return switch (random.nextInt(6)) {
                case 0, 1 -> column("a");
                case 2 -> column("b");
                case 3 -> number(FIGURES[random.nextInt(8)]);
                case 4 -> setting(random.nextInt(5) == 0 ? "unset" : "goal");
                default -> absent();
            };
        }
        return switch (random.nextInt(12)) {
            case 4 -> new Formula.Whole(Formula.Fold.values()[random.nextInt(4)], figure(random, depth - 1));
            case 5 -> new Formula.Running(figure(random, depth - 1), random.nextBoolean() ? absent() : truth(random, depth - 1));
            case 6 -> Formulas.previous(figure(random, depth - 1));
            case 7 -> new Formula.Rank(figure(random, depth - 1), Formula.Direction.values()[random.nextInt(2)],
                    Formula.Equals.values()[random.nextInt(2)]);
            case 8 -> random.nextBoolean() ? Formulas.round(figure(random, depth - 1)) : Formulas.floor(figure(random, depth - 1));
            case 9 -> new Formula.Lookup(figure(random, depth - 1), column("a"), random.nextBoolean() ? column("b") : Formulas.row());
            case 0 -> choose(truth(random, depth - 1), figure(random, depth - 1), figure(random, depth - 1));
            case 1 -> magnitude(figure(random, depth - 1));
            default -> new Formula.Arithmetic(Formula.Operator.values()[random.nextInt(6)], figure(random, depth - 1),
                    figure(random, random.nextInt(depth)));
        };
    }

    private static Formula truth(Random random, int depth) {
        if (depth == 0) {
            return random.nextBoolean() ? column("p") : missing(column("t"));
        }
        return switch (random.nextInt(6)) {
            case 0 -> not(truth(random, depth - 1));
            case 1 -> truth(random, depth - 1).and(truth(random, depth - 1));
            case 2 -> truth(random, depth - 1).or(truth(random, depth - 1));
            case 3 -> present(figure(random, depth - 1));
            case 4 -> new Formula.Comparison(relation(random), text(random, depth - 1), text(random, depth - 1));
            default -> new Formula.Comparison(relation(random), figure(random, depth - 1), figure(random, depth - 1));
        };
    }

    private static Formula.Relation relation(Random random) {
        return Formula.Relation.values()[random.nextInt(6)];
    }

    private static Formula text(Random random, int depth) {
        if (depth > 0 && random.nextInt(3) == 0) {
            return random.nextBoolean() ? new Formula.Joined(text(random, depth - 1), text(random, depth - 1))
                    : random.nextBoolean() ? Formulas.repeat("x", new Formula.Arithmetic(Formula.Operator.LEAST, number(9), figure(random, 0)))
                    : new Formula.Written(figure(random, depth - 1));
        }
        return depth == 0 || random.nextInt(3) == 0 ? random.nextInt(3) == 0 ? words("weir 1") : column("t")
                : choose(truth(random, depth - 1), text(random, depth - 1), text(random, depth - 1));
    }

    @Test
    public void manyRowsSharedOutAmongTheProcessorsGiveTheSameCells() {
        int rows = 300_001;
        double[] a = new Random(3).doubles(rows, -1, 1).map(v -> v > 0.9 ? Double.NaN : v).toArray();
        Table table = Table.of("many", Column.texts("t", new String[rows]), Column.numbers("a", a));
        HelperTable helpers = HelperTable.over(table, SETTINGS, "t").working("sum", Formulas.running(column("a")));
        Column cells = helpers.evaluate("f", choose(column("a").above(number(0)), column("a").minus(Formulas.previous(column("a"))), Formulas.row()));
        Column before = helpers.evaluate("g", Formulas.previous(Formulas.running(column("a"))));
        double sum = 0;
        for (int row = 0; row < rows; row++) {
            Double expected = a[row] > 0 ? (row == 0 ? Double.NaN : a[row] - a[row - 1]) : (double) row + 1;
            assertThat((Double) cells.number(row)).isEqualTo(expected);
            assertThat((Double) before.number(row)).isEqualTo(row == 0 ? (Double) Double.NaN : (Double) sum);
            sum += Double.isNaN(a[row]) ? 0 : a[row];
            assertThat(helpers.column("sum").cells().number(row)).isEqualTo(sum);
        }
        assertThat(helpers.anyRow(column("a").equalTo(number(a[rows - 1])))).isEqualTo(!Double.isNaN(a[rows - 1]));
    }

    @Test
    public void formulaReadsLikeTheFormula() {
        Formula part = Formulas.only(column("v").atLeast(setting("goal")), column("v").minus(setting("goal")));
        assertThat(part).hasToString("if v >= :goal then (v - :goal) else absent");
        assertThat(present(column("v")).and(not(column("v").equalTo(number(0))))).hasToString("(present(v) and not v = 0)");
    }

    @Test
    public void sidesOfDifferentKindsAreRefused() {
        HelperTable table = HelperTable.over(table(new Random(1), 3), SETTINGS, "t");
        assertThatThrownBy(() -> table.with("x", column("t").plus(number(1)))).isInstanceOf(BadInput.class)
                .hasMessageContaining("'t' is a text, not a number (in: (t + 1))");
        assertThatThrownBy(() -> table.with("x", column("a").below(words("1")))).isInstanceOf(BadInput.class)
                .hasMessageContaining("must be of one kind");
        assertThatThrownBy(() -> table.with("x", setting("gaol"))).isInstanceOf(BadInput.class)
                .hasMessage("there is no setting ':gaol'. Did you mean 'goal'?");
    }

    @Test
    public void absentColumnIsOfNumbers() {
        assertThat(HelperTable.over(table(new Random(1), 2), SETTINGS, "t").evaluate("x", absent()).kind()).isEqualTo(Kind.NUMBER);
    }
}
