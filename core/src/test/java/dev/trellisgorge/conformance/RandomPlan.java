package dev.trellisgorge.conformance;

import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.text;

import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Bands;
import dev.trellisgorge.pattern.Breakdown;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Classifier;
import dev.trellisgorge.pattern.Columns;
import dev.trellisgorge.pattern.Dial;
import dev.trellisgorge.pattern.Diverging;
import dev.trellisgorge.pattern.Highlight;
import dev.trellisgorge.pattern.Marker;
import dev.trellisgorge.pattern.Pattern;
import dev.trellisgorge.pattern.Progress;
import dev.trellisgorge.pattern.Range;
import dev.trellisgorge.pattern.Ranking;
import dev.trellisgorge.pattern.Sign;
import dev.trellisgorge.pattern.Ring;
import dev.trellisgorge.pattern.Split;
import dev.trellisgorge.pattern.TextBar;
import dev.trellisgorge.pattern.Ties;
import dev.trellisgorge.pattern.ToTarget;
import dev.trellisgorge.pattern.Tornado;
import dev.trellisgorge.pattern.Variance;
import dev.trellisgorge.pattern.Waterfall;
import dev.trellisgorge.plan.Plan;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.shape.Choose;
import dev.trellisgorge.shape.Cut;
import dev.trellisgorge.shape.AddColumn;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.shape.Join;
import dev.trellisgorge.shape.Keep;
import dev.trellisgorge.shape.Order;
import dev.trellisgorge.shape.PeriodOf;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.shape.Pivot;
import dev.trellisgorge.shape.Previous;
import dev.trellisgorge.shape.Rank;
import dev.trellisgorge.shape.Rename;
import dev.trellisgorge.shape.Slice;
import dev.trellisgorge.shape.Step;
import dev.trellisgorge.shape.Top;
import dev.trellisgorge.shape.Total;
import dev.trellisgorge.shape.Unpivot;
import dev.trellisgorge.table.CalendarUnit;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Schema;
import dev.trellisgorge.table.Table;
import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.stream.IntStream;

/**
 * A random chart over random tables: steps, a pattern with a rule, and formulas of every node beside its columns. Back ends are
 * held to {@link Naive} with it.
 *
 * @param plan     what is to be computed
 * @param tables   by name
 * @param settings of each kind, and one without a value
 */
public record RandomPlan(Plan plan, Map<String, Table> tables, Settings settings) {
    public static final Settings SETTINGS = Settings.of("goal", 2.5).with("unset", Double.NaN).with("place", "Weir").with("day", LocalDate.of(2031, 3, 9));

    /** What a plan may be made of. */
    public enum Within {
        EVERYTHING,
        /** Figures and texts that a sheet holds exactly. */
        SHEET,
        /** The same, and texts are not ordered, nor extremes of groups taken, as an evaluator of sheets that takes no ranges inside a formula can't. */
        PLAIN_SHEET
    }

    /** The plan is named {@code plan} and its seed. */
    public static RandomPlan of(long seed, Within within) {
        Random random = new Random(seed);
        while (true) {
            try {
                return new Making(random, within).plan("plan " + seed);
            } catch (BadInput clash) {
                // Two columns that would have one name, or a name that a step has taken away: another try.
            }
        }
    }

    public Executor executor() {
        return Executor.of(tables, settings);
    }

    /** What each computed column must be: a Double, a String, a LocalDate, a Boolean, or null. */
    public Map<String, List<Object>> naive() {
        Map<String, Object> values = new LinkedHashMap<>();
        settings.values().forEach((name, value) -> values.put(name, cell(value, 0)));
        Map<String, List<Map<String, Object>>> raw = new LinkedHashMap<>();
        tables.forEach((name, table) -> raw.put(name, rows(table)));
        List<Map<String, Object>> rows = new NaiveSteps(raw, values).run(plan.pipeline());
        Map<String, List<Object>> computed = new LinkedHashMap<>();
        plan.schema().columnNames().forEach(name -> computed.put("table: " + name, rows.stream().map(row -> row.get(name)).toList()));
        plan.columns().forEach(each -> computed.put(each.name(), NaiveFormula.column(each.formula(), rows, computed, values)));
        return computed;
    }

    static List<Map<String, Object>> rows(Table table) {
        return IntStream.range(0, table.rowCount()).mapToObj(row -> {
            Map<String, Object> cells = new LinkedHashMap<>();
            table.columns().forEach(column -> cells.put(column.name(), cell(column, row)));
            return cells;
        }).toList();
    }

    /** A cell as the oracle has it. */
    public static Object cell(Column column, int row) {
        return !column.isPresent(row) ? null : switch (column.kind()) {
            case NUMBER -> (Object) column.number(row);
            case TEXT -> column.written(row);
            case DATE -> column.date(row).orElseThrow();
            case TRUTH -> column.number(row) == 1;
        };
    }

    private static final class Making {
        private final Random random;
        private final Within within;
        private final boolean tame;
        private final Map<String, Table> tables = new LinkedHashMap<>();

        Making(Random random, Within within) {
            this.random = random;
            this.within = within;
            this.tame = within != Within.EVERYTHING;
            int rows = random.nextInt(20) == 0 ? 0 : 1 + random.nextInt(9);
            tables.put("rows", Table.of("rows", texts("name", rows, true), texts("t", rows, false), numbers("a", rows), numbers("b", rows),
                    Column.dates("d", random.ints(rows, 0, 900).mapToObj(i -> i < 120 ? null : LocalDate.of(2030, 1, 31).plusDays(i)).toArray(LocalDate[]::new)),
                    Column.truths("p", random.ints(rows, 0, 3).mapToObj(i -> i == 0 ? null : (Boolean) (i == 1)).toArray(Boolean[]::new))));
            tables.put("other", Table.of("other", texts("key", 4, false), numbers("c", 4)));
        }

        private Column texts(String name, int rows, boolean unique) {
            List<String> pool = tame ? RandomFormulas.TAME_TEXTS : RandomFormulas.TEXTS;
            return Column.texts(name, IntStream.range(0, rows).mapToObj(i -> unique ? "r" + i : random.nextInt(5) == 0 ? null : pool.get(random.nextInt(pool.size()))).toArray(String[]::new));
        }

        private Column numbers(String name, int rows) {
            double[] pool = tame ? RandomFormulas.TAME_FIGURES : RandomFormulas.FIGURES;
            return Column.numbers(name, random.ints(rows, 0, pool.length + 3).mapToDouble(i -> i < pool.length ? pool[i] : Double.NaN).toArray());
        }

        RandomPlan plan(String name) {
            Executor executor = Executor.of(tables, SETTINGS);
            Pipeline pipeline = Pipeline.of("rows");
            for (int i = random.nextInt(4); i > 0; i--) {
                pipeline = pipeline.then(step(pipeline.schema(executor.known())));
            }
            if (!tame && random.nextInt(6) == 0 && pipeline.schema(executor.known()).has("a")) { // a row for others derives one from the other
                pipeline = pipeline.then(new AddColumn("half", column("a").over(Formulas.number(2)))).then(new AddColumn("quarter", column("half").over(Formulas.number(2))));
            }
            Schema schema = pipeline.schema(executor.known());
            RandomFormulas formulas = new RandomFormulas(random, schema, within);
            List<String> names = schema.fields().stream().filter(field -> field.kind() == Kind.TEXT).map(Field::name).toList();
            if (names.isEmpty()) {
                throw new BadInput(schema.place(), ProblemKind.NO_ROWS, "no text is left");
            }
            Chart chart = Chart.of(names.get(0), pattern(formulas, schema)).orientation(Orientation.values()[random.nextInt(2)]).named(name);
            if (random.nextInt(4) == 0) {
                Ranking ranking = Ranking.by(formulas.of(random.nextBoolean() ? Kind.NUMBER : Kind.DATE, 1));
                ranking = ranking.order(Rank.Way.values()[random.nextInt(3)]);
                ranking = random.nextBoolean() ? ranking : ranking.top(1 + random.nextInt(3));
                // A mean of means weighs them by their cells, which the oracle's rows do not tell.
                boolean means = pipeline.steps().stream().anyMatch(step -> step instanceof Total total && total.figures().stream().anyMatch(figure -> figure.fold() == Total.Fold.MEAN));
                chart = chart.rank(!means && random.nextBoolean() ? ranking.rest("Others") : ranking);
            }
            var plan = chart.plan(pipeline, executor.known()).change();
            for (int i = 0; i < 3; i++) {
                plan.working("extra " + i, formulas.any(2 + random.nextInt(2)));
            }
            executor.run(plan.build().pipeline()); // a slice that no row is in is refused
            return new RandomPlan(plan.build(), tables, SETTINGS);
        }

        private Step step(Schema schema) {
            RandomFormulas formulas = new RandomFormulas(random, schema, within);
            List<String> columns = schema.columnNames();
            List<String> numbers = schema.fields().stream().filter(field -> field.kind() == Kind.NUMBER).map(Field::name).toList();
            String any = columns.get(random.nextInt(columns.size()));
            List<String> texts = schema.fields().stream().filter(field -> field.kind() == Kind.TEXT).map(Field::name).toList();
            int kind = random.nextInt(15);
            return switch (kind) {
                case 0 -> new Keep(formulas.truth(1));
                case 1 -> new AddColumn("derived " + columns.size(), formulas.any(2));
                case 2 -> new Order(formulas.of(Kind.values()[tame ? 0 : random.nextInt(4)], 1), random.nextBoolean());
                case 3 -> new Top(1 + random.nextInt(6));
                case 4 -> new Rename(Map.of(any, "re " + any));
                case 5 -> new Choose(columns.subList(0, 1 + random.nextInt(columns.size())));
                case 6 -> new Previous(any, "before " + columns.size(), Optional.empty(), Optional.empty(), random.nextBoolean() ? List.of() : List.of(columns.get(random.nextInt(columns.size()))));
                case 7 -> numbers.size() < 2 ? new Top(3) : new Unpivot(numbers.subList(0, 2), "name of", "cell of");
                case 8, 9 -> numbers.isEmpty() ? new Top(3) : new Total(random.nextBoolean() ? List.of(any) : List.of(columns.get(0), any).stream().distinct().toList(),
                        List.of(new Total.Figure(numbers.get(0), Total.Fold.values()[random.nextInt(within == Within.PLAIN_SHEET ? 3 : 7)], "x " + columns.size()), new Total.Figure(any, Total.Fold.FIRST, "y " + columns.size())));
                case 10 -> texts.isEmpty() ? new Top(3) : new Slice(texts.get(random.nextInt(texts.size())), cut());
                case 11 -> schema.has("d") ? new PeriodOf("d", CalendarUnit.values()[random.nextInt(5)], "period " + columns.size(), false, List.of()) : new Top(5);
                case 12 -> schema.has("d") ? new PeriodOf("d", random.nextBoolean() ? CalendarUnit.QUARTER : CalendarUnit.YEAR, "period " + columns.size(), true, List.of()) : new Top(5);
                case 13 -> schema.has("t") && schema.has("name") ? new Pivot(schema.has("p") && random.nextBoolean() ? List.of("name", "p") : List.of("name"), "t", any.equals("t") || any.equals("name") ? columns.get(columns.size() - 1) : any,
                        List.of("Weir", "weir", "We")) : new Top(4);
                default -> schema.has("t") && !schema.has("c") && schema.field("t").kind() == Kind.TEXT
                        ? new Join(Pipeline.of("other"), Map.of("t", "key"), Join.Way.values()[random.nextInt(2)], true) : new Top(2);
            };
        }

        private Cut cut() {
            Formula cell = random.nextBoolean() ? text("r" + random.nextInt(9)) : text("Weir");
            return switch (random.nextInt(within == Within.PLAIN_SHEET ? 2 : 5)) {
                case 0 -> Cut.isSetting("place");
                case 1 -> new Cut.OneOf(List.of(cell, text("We")));
                case 2 -> new Cut.Range(Optional.of(cell), Optional.empty());
                case 3 -> new Cut.Range(Optional.of(text("W")), Optional.of(Formulas.setting("place")));
                default -> new Cut.OneOf(List.of(cell));
            };
        }

        private Formula figure(RandomFormulas formulas, Schema schema) {
            List<String> numbers = schema.fields().stream().filter(field -> field.kind() == Kind.NUMBER).map(Field::name).toList();
            return !numbers.isEmpty() && random.nextInt(3) > 0 ? column(numbers.get(random.nextInt(numbers.size()))) : formulas.number(2);
        }

        private Pattern pattern(RandomFormulas formulas, Schema schema) {
            Formula value = figure(formulas, schema);
            Formula other = figure(formulas, schema);
            Optional<Classifier> rule = random.nextInt(3) == 0 ? Optional.empty() : Optional.of(rule(formulas, schema));
            return switch (random.nextInt(13)) {
                case 0 -> new Columns(value, rule, random.nextBoolean() ? Optional.empty() : Optional.of(other));
                case 1 -> new ToTarget(value, other, rule, random.nextBoolean());
                case 2 -> new Marker(value, other, rule);
                case 3 -> new Progress(value, other, List.of(new Progress.Band("low", 0.25), new Progress.Band("high", 0.75)));
                case 4 -> Variance.of("a").against(value);
                case 5 -> new Waterfall(value, new Waterfall.ByName(List.of("r0", "r4"), List.of("r2"), List.of("r3")), random.nextBoolean() ? Optional.empty() : Optional.of("End"),
                        random.nextBoolean());
                case 6 -> new Breakdown(value, "All", rule);
                case 7 -> new Tornado(value, other, random.nextBoolean() ? Optional.empty() : Optional.of(formulas.any(1)), rule);
                case 8 -> new Diverging(value);
                case 9 -> new Range(value, other, rule);
                case 10 -> new Ring(value, other);
                case 11 -> new Dial(value, -2, 5, random.nextBoolean() ? List.of() : List.of(new Dial.Band("low", 0), new Dial.Band("high", 5)));
                default -> TextBar.of(value).width(12);
            };
        }

        private Classifier rule(RandomFormulas formulas, Schema schema) {
            return switch (random.nextInt(6)) {
                case 0 -> new Split(figure(formulas, schema), Ties.values()[random.nextInt(2)]);
                case 1 -> Bands.at(0, 2.5).of(figure(formulas, schema));
                case 2 -> new Highlight(new Highlight.Extreme(Highlight.End.values()[random.nextInt(2)], 2, Highlight.Tied.values()[random.nextInt(2)]));
                case 3 -> Highlight.names("r1", "Weir");
                case 4 -> Highlight.where(formulas.truth(1));
                default -> random.nextBoolean() ? new Sign() : Highlight.last(2);
            };
        }
    }
}
