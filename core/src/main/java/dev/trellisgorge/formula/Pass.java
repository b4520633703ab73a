package dev.trellisgorge.formula;

import dev.trellisgorge.formula.Condition.Comparison;
import dev.trellisgorge.formula.Condition.Relation;
import dev.trellisgorge.formula.Register.Figures;
import dev.trellisgorge.formula.Register.Texts;
import dev.trellisgorge.table.CalendarUnit;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.DoubleFunction;
import java.util.function.Supplier;

/**
 * Several columns computed together, a block of rows at a time: each node is one loop over the block, and equal nodes are
 * worked out once. Used by one thread.
 */
final class Pass implements Formula.Cases<Register> {
    static final int BLOCK = 512;

    private final Typing typing;
    private final Evaluator.Scope scope;
    private final List<Loop> loops = new ArrayList<>();
    private final Map<Formula, Register> registers = new IdentityHashMap<>();
    private final Masks masks = new Masks(this);
    private Register target;

    /** One step over the rows of a block. */
    interface Loop {
        void run(int from, int count);
    }

    Pass(Typing typing, Evaluator.Scope scope) {
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

    /** Computes a column into all its cells, where {@code into} has any; else for the columns of this pass alone. */
    void column(String name, Formula formula, Register into) {
        target = into;
        Register made = registers.containsKey(formula) || formula.operands().isEmpty() ? copied(register(formula), into) : register(formula);
        target = null;
        scope.inPass(name, made);
    }

    private Register copied(Register from, Register into) {
        if (into == null) {
            return from;
        }
        target = null;
        if (from instanceof Figures figures) {
            double[] out = ((Figures) into).cells();
            loops.add((row, count) -> System.arraycopy(figures.cells(), figures.at(row), out, into.at(row), count));
        } else {
            String[] out = ((Texts) into).cells();
            loops.add((row, count) -> System.arraycopy(((Texts) from).cells(), from.at(row), out, into.at(row), count));
        }
        return into;
    }

    /** Folds a column over all rows, on the way. */
    void fold(Window.Aggregate aggregate, double[] result) {
        result[0] = aggregate.fold() == Window.Fold.COUNT ? 0 : Double.NaN;
        long[] there = masks.of(new Condition.Present(aggregate.of()), aggregate.of(), true);
        double[] cells = aggregate.fold() == Window.Fold.COUNT ? null : figures(aggregate.of()).cells();
        Register of = register(aggregate.of());
        loops.add((from, count) -> {
            double so = result[0];
            int at = of.at(from);
            for (int i = 0; i < count; i++) {
                if (there[i] != 0) {
                    so = switch (aggregate.fold()) {
                        case COUNT -> so + 1;
                        case SUM -> so != so ? cells[at + i] : so + cells[at + i];
                        case MIN -> so <= cells[at + i] ? so : cells[at + i];
                        case MAX -> so >= cells[at + i] ? so : cells[at + i];
                    };
                }
            }
            result[0] = so;
        });
    }

    private Register register(Formula node) {
        Register known = registers.get(node);
        if (known != null) {
            return known;
        }
        Register made = typing.match(node, this);
        registers.put(node, made);
        return made;
    }

    private Figures figures(Formula node) {
        return (Figures) operand(node);
    }

    private Texts texts(Formula node) {
        return (Texts) operand(node);
    }

    /** A part of a node never writes to the node's own cells. */
    Register operand(Formula node) {
        return aside(() -> register(node));
    }

    /** Something that is worked out while no column's own cells are to be written to. */
    <T> T aside(Supplier<T> step) {
        Register mine = target;
        target = null;
        T made = step.get();
        target = mine;
        return made;
    }

    private Figures out() {
        return target != null ? (Figures) target : new Figures(new double[BLOCK], false);
    }

    private Texts textsOut() {
        return target != null ? (Texts) target : new Texts(new String[BLOCK], false);
    }

    private interface OneFigure {
        double of(double figure);
    }

    private Figures each(Formula of, OneFigure function) {
        Figures a = figures(of);
        Figures out = out();
        loops.add((from, count) -> {
            int ai = a.at(from);
            int oi = out.at(from);
            for (int i = 0; i < count; i++) {
                out.cells()[oi + i] = function.of(a.cells()[ai + i]);
            }
        });
        return out;
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
            Texts texts = new Texts(new String[BLOCK], false);
            loops.add((from, count) -> {
                for (int i = 0; i < count; i++) {
                    texts.cells()[i] = column.isPresent(from + i) ? column.written(from + i) : null;
                }
            });
            return texts;
        }
        Figures figures = new Figures(new double[BLOCK], false);
        loops.add((from, count) -> column.read(from, count, figures.cells(), 0));
        return figures;
    }

    @Override
    public Register literal(Leaf.Literal f, Kind kind) {
        return kind == Kind.TEXT ? Texts.constant((String) f.value(), BLOCK) : Figures.constant(f.figure(), BLOCK);
    }

    @Override
    public Register absent(Leaf.Absent f, Kind kind) {
        return kind == Kind.TEXT ? Texts.constant(null, BLOCK) : Figures.constant(Double.NaN, BLOCK);
    }

    @Override
    public Register setting(Leaf.Setting f, Kind kind) {
        return Figures.constant(scope.settings().value(f.name()), BLOCK);
    }

    @Override
    public Register rowNumber(Leaf.RowNumber f, Kind kind) {
        Figures out = out();
        loops.add((from, count) -> {
            for (int i = 0; i < count; i++) {
                out.cells()[out.at(from) + i] = from + i + 1;
            }
        });
        return out;
    }

    @Override
    public Register arithmetic(Numeric.Arithmetic f, Kind kind) {
        Figures a = figures(f.left());
        Figures b = figures(f.right());
        Figures out = out();
        loops.add((from, count) -> BlockLoops.arithmetic(f.operator(), a.cells(), a.at(from), b.cells(), b.at(from), out.cells(), out.at(from), count));
        return out;
    }

    @Override
    public Register extreme(Numeric.Extreme f, Kind kind) {
        boolean least = f.end() == Numeric.End.LEAST;
        Figures so = figures(f.of().get(0));
        Figures out = out();
        if (f.of().size() == 1) {
            return copied(so, out);
        }
        for (Formula each : f.of().subList(1, f.of().size())) {
            Figures a = so;
            Figures b = figures(each);
            loops.add(least ? (from, count) -> BlockLoops.least(a.cells(), a.at(from), b.cells(), b.at(from), out.cells(), out.at(from), count)
                    : (from, count) -> BlockLoops.greatest(a.cells(), a.at(from), b.cells(), b.at(from), out.cells(), out.at(from), count));
            so = out;
        }
        return out;
    }

    @Override
    public Register negate(Numeric.Negate f, Kind kind) {
        Figures a = figures(f.of());
        Figures out = out();
        loops.add((from, count) -> BlockLoops.negate(a.cells(), a.at(from), out.cells(), out.at(from), count));
        return out;
    }

    @Override
    public Register abs(Numeric.Abs f, Kind kind) {
        Figures a = figures(f.of());
        Figures out = out();
        loops.add((from, count) -> BlockLoops.abs(a.cells(), a.at(from), out.cells(), out.at(from), count));
        return out;
    }

    @Override
    public Register floor(Numeric.Floor f, Kind kind) {
        return each(f.of(), figure -> Math.floor(figure) + 0.0);
    }

    @Override
    public Register round(Numeric.Round f, Kind kind) {
        return each(f.of(), figure -> Writing.rounded(figure, f.digits()));
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
        Figures out = out();
        long[] yes = masks.of(f, true);
        long[] no = masks.of(f, false);
        loops.add((from, count) -> BlockLoops.truths(yes, no, out.cells(), out.at(from), count));
        return out;
    }

    @Override
    public Register cases(Choice.Case f, Kind kind) {
        return kind == Kind.TEXT ? textCases(f) : figureCases(f);
    }

    private Register figureCases(Choice.Case f) {
        Figures so = f.otherwise() instanceof Leaf.Absent ? null : figures(f.otherwise());
        List<Figures> results = f.whens().stream().map(when -> figures(when.result())).toList();
        List<long[]> masks = f.whens().stream().map(when -> this.masks.of(when.condition(), true)).toList();
        Figures out = out();
        for (int i = masks.size() - 1; i >= 0; i--) {
            long[] mask = masks.get(i);
            Figures a = results.get(i);
            Figures b = so;
            loops.add(b == null ? (from, count) -> BlockLoops.only(mask, a.cells(), a.at(from), out.cells(), out.at(from), count)
                    : (from, count) -> BlockLoops.select(mask, a.cells(), a.at(from), b.cells(), b.at(from), out.cells(), out.at(from), count));
            so = out;
        }
        return out;
    }

    private Register textCases(Choice.Case f) {
        Texts otherwise = texts(f.otherwise());
        List<Texts> results = f.whens().stream().map(when -> texts(when.result())).toList();
        List<long[]> masks = f.whens().stream().map(when -> this.masks.of(when.condition(), true)).toList();
        Texts out = textsOut();
        loops.add((from, count) -> {
            for (int i = 0; i < count; i++) {
                Texts chosen = otherwise;
                for (int w = 0; w < masks.size(); w++) {
                    if (masks.get(w)[i] != 0) {
                        chosen = results.get(w);
                        break;
                    }
                }
                out.cells()[out.at(from) + i] = chosen.cells()[chosen.at(from) + i];
            }
        });
        return out;
    }

    @Override
    public Register coalesce(Choice.Coalesce f, Kind kind) {
        if (kind == Kind.TEXT) {
            List<Texts> all = f.of().stream().map(this::texts).toList();
            Texts out = textsOut();
            loops.add((from, count) -> {
                for (int i = 0; i < count; i++) {
                    String first = null;
                    for (int k = 0; first == null && k < all.size(); k++) {
                        first = all.get(k).cells()[all.get(k).at(from) + i];
                    }
                    out.cells()[out.at(from) + i] = first;
                }
            });
            return out;
        }
        List<Figures> all = f.of().stream().map(this::figures).toList();
        Figures out = out();
        Figures so = all.get(all.size() - 1);
        if (all.size() == 1) {
            return copied(so, out);
        }
        for (int k = all.size() - 2; k >= 0; k--) {
            Figures a = all.get(k);
            Figures b = so;
            loops.add((from, count) -> BlockLoops.coalesce(a.cells(), a.at(from), b.cells(), b.at(from), out.cells(), out.at(from), count));
            so = out;
        }
        return out;
    }

    @Override
    public Register nullIf(Choice.NullIf f, Kind kind) {
        long[] same = masks.compared(Relation.EQUAL, f.left(), f.right());
        if (kind == Kind.TEXT) {
            Texts a = texts(f.left());
            Texts out = textsOut();
            loops.add((from, count) -> {
                for (int i = 0; i < count; i++) {
                    out.cells()[out.at(from) + i] = same[i] != 0 ? null : a.cells()[a.at(from) + i];
                }
            });
            return out;
        }
        Figures a = figures(f.left());
        Figures none = Figures.constant(Double.NaN, BLOCK);
        Figures out = out();
        loops.add((from, count) -> BlockLoops.select(same, none.cells(), 0, a.cells(), a.at(from), out.cells(), out.at(from), count));
        return out;
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
        Texts a = texts(of);
        Figures out = out();
        loops.add((from, count) -> {
            for (int i = 0; i < count; i++) {
                String text = a.cells()[a.at(from) + i];
                out.cells()[out.at(from) + i] = text == null ? Double.NaN
                        : unit.index(text).stream().map(index -> function.of(unit.start(index))).findFirst().orElse(Double.NaN);
            }
        });
        return out;
    }

    @Override
    public Register concat(Textual.Concat f, Kind kind) {
        List<Texts> all = f.of().stream().map(this::texts).toList();
        Texts out = textsOut();
        loops.add((from, count) -> {
            for (int i = 0; i < count; i++) {
                StringBuilder text = new StringBuilder();
                for (Texts each : all) {
                    String cell = each.cells()[each.at(from) + i];
                    text = cell == null || text == null ? null : text.append(cell);
                }
                out.cells()[out.at(from) + i] = text == null ? null : text.toString();
            }
        });
        return out;
    }

    @Override
    public Register repeat(Textual.Repeat f, Kind kind) {
        Texts text = texts(f.text());
        Figures times = figures(f.count());
        Texts out = textsOut();
        loops.add((from, count) -> {
            for (int i = 0; i < count; i++) {
                String cell = text.cells()[text.at(from) + i];
                double n = times.cells()[times.at(from) + i];
                out.cells()[out.at(from) + i] = cell == null || n != n ? null : cell.repeat((int) Math.max(0, n));
            }
        });
        return out;
    }

    @Override
    public Register text(Textual.Text f, Kind kind) {
        Kind of = typing.of(f.of());
        return of == Kind.TEXT ? copied(texts(f.of()), textsOut()) : written(f.of(), figure -> Writing.text(of, figure));
    }

    @Override
    public Register formatted(Textual.Formatted f, Kind kind) {
        return written(f.of(), Writing.by(typing.of(f.of()), f.pattern(), f.locale()));
    }

    private Register written(Formula of, DoubleFunction<String> writer) {
        Figures a = figures(of);
        Texts out = textsOut();
        loops.add((from, count) -> {
            for (int i = 0; i < count; i++) {
                out.cells()[out.at(from) + i] = writer.apply(a.cells()[a.at(from) + i]);
            }
        });
        return out;
    }

    @Override
    public Register aggregate(Window.Aggregate f, Kind kind) {
        return Figures.constant(scope.folded(f), BLOCK);
    }

    @Override
    public Register cumulative(Window.Cumulative f, Kind kind) {
        Figures a = figures(f.of());
        long[] anew = f.restart() instanceof Leaf.Absent ? new long[BLOCK] : masks.of(f.restart(), true);
        Figures out = out();
        double[] carried = new double[1];
        loops.add((from, count) -> {
            double sum = from == 0 ? 0 : carried[0];
            int ai = a.at(from);
            int oi = out.at(from);
            for (int i = 0; i < count; i++) {
                double cell = a.cells()[ai + i];
                sum = (anew[i] != 0 ? 0 : sum) + (cell != cell ? 0 : cell);
                out.cells()[oi + i] = sum;
            }
            carried[0] = sum;
        });
        return out;
    }

    @Override
    public Register lag(Window.Lag f, Kind kind) {
        Figures a = figures(f.of());
        Figures out = out();
        double[] carried = new double[1];
        loops.add((from, count) -> {
            double first = from == 0 ? Double.NaN : carried[0];
            carried[0] = a.cells()[a.at(from) + count - 1];
            System.arraycopy(a.cells(), a.at(from), out.cells(), out.at(from) + 1, count - 1);
            out.cells()[out.at(from)] = first;
        });
        return out;
    }

    @Override
    public Register rank(Window.Rank f, Kind kind) {
        return new Figures(scope.ranks(f), true);
    }

    @Override
    public Register lookup(Window.Lookup f, Kind kind) {
        return new Figures(scope.lookedUp(f), true);
    }
}
