package dev.trellisgorge.formula;

import dev.trellisgorge.formula.Formula.Connective;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Numbers;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/**
 * The back end that writes a formula for one row of a sheet, in the SpreadsheetML formula language
 * (ECMA-376 part 1, 18.17), without the leading {@code =}.
 *
 * <p>Sheets count a blank cell as zero and have no unknown truth, so both are made explicit. An absent cell is
 * {@code NA()}, which charts skip and arithmetic carries on. A condition is written so that it is true only
 * where it is certainly true: every cell that it reads is first required to hold a number (a text, for texts).
 */
public final class SheetFormula {
    private static final String ABSENT = "NA()";

    private final CellNames cells;

    /** What the formula's names are called on the sheet, for one row. */
    public interface CellNames {
        /** The cell of a column of the shaped table: {@code 'Data'!C2}. */
        String input(String column);

        /** The kind of that column. */
        Kind inputKind(String column);

        /** The cell of a helper column: {@code B2}. It holds a number, a text, or an error where it is absent. */
        String helper(String column);

        /** The kind of that column. */
        Kind helperKind(String column);

        /** The defined name of a setting's cell. */
        String setting(String name);

        /** The cell of one of {@link SheetFormula#beside}, on this row. */
        String here(Formula formula);

        /** The same a row up; empty on the first row. */
        Optional<String> above(Formula formula);

        /** The same on every row: {@code $F$2:$F$9}. */
        String range(Formula formula);

        /** The same on every row above this one; empty on the first row. */
        Optional<String> rangeAbove(Formula formula);
    }

    public SheetFormula(CellNames cells) {
        this.cells = cells;
    }

    /**
     * The formulas that need a column of their own on the sheet, because others run over their cells: what whole-column
     * formulas, ranks, look-ups and previous rows read, and running sums. Each stands after the ones that it reads.
     */
    public static Set<Formula> beside(Collection<Formula> formulas) {
        Set<Formula> found = new LinkedHashSet<>();
        formulas.forEach(formula -> beside(formula, found));
        return found;
    }

    private static void beside(Formula formula, Set<Formula> found) {
        formula.operands().forEach(operand -> beside(operand, found));
        if (formula instanceof Formula.Whole || formula instanceof Formula.Previous || formula instanceof Formula.Rank) {
            found.add(formula.operands().get(0));
        } else if (formula instanceof Formula.Lookup lookup) {
            found.add(lookup.of());
            found.add(lookup.key());
        } else if (formula instanceof Formula.Running) {
            found.add(formula);
        }
    }

    /** The cell of one of {@link #beside}: a number or a text; an empty text where it is absent, which no sum or rank counts. */
    public String writeBeside(Formula formula) {
        if (formula instanceof Formula.Running running) {
            String before = cells.above(formula).orElse("0");
            String carried = running.restart() instanceof Formula.Absent ? before : "IF(" + running.restart().match(new Certainly(true)) + ",0," + before + ")";
            return carried + "+IFERROR(" + write(running.of()) + ",0)";
        }
        return "IFERROR(" + write(formula) + ",\"\")";
    }

    /** The formula of one cell; an error value where the cell is absent. */
    public String write(Formula formula) {
        return formula.match(new Value(Set.of()));
    }

    /** A condition that is TRUE where the formula is certainly true, and FALSE elsewhere. */
    public String writeCondition(Formula truth) {
        return truth.match(new Certainly(true));
    }

    /** The cells that have to hold something before an expression over them means anything. */
    private static Set<Formula> needs(Formula... formulas) {
        Set<Formula> found = new LinkedHashSet<>();
        for (Formula formula : formulas) {
            if (formula instanceof Formula.Input || formula instanceof Formula.Helper || formula instanceof Formula.Setting) {
                found.add(formula);
            } else if (formula instanceof Formula.Arithmetic || formula instanceof Formula.Magnitude || formula instanceof Formula.Rounded
                    || formula instanceof Formula.Period || formula instanceof Formula.Written) {
                found.addAll(needs(formula.operands().toArray(Formula[]::new)));
            }
        }
        return found;
    }

    /** The conditions under which every needed cell holds a number, or a text where it is a text column. */
    private List<String> require(Set<Formula> needs) {
        List<String> numbers = new ArrayList<>();
        List<String> conditions = new ArrayList<>();
        for (Formula need : needs) {
            String cell = need.match(new Bare());
            if (isText(need)) {
                conditions.add("ISTEXT(" + cell + ")");
            } else {
                numbers.add(cell);
            }
        }
        if (numbers.size() == 1) {
            conditions.add("ISNUMBER(" + numbers.get(0) + ")");
        } else if (numbers.size() > 1) {
            conditions.add("COUNT(" + String.join(",", numbers) + ")=" + numbers.size());
        }
        return conditions;
    }

    private boolean isText(Formula cell) {
        return cell instanceof Formula.Input in && cells.inputKind(in.column()) == Kind.TEXT
                || cell instanceof Formula.Helper made && cells.helperKind(made.column()) == Kind.TEXT;
    }

    private static String all(List<String> conditions) {
        return conditions.size() == 1 ? conditions.get(0) : "AND(" + String.join(",", conditions) + ")";
    }

    /** The expression with its cells bare: right only where {@link #needs} has been seen to. */
    private final class Bare extends Value {
        Bare() {
            super(Set.of());
        }

        @Override
        public String input(Formula.Input f) {
            return cells.input(f.column());
        }

        @Override
        public String helper(Formula.Helper f) {
            return cells.helper(f.column());
        }

        @Override
        public String setting(Formula.Setting f) {
            return cells.setting(f.name());
        }

        @Override
        public String arithmetic(Formula.Arithmetic f) {
            String left = f.left().match(this);
            String right = f.right().match(this);
            return switch (f.operator()) {
                case PLUS -> "(" + left + "+" + right + ")";
                case MINUS -> "(" + left + "-" + right + ")";
                case TIMES -> "(" + left + "*" + right + ")";
                case OVER -> "(" + left + "/" + right + ")";
                case LEAST -> "MIN(" + left + "," + right + ")";
                case GREATEST -> "MAX(" + left + "," + right + ")";
            };
        }

        @Override
        public String magnitude(Formula.Magnitude f) {
            return "ABS(" + f.of().match(this) + ")";
        }

        @Override
        public String rounded(Formula.Rounded f) {
            return "INT(" + f.of().match(this) + (f.rounding() == Formula.Rounding.HALF_UP ? "+0.5)" : ")");
        }

        @Override
        public String period(Formula.Period f) {
            String of = f.of().match(this);
            return isText(f.of()) ? SheetPeriods.ofText(of, f.unit()) : SheetPeriods.ofDate(of, f.unit());
        }

        @Override
        public String written(Formula.Written f) {
            String of = f.of().match(this);
            boolean date = f.of() instanceof Formula.Input in && cells.inputKind(in.column()) == Kind.DATE;
            return date ? "YEAR(" + of + ")&\"-\"&TEXT(MONTH(" + of + "),\"00\")&\"-\"&TEXT(DAY(" + of + "),\"00\")" : "\"\"&" + of;
        }
    }

    /** The value of a cell; an error where it is absent. */
    private class Value extends Formula.SomeCases<String> {
        private final Set<Formula> known;

        Value(Set<Formula> known) {
            this.known = known;
        }

        private String guarded(Formula f) {
            Set<Formula> needs = needs(f);
            needs.removeAll(known);
            String bare = divides(f) ? "IFERROR(" + f.match(new Bare()) + "," + ABSENT + ")" : f.match(new Bare());
            return needs.isEmpty() ? bare : "IF(" + all(require(needs)) + "," + bare + "," + ABSENT + ")";
        }

        /** A division by zero is an error of its own kind on a sheet, which charts do not skip. */
        private static boolean divides(Formula f) {
            return f instanceof Formula.Arithmetic a && a.operator() == Formula.Operator.OVER || f.operands().stream().anyMatch(Value::divides);
        }

        @Override
        public String input(Formula.Input f) {
            return guarded(f);
        }

        @Override
        public String helper(Formula.Helper f) {
            return cells.helper(f.column());
        }

        @Override
        public String constant(Formula.Constant f) {
            return Numbers.shortest(f.value()).toUpperCase(Locale.ROOT);
        }

        @Override
        public String words(Formula.Words f) {
            return "\"" + f.text().replace("\"", "\"\"") + "\"";
        }

        @Override
        public String setting(Formula.Setting f) {
            return guarded(f);
        }

        @Override
        public String absent(Formula.Absent f) {
            return ABSENT;
        }

        @Override
        public String arithmetic(Formula.Arithmetic f) {
            return guarded(f);
        }

        @Override
        public String magnitude(Formula.Magnitude f) {
            return guarded(f);
        }

        @Override
        public String row(Formula.Row f) {
            return "(ROW()-1)";
        }

        @Override
        public String day(Formula.Day f) {
            return "DATE(" + f.date().getYear() + "," + f.date().getMonthValue() + "," + f.date().getDayOfMonth() + ")";
        }

        @Override
        public String rounded(Formula.Rounded f) {
            return guarded(f);
        }

        @Override
        public String period(Formula.Period f) {
            return guarded(f);
        }

        @Override
        public String written(Formula.Written f) {
            return guarded(f);
        }

        @Override
        public String whole(Formula.Whole f) {
            String range = cells.range(f.of());
            if (f.fold() == Formula.Fold.COUNT) {
                return "COUNT(" + range + ")";
            }
            String folded = switch (f.fold()) {
                case SUM -> "SUM(";
                case LEAST -> "MIN(";
                default -> "MAX(";
            };
            return "IF(COUNT(" + range + ")=0," + ABSENT + "," + folded + range + "))";
        }

        @Override
        public String running(Formula.Running f) {
            return cells.here(f);
        }

        @Override
        public String previous(Formula.Previous f) {
            return cells.above(f.of()).map(cell -> "IF(" + cell + "=\"\"," + ABSENT + "," + cell + ")").orElse(ABSENT);
        }

        @Override
        public String rank(Formula.Rank f) {
            String here = cells.here(f.of());
            String rank = "RANK(" + here + "," + cells.range(f.of()) + "," + (f.direction() == Formula.Direction.DESCENDING ? 0 : 1) + ")";
            String equalsBefore = f.equals() == Formula.Equals.SHARED ? ""
                    : cells.rangeAbove(f.of()).map(above -> "+SUMPRODUCT(ISNUMBER(" + above + ")*(" + above + "=" + here + "))").orElse("");
            return "IF(ISNUMBER(" + here + ")," + rank + equalsBefore + "," + ABSENT + ")";
        }

        @Override
        public String lookup(Formula.Lookup f) {
            return "IFERROR(INDEX(" + cells.range(f.of()) + ",MATCH(" + write(f.wanted()) + "," + cells.range(f.key()) + ",0))+0," + ABSENT + ")";
        }

        @Override
        public String repeated(Formula.Repeated f) {
            return "REPT(" + f.text().match(this) + "," + f.count().match(this) + ")";
        }

        @Override
        public String joined(Formula.Joined f) {
            return "(" + f.left().match(this) + "&" + f.right().match(this) + ")";
        }

        @Override
        protected String refuse(Formula f) {
            throw new IllegalStateException("no sheet formula for " + f);
        }

        @Override
        public String comparison(Formula.Comparison f) {
            return threeValued(f);
        }

        @Override
        public String logic(Formula.Logic f) {
            return threeValued(f);
        }

        @Override
        public String not(Formula.Not f) {
            return threeValued(f);
        }

        @Override
        public String present(Formula.Present f) {
            return f.match(new Certainly(true));
        }

        private String threeValued(Formula f) {
            return "IF(" + f.match(new Certainly(true)) + ",TRUE,IF(" + f.match(new Certainly(false)) + ",FALSE,"
                    + ABSENT + "))";
        }

        @Override
        public String choose(Formula.Choose f) {
            Set<Formula> then = new LinkedHashSet<>(known);
            if (f.when() instanceof Formula.Comparison c) {
                then.addAll(needs(c.left(), c.right()));
            } else if (f.when() instanceof Formula.Present p) {
                then.addAll(needs(p.of()));
            }
            return "IF(" + f.when().match(new Certainly(true)) + "," + f.then().match(new Value(then)) + ","
                    + f.otherwise().match(new Value(known)) + ")";
        }
    }

    /** A two-valued condition: is the truth certainly what is wanted? */
    private final class Certainly extends Formula.SomeCases<String> {
        private final boolean wanted;

        Certainly(boolean wanted) {
            this.wanted = wanted;
        }

        private Certainly opposite() {
            return new Certainly(!wanted);
        }

        @Override
        public String comparison(Formula.Comparison f) {
            String left = f.left().match(new Bare());
            String right = f.right().match(new Bare());
            String compared = isText(f.left()) || f.right() instanceof Formula.Words || isText(f.right())
                    ? (f.relation() == Formula.Relation.UNEQUAL ? "NOT(EXACT(" : "EXACT(") + left + "," + right + (f.relation() == Formula.Relation.UNEQUAL ? "))" : ")")
                    : left + f.relation().sign() + right; // the sign of equality passes over capitals
            String asWanted = wanted ? compared : "NOT(" + compared + ")";
            List<String> conditions = require(needs(f.left(), f.right()));
            conditions.add(asWanted);
            return mayFail(f.left()) || mayFail(f.right()) ? "IFERROR(" + all(conditions) + ",FALSE)" : all(conditions);
        }

        /** Plain cells of the shaped table and constants can't give an error; all else may. */
        private boolean mayFail(Formula f) {
            return !(f instanceof Formula.Input || f instanceof Formula.Setting || f instanceof Formula.Constant
                    || f instanceof Formula.Words);
        }

        @Override
        public String logic(Formula.Logic f) {
            boolean and = (f.connective() == Connective.AND) == wanted;
            return (and ? "AND(" : "OR(") + f.left().match(this) + "," + f.right().match(this) + ")";
        }

        @Override
        public String not(Formula.Not f) {
            return f.of().match(opposite());
        }

        @Override
        public String present(Formula.Present f) {
            boolean cell = f.of() instanceof Formula.Input || f.of() instanceof Formula.Helper
                    || f.of() instanceof Formula.Setting;
            String present = cell ? all(require(needs(f.of())))
                    : "NOT(ISERROR(" + f.of().match(new Value(Set.of())) + "))";
            return wanted ? present : "NOT(" + present + ")";
        }

        @Override
        public String input(Formula.Input f) {
            return "IFERROR(" + cells.input(f.column()) + "=" + (wanted ? "TRUE" : "FALSE") + ",FALSE)";
        }

        @Override
        public String helper(Formula.Helper f) {
            return "IFERROR(" + cells.helper(f.column()) + "=" + (wanted ? "TRUE" : "FALSE") + ",FALSE)";
        }

        @Override
        public String choose(Formula.Choose f) {
            return "IF(" + f.when().match(new Certainly(true)) + "," + f.then().match(this) + ","
                    + f.otherwise().match(this) + ")";
        }

        @Override
        public String absent(Formula.Absent f) {
            return "FALSE";
        }

        @Override
        protected String refuse(Formula f) {
            throw new IllegalStateException("not a truth: " + f);
        }
    }
}
