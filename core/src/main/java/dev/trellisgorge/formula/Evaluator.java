package dev.trellisgorge.formula;

import dev.trellisgorge.formula.Formula.Choose;
import dev.trellisgorge.formula.Formula.Comparison;
import dev.trellisgorge.formula.Formula.Connective;
import dev.trellisgorge.formula.Formula.Direction;
import dev.trellisgorge.formula.Formula.Equals;
import dev.trellisgorge.formula.Formula.Fold;
import dev.trellisgorge.formula.Formula.Relation;
import dev.trellisgorge.formula.Formula.Rounding;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.RowOrder;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ForkJoinPool;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/**
 * The back end that computes cells in process: a formula becomes a chain of loops, each over a block of rows
 * that fits the nearest cache. No cell is boxed, and no node makes a column of its own, but for the ones that need all
 * rows before they can give one (a rank, a lookup).
 */
final class Evaluator {
    private static final int BLOCK = 1024;
    private static final int MANY = 1 << 17;
    private static final long ABSENT = Double.doubleToRawLongBits(Double.NaN);

    private final Scope scope;

    Evaluator(Scope scope) {
        this.scope = scope;
    }

    /** The formula's cells on every row of the shaped table. */
    Column evaluate(String name, Formula formula) {
        Kind kind = formula.match(new KindOf(scope)).orElse(Kind.NUMBER);
        int rows = scope.inputs().rowCount();
        if (kind == Kind.TEXT) {
            Words words = formula.match(new WordsOf());
            String[] cells = new String[rows];
            Arrays.setAll(cells, words::at);
            return Column.texts(name, cells);
        }
        return Column.owning(name, kind, all(formula));
    }

    /** Whether a condition is true on some row; looks no further than the first block that has one. */
    boolean anyRow(Formula condition) {
        Mask mask = condition.match(new MaskOf(true));
        long[] block = new long[BLOCK];
        for (int from = 0; from < scope.inputs().rowCount(); from += BLOCK) {
            int count = Math.min(BLOCK, scope.inputs().rowCount() - from);
            mask.fill(from, count, block);
            for (int i = 0; i < count; i++) {
                if (block[i] != 0) {
                    return true;
                }
            }
        }
        return false;
    }

    /**
     * A formula's figures on every row. Many rows are shared out among the processors, unless the formula carries something
     * on from row to row; each part has its own loops, and the cells are the same.
     */
    private double[] all(Formula formula) {
        int rows = scope.inputs().rowCount();
        double[] cells = new double[rows];
        if (rows < MANY || carriesOn(formula)) {
            fill(formula.match(new FiguresOf()), 0, rows, cells);
            return cells;
        }
        int parts = ForkJoinPool.getCommonPoolParallelism() + 1;
        int part = (rows / parts / BLOCK + 1) * BLOCK;
        List<Figures> loops = Stream.generate(() -> formula.match(new FiguresOf())).limit(parts).toList();
        IntStream.range(0, parts).parallel().forEach(p -> fill(loops.get(p), p * part, Math.min(rows, (p + 1) * part), cells));
        return cells;
    }

    private static void fill(Figures figures, int start, int end, double[] cells) {
        for (int from = start; from < end; from += BLOCK) {
            figures.fill(from, Math.min(BLOCK, end - from), cells, from);
        }
    }

    private static boolean carriesOn(Formula formula) {
        return formula instanceof Formula.Running || formula.operands().stream().anyMatch(Evaluator::carriesOn);
    }

    private boolean isText(Formula f) {
        return f.match(new KindOf(scope)).filter(kind -> kind == Kind.TEXT).isPresent();
    }

    /** Writes {@code count} cells, from row {@code from} on, to {@code out} from index {@code at} on. */
    private interface Figures {
        void fill(int from, int count, double[] out, int at);
    }

    /** The text on one row; null where it is missing. */
    private interface Words {
        String at(int row);
    }

    /** The figure on one row. */
    private interface RowFigure {
        double at(int row);
    }

    private static Figures constant(double value) {
        return (from, count, out, at) -> Arrays.fill(out, at, at + count, value);
    }

    private static Figures cells(double[] cells) {
        return (from, count, out, at) -> System.arraycopy(cells, from, out, at, count);
    }

    private static Figures byRow(RowFigure figure) {
        return (from, count, out, at) -> {
            for (int i = 0; i < count; i++) {
                out[at + i] = figure.at(from + i);
            }
        };
    }

    private final class FiguresOf implements Formula.Cases<Figures> {
        @Override
        public Figures input(Formula.Input f) {
            return scope.input(f.column())::read;
        }

        @Override
        public Figures helper(Formula.Helper f) {
            return scope.helper(f.column())::read;
        }

        @Override
        public Figures constant(Formula.Constant f) {
            return Evaluator.constant(f.value());
        }

        @Override
        public Figures words(Formula.Words f) {
            throw new IllegalStateException("a text is no figure: " + f);
        }

        @Override
        public Figures setting(Formula.Setting f) {
            return Evaluator.constant(scope.settings().value(f.name()));
        }

        @Override
        public Figures absent(Formula.Absent f) {
            return Evaluator.constant(Double.NaN);
        }

        @Override
        public Figures arithmetic(Formula.Arithmetic f) {
            Figures left = f.left().match(this);
            Figures right = f.right().match(this);
            double[] b = new double[BLOCK];
            return (from, count, out, at) -> {
                left.fill(from, count, out, at);
                right.fill(from, count, b, 0);
                switch (f.operator()) {
                    case PLUS -> {
                        for (int i = 0; i < count; i++) {
                            out[at + i] += b[i];
                        }
                    }
                    case MINUS -> {
                        for (int i = 0; i < count; i++) {
                            out[at + i] -= b[i];
                        }
                    }
                    case TIMES -> {
                        for (int i = 0; i < count; i++) {
                            out[at + i] *= b[i];
                        }
                    }
                    case OVER -> {
                        for (int i = 0; i < count; i++) {
                            out[at + i] = b[i] == 0 ? Double.NaN : out[at + i] / b[i];
                        }
                    }
                    case LEAST -> {
                        for (int i = 0; i < count; i++) {
                            out[at + i] = Math.min(out[at + i], b[i]);
                        }
                    }
                    case GREATEST -> {
                        for (int i = 0; i < count; i++) {
                            out[at + i] = Math.max(out[at + i], b[i]);
                        }
                    }
                }
            };
        }

        @Override
        public Figures magnitude(Formula.Magnitude f) {
            Figures of = f.of().match(this);
            return (from, count, out, at) -> {
                of.fill(from, count, out, at);
                for (int i = at; i < at + count; i++) {
                    out[i] = Math.abs(out[i]);
                }
            };
        }

        @Override
        public Figures comparison(Comparison f) {
            if (isText(f.left()) || isText(f.right())) {
                return compareWords(f);
            }
            Mask holds = f.match(new MaskOf(true));
            Mask fails = f.match(new MaskOf(false));
            long[] yes = new long[BLOCK];
            long[] no = new long[BLOCK];
            return (from, count, out, at) -> {
                holds.fill(from, count, yes);
                fails.fill(from, count, no);
                for (int i = 0; i < count; i++) {
                    out[at + i] = yes[i] != 0 ? 1 : no[i] != 0 ? 0 : Double.NaN;
                }
            };
        }

        private Figures compareWords(Comparison f) {
            Words left = f.left().match(new WordsOf());
            Words right = f.right().match(new WordsOf());
            return (from, count, out, at) -> {
                for (int i = 0; i < count; i++) {
                    String a = left.at(from + i);
                    String b = right.at(from + i);
                    out[at + i] = a == null || b == null ? Double.NaN : holds(f.relation(), a.compareTo(b)) ? 1 : 0;
                }
            };
        }

        @Override
        public Figures logic(Formula.Logic f) {
            Figures left = f.left().match(this);
            Figures right = f.right().match(this);
            double decisive = f.connective() == Connective.AND ? 0 : 1;
            double[] b = new double[BLOCK];
            return (from, count, out, at) -> {
                left.fill(from, count, out, at);
                right.fill(from, count, b, 0);
                for (int i = 0; i < count; i++) {
                    double a = out[at + i];
                    out[at + i] = a == decisive || b[i] == decisive ? decisive : a + b[i] - (1 - decisive);
                }
            };
        }

        @Override
        public Figures not(Formula.Not f) {
            Figures of = f.of().match(this);
            return (from, count, out, at) -> {
                of.fill(from, count, out, at);
                for (int i = at; i < at + count; i++) {
                    out[i] = 1 - out[i];
                }
            };
        }

        @Override
        public Figures present(Formula.Present f) {
            if (isText(f.of())) {
                Words words = f.of().match(new WordsOf());
                return byRow(row -> words.at(row) != null ? 1 : 0);
            }
            Figures of = f.of().match(this);
            return (from, count, out, at) -> {
                of.fill(from, count, out, at);
                for (int i = at; i < at + count; i++) {
                    out[i] = out[i] == out[i] ? 1 : 0;
                }
            };
        }

        @Override
        public Figures choose(Choose f) {
            Mask when = f.when().match(new MaskOf(true));
            Figures then = f.then().match(this);
            Figures otherwise = f.otherwise().match(this);
            long[] mask = new long[BLOCK];
            double[] e = new double[BLOCK];
            if (f.otherwise() instanceof Formula.Absent) {
                return (from, count, out, at) -> {
                    when.fill(from, count, mask);
                    then.fill(from, count, out, at);
                    for (int i = 0; i < count; i++) {
                        out[at + i] = Double.longBitsToDouble(Double.doubleToRawLongBits(out[at + i]) & mask[i] | ABSENT & ~mask[i]);
                    }
                };
            }
            return (from, count, out, at) -> {
                when.fill(from, count, mask);
                then.fill(from, count, out, at);
                otherwise.fill(from, count, e, 0);
                for (int i = 0; i < count; i++) {
                    out[at + i] = Double.longBitsToDouble(Double.doubleToRawLongBits(out[at + i]) & mask[i]
                            | Double.doubleToRawLongBits(e[i]) & ~mask[i]);
                }
            };
        }

        @Override
        public Figures row(Formula.Row f) {
            return (from, count, out, at) -> {
                for (int i = 0; i < count; i++) {
                    out[at + i] = from + i + 1;
                }
            };
        }

        @Override
        public Figures whole(Formula.Whole f) {
            return Evaluator.constant(scope.kept(f, () -> new double[] {fold(f)})[0]);
        }

        private double fold(Formula.Whole f) {
            Figures of = isText(f.of()) ? f.of().match(new PresenceOf()) : f.of().match(this);
            double[] block = new double[BLOCK];
            double result = f.fold() == Fold.COUNT ? 0 : Double.NaN;
            for (int from = 0; from < scope.inputs().rowCount(); from += BLOCK) {
                int count = Math.min(BLOCK, scope.inputs().rowCount() - from);
                of.fill(from, count, block, 0);
                for (int i = 0; i < count; i++) {
                    result = block[i] != block[i] ? result : folded(f.fold(), result, block[i]);
                }
            }
            return result;
        }

        @Override
        public Figures running(Formula.Running f) {
            Figures of = f.of().match(this);
            Figures restart = f.restart().match(this);
            double[] anew = new double[BLOCK];
            double[] total = new double[1];
            return (from, count, out, at) -> {
                of.fill(from, count, out, at);
                restart.fill(from, count, anew, 0);
                double sum = from == 0 ? 0 : total[0];
                for (int i = 0; i < count; i++) {
                    double cell = out[at + i];
                    sum = (anew[i] == 1 ? 0 : sum) + (cell != cell ? 0 : cell);
                    out[at + i] = sum;
                }
                total[0] = sum;
            };
        }

        @Override
        public Figures previous(Formula.Previous f) {
            Figures of = carriesOn(f.of()) ? cells(scope.kept(f.of(), () -> all(f.of()))) : f.of().match(this);
            return (from, count, out, at) -> {
                int none = from == 0 ? Math.min(1, count) : 0;
                Arrays.fill(out, at, at + none, Double.NaN);
                of.fill(from + none - 1, count - none, out, at + none);
            };
        }

        @Override
        public Figures rank(Formula.Rank f) {
            return cells(scope.kept(f, () -> ranks(f)));
        }

        private double[] ranks(Formula.Rank f) {
            double[] cells = all(f.of());
            int[] order = RowOrder.of(cells, f.direction() == Direction.DESCENDING);
            double[] ranks = new double[cells.length];
            for (int i = 0; i < order.length; i++) {
                int row = order[i];
                boolean shared = f.equals() == Equals.SHARED && i > 0 && cells[row] == cells[order[i - 1]];
                ranks[row] = cells[row] != cells[row] ? Double.NaN : shared ? ranks[order[i - 1]] : i + 1;
            }
            return ranks;
        }

        @Override
        public Figures period(Formula.Period f) {
            if (isText(f.of())) {
                Words texts = f.of().match(new WordsOf());
                return byRow(row -> {
                    String text = texts.at(row);
                    return text == null ? Double.NaN : f.unit().index(text).orElse(Double.NaN);
                });
            }
            double[] days = all(f.of());
            return byRow(row -> Double.isNaN(days[row]) ? Double.NaN : f.unit().index(LocalDate.ofEpochDay((long) days[row])));
        }

        @Override
        public Figures lookup(Formula.Lookup f) {
            double[] keys = all(f.key());
            double[] cells = all(f.of());
            Map<Double, Double> firstOf = new HashMap<>();
            for (int row = 0; row < keys.length; row++) {
                firstOf.putIfAbsent(keys[row], cells[row]);
            }
            firstOf.remove(Double.NaN);
            double[] wanted = all(f.wanted());
            return byRow(row -> firstOf.getOrDefault(wanted[row] + 0.0, Double.NaN));
        }

        @Override
        public Figures rounded(Formula.Rounded f) {
            Figures of = f.of().match(this);
            boolean halvesUp = f.rounding() == Rounding.HALF_UP;
            return (from, count, out, at) -> {
                of.fill(from, count, out, at);
                for (int i = at; i < at + count; i++) {
                    double below = Math.floor(out[i]);
                    out[i] = (halvesUp && out[i] - below >= 0.5 ? below + 1 : below) + 0.0;
                }
            };
        }

        @Override
        public Figures day(Formula.Day f) {
            return Evaluator.constant(f.date().toEpochDay());
        }

        @Override
        public Figures repeated(Formula.Repeated f) {
            throw new IllegalStateException("a text is no figure: " + f);
        }

        @Override
        public Figures joined(Formula.Joined f) {
            throw new IllegalStateException("a text is no figure: " + f);
        }

        @Override
        public Figures written(Formula.Written f) {
            throw new IllegalStateException("a text is no figure: " + f);
        }
    }

    /** Says of each row whether something is certainly so: all bits, or none. Branches would be guessed wrong too often. */
    private interface Mask {
        void fill(int from, int count, long[] out);
    }

    /** A truth as a mask: the rows on which it is certainly what is wanted, true or false; unknown is neither. */
    private final class MaskOf extends Formula.SomeCases<Mask> {
        private final boolean wanted;

        MaskOf(boolean wanted) {
            this.wanted = wanted;
        }

        @Override
        public Mask comparison(Comparison f) {
            if (isText(f.left()) || isText(f.right())) {
                return refuse(f);
            }
            Relation relation = wanted ? f.relation() : opposite(f.relation());
            Figures left = f.left().match(new FiguresOf());
            double[] a = new double[BLOCK];
            Figures right = f.right().match(new FiguresOf());
            double[] b = new double[BLOCK];
            if (f.right() instanceof Formula.Constant || f.right() instanceof Formula.Setting) {
                right.fill(0, BLOCK, b, 0);
                return (from, count, out) -> {
                    left.fill(from, count, a, 0);
                    compare(relation, a, b, count, out);
                };
            }
            return (from, count, out) -> {
                left.fill(from, count, a, 0);
                right.fill(from, count, b, 0);
                compare(relation, a, b, count, out);
            };
        }

        @Override
        public Mask logic(Formula.Logic f) {
            Mask left = f.left().match(this);
            Mask right = f.right().match(this);
            boolean both = (f.connective() == Connective.AND) == wanted;
            long[] b = new long[BLOCK];
            return (from, count, out) -> {
                left.fill(from, count, out);
                right.fill(from, count, b);
                if (both) {
                    for (int i = 0; i < count; i++) {
                        out[i] &= b[i];
                    }
                } else {
                    for (int i = 0; i < count; i++) {
                        out[i] |= b[i];
                    }
                }
            };
        }

        @Override
        public Mask not(Formula.Not f) {
            return f.of().match(new MaskOf(!wanted));
        }

        @Override
        public Mask present(Formula.Present f) {
            if (f.of() instanceof Formula.Constant) {
                return (from, count, out) -> Arrays.fill(out, 0, count, wanted ? -1L : 0L);
            }
            if (isText(f.of())) {
                return refuse(f);
            }
            Figures of = f.of().match(new FiguresOf());
            double[] a = new double[BLOCK];
            long whenMissing = wanted ? 0L : -1L;
            return (from, count, out) -> {
                of.fill(from, count, a, 0);
                for (int i = 0; i < count; i++) {
                    out[i] = a[i] != a[i] ? whenMissing : ~whenMissing;
                }
            };
        }

        @Override
        protected Mask refuse(Formula f) {
            Figures truths = f.match(new FiguresOf());
            double[] a = new double[BLOCK];
            double[] b = new double[BLOCK];
            Arrays.fill(b, wanted ? 1 : 0);
            return (from, count, out) -> {
                truths.fill(from, count, a, 0);
                compare(Relation.EQUAL, a, b, count, out);
            };
        }
    }

    private static Relation opposite(Relation relation) {
        return switch (relation) {
            case BELOW -> Relation.AT_LEAST;
            case AT_MOST -> Relation.ABOVE;
            case ABOVE -> Relation.AT_MOST;
            case AT_LEAST -> Relation.BELOW;
            case EQUAL -> Relation.UNEQUAL;
            case UNEQUAL -> Relation.EQUAL;
        };
    }

    private static void compare(Relation relation, double[] a, double[] b, int count, long[] out) {
        switch (relation) {
            case BELOW -> {
                for (int i = 0; i < count; i++) {
                    out[i] = a[i] < b[i] ? -1L : 0L;
                }
            }
            case AT_MOST -> {
                for (int i = 0; i < count; i++) {
                    out[i] = a[i] <= b[i] ? -1L : 0L;
                }
            }
            case ABOVE -> {
                for (int i = 0; i < count; i++) {
                    out[i] = a[i] > b[i] ? -1L : 0L;
                }
            }
            case AT_LEAST -> {
                for (int i = 0; i < count; i++) {
                    out[i] = a[i] >= b[i] ? -1L : 0L;
                }
            }
            case EQUAL -> {
                for (int i = 0; i < count; i++) {
                    out[i] = a[i] == b[i] ? -1L : 0L;
                }
            }
            case UNEQUAL -> {
                for (int i = 0; i < count; i++) {
                    out[i] = a[i] < b[i] | a[i] > b[i] ? -1L : 0L;
                }
            }
        }
    }

    /** One on the rows where a text is there, missing elsewhere: what counting texts needs. */
    private final class PresenceOf extends Formula.SomeCases<Figures> {
        @Override
        protected Figures refuse(Formula f) {
            Words words = f.match(new WordsOf());
            return byRow(row -> words.at(row) == null ? Double.NaN : 1);
        }
    }

    private static double folded(Fold fold, double result, double cell) {
        return switch (fold) {
            case COUNT -> result + 1;
            case SUM -> result != result ? cell : result + cell;
            case LEAST -> result <= cell ? result : cell;
            case GREATEST -> result >= cell ? result : cell;
        };
    }

    private static boolean holds(Relation relation, int order) {
        return switch (relation) {
            case BELOW -> order < 0;
            case AT_MOST -> order <= 0;
            case ABOVE -> order > 0;
            case AT_LEAST -> order >= 0;
            case EQUAL -> order == 0;
            case UNEQUAL -> order != 0;
        };
    }

    private final class WordsOf extends Formula.SomeCases<Words> {
        @Override
        public Words input(Formula.Input f) {
            return text(scope.input(f.column()));
        }

        @Override
        public Words helper(Formula.Helper f) {
            return text(scope.helper(f.column()));
        }

        private Words text(Column column) {
            return row -> column.isPresent(row) ? column.written(row) : null;
        }

        @Override
        public Words words(Formula.Words f) {
            return row -> f.text();
        }

        @Override
        public Words absent(Formula.Absent f) {
            return row -> null;
        }

        @Override
        public Words choose(Choose f) {
            Words then = f.then().match(this);
            Words otherwise = f.otherwise().match(this);
            double[] when = all(f.when());
            return row -> when[row] == 1 ? then.at(row) : otherwise.at(row);
        }

        @Override
        public Words repeated(Formula.Repeated f) {
            Words text = f.text().match(this);
            double[] counts = all(f.count());
            return row -> text.at(row) == null || Double.isNaN(counts[row]) ? null : text.at(row).repeat((int) Math.max(0, counts[row]));
        }

        @Override
        public Words joined(Formula.Joined f) {
            Words left = f.left().match(this);
            Words right = f.right().match(this);
            return row -> {
                String first = left.at(row);
                String second = right.at(row);
                return first == null || second == null ? null : first + second;
            };
        }

        @Override
        public Words written(Formula.Written f) {
            return text(evaluate("text", f.of()));
        }

        @Override
        protected Words refuse(Formula f) {
            throw new IllegalStateException("not a text: " + f);
        }
    }
}
