package dev.trellisgorge.conformance;

import static dev.trellisgorge.formula.Formulas.absent;
import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.formula.Formulas.setting;
import static dev.trellisgorge.formula.Formulas.text;
import static dev.trellisgorge.formula.Formulas.truth;

import dev.trellisgorge.formula.Calendar;
import dev.trellisgorge.formula.Choice;
import dev.trellisgorge.formula.Condition;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.Numeric;
import dev.trellisgorge.formula.Textual;
import dev.trellisgorge.formula.Window;
import dev.trellisgorge.table.CalendarUnit;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Schema;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.function.IntFunction;
import java.util.stream.IntStream;

/** Makes random formulas of any kind over a schema: every node, every operand. */
final class RandomFormulas {
    static final List<String> TEXTS = List.of("Weir", "weir", "We", "North \"Sluice\"", "\uD83D\uDC1F", "\uFF5E", "We\uD83D\uDC1F", "We\uFF5E", "\uD83D\uDC1F", "\uFF5E", "\u00E9", "2031-03", "2031-03-31", "2030-Q4", "2032-W53", "2031");
    static final List<String> TAME_TEXTS = List.of("Weir", "weir", "We", "North \"Sluice\"", "2031-03", "2031-03-31", "2030-Q4", "2031");
    static final double[] FIGURES = {0, -0.0, 1, -1, 2.5, -0.5, 0.285, 400, 1e-300, 1e300, -1e300, 3};
    static final double[] TAME_FIGURES = {0, 1, -1, 2.5, -0.5, 0.25, 400, 3, 12.75};
    private static final List<String> PATTERNS = List.of("#,##0", "0.00", "0.0%", "#,##0.##;(#,##0.##)", "0.# 'MWh'");
    private static final List<String> DATES = List.of("yyyy-MM-dd", "d. MMMM yyyy", "EEE", "QQQ yy");

    private final Random random;
    private final Schema schema;
    private final RandomPlan.Within within;
    private final boolean tame;

    RandomFormulas(Random random, Schema schema, RandomPlan.Within within) {
        this.random = random;
        this.schema = schema;
        this.within = within;
        this.tame = within != RandomPlan.Within.EVERYTHING;
    }

    Formula of(Kind kind, int depth) {
        return switch (kind) {
            case NUMBER -> number(depth);
            case TEXT -> text(depth);
            case DATE -> date(depth);
            case TRUTH -> truth(depth);
        };
    }

    Formula any(int depth) {
        return of(Kind.values()[random.nextInt(4)], depth);
    }

    private Formula cell(Kind kind, Formula otherwise) {
        List<String> columns = schema.fields().stream().filter(field -> field.kind() == kind).map(Field::name).toList();
        return columns.isEmpty() || random.nextInt(4) == 0 ? otherwise : column(columns.get(random.nextInt(columns.size())));
    }

    private <T> T one(List<T> all) {
        return all.get(random.nextInt(all.size()));
    }

    private List<Formula> some(int least, IntFunction<Formula> each) {
        return IntStream.range(0, least + random.nextInt(3)).mapToObj(each).toList();
    }

    private List<Choice.When> whens(Kind kind, int depth) {
        List<Choice.When> whens = new ArrayList<>();
        for (int i = 0; i <= random.nextInt(3); i++) {
            whens.add(new Choice.When(random.nextInt(6) == 0 ? Formulas.truth(random.nextBoolean()) : truth(depth - 1), of(kind, depth - 1)));
        }
        return whens;
    }

    /** The nodes that every kind has. */
    private Formula chosen(Kind kind, int depth) {
        return switch (random.nextInt(3)) {
            case 0 -> new Choice.Case(whens(kind, depth), random.nextInt(3) == 0 ? absent() : of(kind, depth - 1));
            case 1 -> new Choice.Coalesce(some(1, i -> of(kind, depth - 1)));
            default -> new Choice.NullIf(of(kind, depth - 1), of(kind, depth - 1));
        };
    }

    Formula number(int depth) {
        if (depth <= 0) {
            double[] figures = tame ? TAME_FIGURES : FIGURES;
            return cell(Kind.NUMBER, switch (random.nextInt(5)) {
                case 0 -> absent();
                case 1 -> setting(random.nextInt(3) == 0 ? "unset" : "goal");
                case 2 -> Formulas.rowNumber();
                default -> Formulas.number(figures[random.nextInt(figures.length)]);
            });
        }
        Formula of = number(depth - 1);
        return switch (random.nextInt(18)) {
            case 0, 1, 2 -> new Numeric.Arithmetic(one(List.of(Numeric.Operator.values())), of, number(depth - 1));
            case 3 -> new Numeric.Extreme(one(List.of(Numeric.End.values())), some(1, i -> number(depth - 1)));
            case 4 -> new Numeric.Negate(of);
            case 5 -> new Numeric.Abs(of);
            case 6 -> new Numeric.Floor(of);
            case 7 -> new Numeric.Round(of, random.nextInt(4) - 1);
            case 8 -> new Calendar.CalendarField(random.nextBoolean() ? date(depth - 1) : text(0), one(List.of(Calendar.Part.values())));
            case 9 -> new Calendar.Period(random.nextBoolean() ? date(depth - 1) : text(0), one(List.of(CalendarUnit.values())));
            case 10 -> new Window.Aggregate(one(List.of(Window.Fold.values())), of);
            case 11 -> new Window.Aggregate(Window.Fold.COUNT, any(depth - 1));
            case 12 -> new Window.Cumulative(of, random.nextBoolean() ? absent() : truth(depth - 1));
            case 13 -> new Window.Lag(of);
            case 14 -> new Window.Rank(random.nextInt(4) == 0 ? date(depth - 1) : of, one(List.of(Window.Direction.values())), one(List.of(Window.Ties.values())));
            case 15 -> new Window.Lookup(of, number(depth - 1), random.nextBoolean() ? Formulas.rowNumber() : number(depth - 1));
            default -> chosen(Kind.NUMBER, depth);
        };
    }

    Formula truth(int depth) {
        if (depth <= 0) {
            return cell(Kind.TRUTH, random.nextInt(4) == 0 ? Formulas.truth(random.nextBoolean()) : Formulas.present(any(-1)));
        }
        return switch (random.nextInt(8)) {
            case 0 -> new Condition.Not(truth(depth - 1));
            case 1, 2 -> new Condition.Logic(one(List.of(Condition.Connective.values())), some(1, i -> truth(depth - 1)));
            case 3 -> new Condition.Present(any(depth - 1));
            case 4 -> {
                Kind kind = random.nextBoolean() ? Kind.NUMBER : Kind.TEXT;
                boolean stated = random.nextBoolean();
                double[] figures = tame ? TAME_FIGURES : FIGURES;
                yield new Condition.In(of(kind, depth - 1), some(1, i -> !stated ? of(kind, depth - 1) : kind == Kind.TEXT ? Formulas.text(one(tame ? TAME_TEXTS : TEXTS))
                        : Formulas.number(figures[random.nextInt(figures.length)])));
            }
            case 5 -> chosen(Kind.TRUTH, depth);
            default -> {
                Kind kind = one(List.of(Kind.NUMBER, Kind.NUMBER, Kind.TEXT, Kind.DATE, Kind.TRUTH));
                boolean ordered = kind == Kind.NUMBER || kind == Kind.DATE || within == RandomPlan.Within.EVERYTHING || kind == Kind.TEXT && within == RandomPlan.Within.SHEET;
                yield new Condition.Comparison(ordered ? one(List.of(Condition.Relation.values())) : one(List.of(Condition.Relation.EQUAL, Condition.Relation.UNEQUAL)),
                        of(kind, depth - 1), of(kind, depth - 1));
            }
        };
    }

    Formula text(int depth) {
        if (depth <= 0) {
            return cell(Kind.TEXT, random.nextInt(5) == 0 ? absent() : random.nextInt(6) == 0 ? setting("place") : Formulas.text(one(tame ? TAME_TEXTS : TEXTS)));
        }
        return switch (random.nextInt(7)) {
            case 6 -> new Window.Lookup(text(tame ? 0 : depth - 1), number(depth - 1), random.nextBoolean() ? Formulas.rowNumber() : number(depth - 1));
            case 0 -> new Textual.Concat(some(1, i -> text(depth - 1)));
            case 1 -> new Textual.Repeat(text(depth - 1), new Numeric.Extreme(Numeric.End.LEAST, List.of(Formulas.number(4), number(0))));
            case 2 -> new Textual.Text(tame ? one(List.of(number(0), date(0), truth(0))) : any(depth - 1));
            case 3 -> new Textual.Formatted(tame ? number(0) : number(depth - 1), one(PATTERNS), tame || random.nextBoolean() ? Locale.ROOT : Locale.GERMANY);
            case 4 -> random.nextInt(3) == 0 ? new Textual.Formatted(text(0), tame ? "QQQ" : one(DATES), Locale.ENGLISH)
                    : new Textual.Formatted(date(depth - 1), one(DATES), one(List.of(Locale.ROOT, Locale.ENGLISH, Locale.GERMANY)));
            default -> chosen(Kind.TEXT, depth);
        };
    }

    Formula date(int depth) {
        if (depth <= 0) {
            return cell(Kind.DATE, random.nextInt(5) == 0 ? absent() : random.nextInt(6) == 0 ? setting("day") : Formulas.date(LocalDate.of(2031, 1 + random.nextInt(12), 1 + random.nextInt(28))));
        }
        return switch (random.nextInt(4)) {
            case 0 -> new Window.Aggregate(random.nextBoolean() ? Window.Fold.MIN : Window.Fold.MAX, date(depth - 1));
            case 1 -> new Window.Lookup(date(depth - 1), number(depth - 1), Formulas.rowNumber());
            default -> chosen(Kind.DATE, depth);
        };
    }
}
