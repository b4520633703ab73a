package dev.trellisgorge.formula;

import dev.trellisgorge.formula.Formula.Choose;
import dev.trellisgorge.formula.Formula.Comparison;
import dev.trellisgorge.formula.Formula.Connective;
import dev.trellisgorge.formula.Formula.Relation;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import java.util.Arrays;

/**
 * The back end that computes cells in process: a formula becomes a chain of loops, each over a block of rows
 * that fits the nearest cache. No cell is boxed, and no node makes a column of its own.
 */
final class Evaluator {
    private static final int BLOCK = 1024;

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
        double[] cells = new double[rows];
        Figures figures = formula.match(new FiguresOf());
        for (int from = 0; from < rows; from += BLOCK) {
            figures.fill(from, Math.min(BLOCK, rows - from), cells, from);
        }
        return Column.owning(name, kind, cells);
    }

    /** Writes {@code count} cells, from row {@code from} on, to {@code out} from index {@code at} on. */
    private interface Figures {
        void fill(int from, int count, double[] out, int at);
    }

    /** The text on one row; null where it is missing. */
    private interface Words {
        String at(int row);
    }

    /** Says for one row whether something is so. */
    private interface RowTest {
        boolean holds(int row);
    }

    private static Figures constant(double value) {
        return (from, count, out, at) -> Arrays.fill(out, at, at + count, value);
    }

    private static Figures byRow(RowTest test) {
        return (from, count, out, at) -> {
            for (int i = 0; i < count; i++) {
                out[at + i] = test.holds(from + i) ? 1 : 0;
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
            Figures verdict = select(f, Evaluator.constant(1), Evaluator.constant(0));
            Figures left = f.left().match(this);
            Figures right = f.right().match(this);
            double[] a = new double[BLOCK];
            double[] b = new double[BLOCK];
            return (from, count, out, at) -> {
                verdict.fill(from, count, out, at);
                left.fill(from, count, a, 0);
                right.fill(from, count, b, 0);
                for (int i = 0; i < count; i++) {
                    out[at + i] = a[i] != a[i] || b[i] != b[i] ? Double.NaN : out[at + i];
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
                return byRow(row -> words.at(row) != null);
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
            Figures then = f.then().match(this);
            Figures otherwise = f.otherwise().match(this);
            if (f.when() instanceof Comparison c && !isText(c.left()) && !isText(c.right())) {
                return select(c, then, otherwise);
            }
            Figures when = f.when().match(this);
            double[] w = new double[BLOCK];
            double[] e = new double[BLOCK];
            return (from, count, out, at) -> {
                when.fill(from, count, w, 0);
                then.fill(from, count, out, at);
                otherwise.fill(from, count, e, 0);
                for (int i = 0; i < count; i++) {
                    out[at + i] = w[i] == 1 ? out[at + i] : e[i];
                }
            };
        }

        /** The commonest formula of all, a part where a comparison holds, without a truth in between. */
        private Figures select(Comparison c, Figures then, Figures otherwise) {
            Figures left = c.left().match(this);
            Figures right = c.right().match(this);
            double[] a = new double[BLOCK];
            double[] b = new double[BLOCK];
            double[] e = new double[BLOCK];
            return (from, count, out, at) -> {
                left.fill(from, count, a, 0);
                right.fill(from, count, b, 0);
                then.fill(from, count, out, at);
                otherwise.fill(from, count, e, 0);
                switch (c.relation()) {
                    case BELOW -> {
                        for (int i = 0; i < count; i++) {
                            out[at + i] = a[i] < b[i] ? out[at + i] : e[i];
                        }
                    }
                    case AT_MOST -> {
                        for (int i = 0; i < count; i++) {
                            out[at + i] = a[i] <= b[i] ? out[at + i] : e[i];
                        }
                    }
                    case ABOVE -> {
                        for (int i = 0; i < count; i++) {
                            out[at + i] = a[i] > b[i] ? out[at + i] : e[i];
                        }
                    }
                    case AT_LEAST -> {
                        for (int i = 0; i < count; i++) {
                            out[at + i] = a[i] >= b[i] ? out[at + i] : e[i];
                        }
                    }
                    case EQUAL -> {
                        for (int i = 0; i < count; i++) {
                            out[at + i] = a[i] == b[i] ? out[at + i] : e[i];
                        }
                    }
                    case UNEQUAL -> {
                        for (int i = 0; i < count; i++) {
                            out[at + i] = a[i] < b[i] || a[i] > b[i] ? out[at + i] : e[i];
                        }
                    }
                }
            };
        }

        private boolean isText(Formula f) {
            return f.match(new KindOf(scope)).filter(kind -> kind == Kind.TEXT).isPresent();
        }
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

    private final class WordsOf implements Formula.Cases<Words> {
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
            Figures when = f.when().match(new FiguresOf());
            double[] verdict = new double[1];
            return row -> {
                when.fill(row, 1, verdict, 0);
                return verdict[0] == 1 ? then.at(row) : otherwise.at(row);
            };
        }

        @Override
        public Words constant(Formula.Constant f) {
            throw noText(f);
        }

        @Override
        public Words setting(Formula.Setting f) {
            throw noText(f);
        }

        @Override
        public Words arithmetic(Formula.Arithmetic f) {
            throw noText(f);
        }

        @Override
        public Words magnitude(Formula.Magnitude f) {
            throw noText(f);
        }

        @Override
        public Words comparison(Comparison f) {
            throw noText(f);
        }

        @Override
        public Words logic(Formula.Logic f) {
            throw noText(f);
        }

        @Override
        public Words not(Formula.Not f) {
            throw noText(f);
        }

        @Override
        public Words present(Formula.Present f) {
            throw noText(f);
        }

        private IllegalStateException noText(Formula f) {
            return new IllegalStateException("not a text: " + f);
        }
    }
}
