package dev.trellisgorge.formula;

import dev.trellisgorge.formula.Condition.Comparison;
import dev.trellisgorge.formula.Condition.Relation;
import dev.trellisgorge.formula.Register.Figures;
import dev.trellisgorge.formula.Register.Texts;
import dev.trellisgorge.table.CalendarUnit;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.CompensatedSum;
import dev.trellisgorge.table.FigureChunks;
import dev.trellisgorge.table.Kind;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.DoubleFunction;
import java.util.function.UnaryOperator;

/**
 * Several columns computed together, a block of rows at a time: each node is one loop over the block, and equal nodes are
 * worked out once. Used by one thread.
 */
final class BlockEvaluator implements Formula.Cases<Register> {
    static final int BLOCK = 256;

    private final Typing typing;
    private final Evaluator.Scope scope;
    private final List<Loop> loops = new ArrayList<>();
    private final Map<Formula, Register> registers = new IdentityHashMap<>();
    private final Masks masks = new Masks(this);

    /** One step over the rows of a block. */
    interface Loop {
        void run(int from, int count);
    }

    BlockEvaluator(Typing typing, Evaluator.Scope scope) {
        this.typing = typing;
        this.scope = scope;
    }

    void add(Loop loop) {
        loops.add(loop);
    }

    void run(int start, int end) {
        for (int from = start; from < end; from += BLOCK) {
            int count = Math.min(BLOCK, end - from);
            for (Loop loop : loops) {
                loop.run(from, count);
            }
        }
    }

    /** Computes a column for the others of this pass, and into all its cells where {@code into} has any: FigureChunks or a String[]. */
    void column(String name, Formula formula, Object into) {
        Register made = register(formula);
        if (into instanceof FigureChunks all) {
            double[] cells = ((Figures) made).cells();
            loops.add((from, count) -> all.write(cells, from, count));
        } else if (into != null) {
            String[] cells = ((Texts) made).cells();
            loops.add((from, count) -> System.arraycopy(cells, 0, into, from, count));
        }
        scope.inPass(name, made);
    }

    /** Folds a column over all rows, on the way. */
    void fold(Window.Aggregate aggregate, double[] result) {
        Window.Fold fold = aggregate.fold();
        result[0] = fold == Window.Fold.COUNT ? 0 : Double.NaN;
        double[] there = masks.of(new Condition.Present(aggregate.of()), aggregate.of(), true);
        double[] cells = fold == Window.Fold.COUNT ? null : figures(aggregate.of());
        if (fold == Window.Fold.SUM) {
            loops.add(sum(there, cells, result));
            return;
        }
        loops.add((from, count) -> {
            double so = result[0];
            for (int i = 0; i < count; i++) {
                if (there[i] == 0) {
                    so = switch (fold) {
                        case COUNT -> so + 1;
                        case MIN -> so <= cells[i] ? so : cells[i];
                        default -> so >= cells[i] ? so : cells[i];
                    };
                }
            }
            result[0] = so;
        });
    }

    private static Loop sum(double[] there, double[] cells, double[] result) {
        CompensatedSum sum = new CompensatedSum();
        return (from, count) -> {
            for (int i = 0; i < count; i++) {
                if (there[i] == 0) {
                    sum.add(cells[i]);
                    result[0] = 0;
                }
            }
            result[0] = result[0] != result[0] ? Double.NaN : sum.value();
        };
    }

    Register register(Formula node) {
        Register known = registers.get(node);
        if (known != null) {
            return known;
        }
        Register made = typing.match(node, this);
        registers.put(node, made);
        return made;
    }

    private double[] figures(Formula node) {
        return ((Figures) register(node)).cells();
    }

    private String[] texts(Formula node) {
        return ((Texts) register(node)).cells();
    }

    private interface OneFigure {
        double of(double figure);
    }

    private Figures each(Formula of, OneFigure function) {
        double[] a = figures(of);
        double[] out = new double[BLOCK];
        loops.add((from, count) -> {
            for (int i = 0; i < count; i++) {
                out[i] = function.of(a[i]);
            }
        });
        return new Figures(out);
    }

    @Override
    public Register column(Leaf.Column f, Kind kind) {
        return read(scope.input(f.name()));
    }

    @Override
    public Register computed(Leaf.Computed f, Kind kind) {
        return scope.computed(f.name(), this::read);
    }

    private Register read(Column column) {
        if (column.kind() == Kind.TEXT) {
            Texts texts = new Texts(new String[BLOCK]);
            loops.add((from, count) -> {
                for (int i = 0; i < count; i++) {
                    texts.cells()[i] = column.isPresent(from + i) ? column.written(from + i) : null;
                }
            });
            return texts;
        }
        Figures figures = new Figures(new double[BLOCK]);
        loops.add((from, count) -> column.read(from, count, figures.cells(), 0));
        return figures;
    }

    @Override
    public Register literal(Leaf.Literal f, Kind kind) {
        return kind == Kind.TEXT ? Texts.constant((String) f.value()) : Figures.constant(f.figure());
    }

    @Override
    public Register absent(Leaf.Absent f, Kind kind) {
        return kind == Kind.TEXT ? Texts.constant(null) : Figures.constant(Double.NaN);
    }

    @Override
    public Register setting(Leaf.Setting f, Kind kind) {
        Column value = scope.settings().value(f.name());
        return kind == Kind.TEXT ? Texts.constant(value.isPresent(0) ? value.written(0) : null) : Figures.constant(value.number(0));
    }

    @Override
    public Register rowNumber(Leaf.RowNumber f, Kind kind) {
        double[] out = new double[BLOCK];
        loops.add((from, count) -> {
            for (int i = 0; i < count; i++) {
                out[i] = from + i + 1;
            }
        });
        return new Figures(out);
    }

    @Override
    public Register arithmetic(Numeric.Arithmetic f, Kind kind) {
        double[] a = figures(f.left());
        double[] b = figures(f.right());
        double[] out = new double[BLOCK];
        loops.add((from, count) -> BlockLoops.arithmetic(f.operator(), a, b, out, count));
        return new Figures(out);
    }

    @Override
    public Register extreme(Numeric.Extreme f, Kind kind) {
        boolean least = f.end() == Numeric.End.LEAST;
        double[] so = figures(f.of().get(0));
        for (Formula each : f.of().subList(1, f.of().size())) {
            double[] a = so;
            double[] b = figures(each);
            double[] out = new double[BLOCK];
            loops.add(least ? (from, count) -> BlockLoops.least(a, b, out, count) : (from, count) -> BlockLoops.greatest(a, b, out, count));
            so = out;
        }
        return new Figures(so);
    }

    @Override
    public Register negate(Numeric.Negate f, Kind kind) {
        double[] a = figures(f.of());
        double[] out = new double[BLOCK];
        loops.add((from, count) -> BlockLoops.negate(a, out, count));
        return new Figures(out);
    }

    @Override
    public Register abs(Numeric.Abs f, Kind kind) {
        double[] a = figures(f.of());
        double[] out = new double[BLOCK];
        loops.add((from, count) -> BlockLoops.abs(a, out, count));
        return new Figures(out);
    }

    @Override
    public Register floor(Numeric.Floor f, Kind kind) {
        return each(f.of(), figure -> Math.floor(figure) + 0.0);
    }

    @Override
    public Register round(Numeric.Round f, Kind kind) {
        return each(f.of(), figure -> ValueFormatter.rounded(figure, f.digits()));
    }

    @Override
    public Register comparison(Comparison f, Kind kind) {
        return truths(f);
    }

    @Override
    public Register in(Condition.In f, Kind kind) {
        return truths(f);
    }

    @Override
    public Register logic(Condition.Logic f, Kind kind) {
        return truths(f);
    }

    @Override
    public Register not(Condition.Not f, Kind kind) {
        return each(f.of(), truth -> 1 - truth);
    }

    @Override
    public Register present(Condition.Present f, Kind kind) {
        return truths(f);
    }

    private Figures truths(Formula f) {
        double[] yes = masks.of(f, true);
        double[] no = masks.of(f, false);
        double[] out = new double[BLOCK];
        loops.add((from, count) -> BlockLoops.truths(yes, no, out, count));
        return new Figures(out);
    }

    @Override
    public Register cases(Choice.Case f, Kind kind) {
        List<double[]> conditions = f.whens().stream().map(when -> masks.of(when.condition(), true)).toList();
        return kind == Kind.TEXT ? new Texts(textCases(f, conditions)) : new Figures(figureCases(f, conditions));
    }

    private double[] figureCases(Choice.Case f, List<double[]> conditions) {
        double[] so = f.otherwise() instanceof Leaf.Absent ? null : figures(f.otherwise());
        for (int i = conditions.size() - 1; i >= 0; i--) {
            double[] mask = conditions.get(i);
            double[] a = figures(f.whens().get(i).result());
            double[] b = so;
            double[] out = new double[BLOCK];
            loops.add(b == null ? (from, count) -> BlockLoops.plus(mask, a, out, count) : (from, count) -> BlockLoops.select(mask, a, b, out, count));
            so = out;
        }
        return so;
    }

    private String[] textCases(Choice.Case f, List<double[]> conditions) {
        String[] otherwise = texts(f.otherwise());
        List<String[]> results = f.whens().stream().map(when -> texts(when.result())).toList();
        String[] out = new String[BLOCK];
        loops.add((from, count) -> {
            for (int i = 0; i < count; i++) {
                String[] chosen = otherwise;
                for (int w = 0; w < results.size(); w++) {
                    if (conditions.get(w)[i] == 0) {
                        chosen = results.get(w);
                        break;
                    }
                }
                out[i] = chosen[i];
            }
        });
        return out;
    }

    @Override
    public Register coalesce(Choice.Coalesce f, Kind kind) {
        return kind == Kind.TEXT ? new Texts(firstText(f.of())) : new Figures(firstFigure(f.of()));
    }

    private String[] firstText(List<Formula> of) {
        List<String[]> all = of.stream().map(this::texts).toList();
        String[] out = new String[BLOCK];
        loops.add((from, count) -> {
            for (int i = 0; i < count; i++) {
                String first = null;
                for (int k = 0; first == null && k < all.size(); k++) {
                    first = all.get(k)[i];
                }
                out[i] = first;
            }
        });
        return out;
    }

    private double[] firstFigure(List<Formula> of) {
        double[] so = figures(of.get(of.size() - 1));
        for (int k = of.size() - 2; k >= 0; k--) {
            double[] a = figures(of.get(k));
            double[] b = so;
            double[] out = new double[BLOCK];
            loops.add((from, count) -> BlockLoops.coalesce(a, b, out, count));
            so = out;
        }
        return so;
    }

    @Override
    public Register nullIf(Choice.NullIf f, Kind kind) {
        double[] same = masks.compared(Relation.EQUAL, f.left(), f.right());
        if (kind == Kind.TEXT) {
            String[] a = texts(f.left());
            String[] out = new String[BLOCK];
            loops.add((from, count) -> {
                for (int i = 0; i < count; i++) {
                    out[i] = same[i] == 0 ? null : a[i];
                }
            });
            return new Texts(out);
        }
        double[] a = figures(f.left());
        double[] none = Figures.constant(Double.NaN).cells();
        double[] out = new double[BLOCK];
        loops.add((from, count) -> BlockLoops.select(same, none, a, out, count));
        return new Figures(out);
    }

    @Override
    public Register calendarField(Calendar.CalendarField f, Kind kind) {
        return calendar(f.of(), CalendarUnit.valueOf(f.part().name()), day -> switch (f.part()) {
            case YEAR -> day.getYear();
            case QUARTER -> (day.getMonthValue() + 2) / 3;
            case MONTH -> day.getMonthValue();
            case DAY -> day.getDayOfMonth();
        });
    }

    @Override
    public Register period(Calendar.Period f, Kind kind) {
        return calendar(f.of(), f.unit(), f.unit()::index);
    }

    private interface OfDay {
        double of(LocalDate day);
    }

    /** Something of a date, or of a text that names a period no longer than the unit. */
    private Register calendar(Formula of, CalendarUnit unit, OfDay function) {
        if (typing.of(of) != Kind.TEXT) {
            return each(of, day -> day != day ? Double.NaN : function.of(LocalDate.ofEpochDay((long) day)));
        }
        String[] a = texts(of);
        double[] out = new double[BLOCK];
        loops.add((from, count) -> {
            for (int i = 0; i < count; i++) {
                out[i] = a[i] == null ? Double.NaN
                        : unit.index(a[i]).stream().map(index -> function.of(unit.start(index))).findFirst().orElse(Double.NaN);
            }
        });
        return new Figures(out);
    }

    @Override
    public Register concat(Textual.Concat f, Kind kind) {
        List<String[]> all = f.of().stream().map(this::texts).toList();
        String[] out = new String[BLOCK];
        loops.add((from, count) -> {
            for (int i = 0; i < count; i++) {
                StringBuilder text = new StringBuilder();
                for (String[] each : all) {
                    text = each[i] == null || text == null ? null : text.append(each[i]);
                }
                out[i] = text == null ? null : text.toString();
            }
        });
        return new Texts(out);
    }

    @Override
    public Register repeat(Textual.Repeat f, Kind kind) {
        String[] text = texts(f.text());
        double[] times = figures(f.count());
        String[] out = new String[BLOCK];
        loops.add((from, count) -> {
            for (int i = 0; i < count; i++) {
                out[i] = text[i] == null || times[i] != times[i] ? null : text[i].repeat((int) Math.max(0, times[i]));
            }
        });
        return new Texts(out);
    }

    @Override
    public Register text(Textual.Text f, Kind kind) {
        Kind of = typing.of(f.of());
        return of == Kind.TEXT ? register(f.of()) : written(f.of(), figure -> ValueFormatter.text(of, figure));
    }

    @Override
    public Register formatted(Textual.Formatted f, Kind kind) {
        if (typing.of(f.of()) == Kind.TEXT) {
            String[] texts = texts(f.of());
            String[] out = new String[BLOCK];
            UnaryOperator<String> writer = ValueFormatter.periods(f.pattern(), f.locale());
            loops.add((from, count) -> {
                for (int i = 0; i < count; i++) {
                    out[i] = texts[i] == null ? null : writer.apply(texts[i]);
                }
            });
            return new Texts(out);
        }
        return written(f.of(), ValueFormatter.by(typing.of(f.of()), f.pattern(), f.locale()));
    }

    private Register written(Formula of, DoubleFunction<String> writer) {
        double[] a = figures(of);
        String[] out = new String[BLOCK];
        loops.add((from, count) -> {
            for (int i = 0; i < count; i++) {
                out[i] = writer.apply(a[i]);
            }
        });
        return new Texts(out);
    }

    @Override
    public Register aggregate(Window.Aggregate f, Kind kind) {
        return Figures.constant(scope.folded(f));
    }

    @Override
    public Register cumulative(Window.Cumulative f, Kind kind) {
        double[] a = figures(f.of());
        double[] anew = f.restart() instanceof Leaf.Absent ? Figures.constant(Double.NaN).cells() : masks.of(f.restart(), true);
        double[] out = new double[BLOCK];
        double[] carried = new double[2];
        loops.add((from, count) -> {
            double sum = carried[0];
            double lost = carried[1];
            for (int i = 0; i < count; i++) {
                double figure = a[i] != a[i] ? 0 : a[i];
                double before = anew[i] == 0 ? 0 : sum;
                sum = before + figure;
                lost = (anew[i] == 0 ? 0 : lost) + CompensatedSum.lost(before, figure, sum);
                out[i] = CompensatedSum.value(sum, lost);
            }
            carried[0] = sum;
            carried[1] = lost;
        });
        return new Figures(out);
    }

    @Override
    public Register lag(Window.Lag f, Kind kind) {
        double[] a = figures(f.of());
        double[] out = new double[BLOCK];
        double[] carried = new double[1];
        loops.add((from, count) -> {
            out[0] = from == 0 ? Double.NaN : carried[0];
            carried[0] = a[count - 1];
            System.arraycopy(a, 0, out, 1, count - 1);
        });
        return new Figures(out);
    }

    @Override
    public Register rank(Window.Rank f, Kind kind) {
        throw new IllegalStateException("ranked in a stage of its own: " + f);
    }

    @Override
    public Register lookup(Window.Lookup f, Kind kind) {
        throw new IllegalStateException("looked up in a stage of its own: " + f);
    }
}
