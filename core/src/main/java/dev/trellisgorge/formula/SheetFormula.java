package dev.trellisgorge.formula;

import dev.trellisgorge.formula.Formula.Connective;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Numbers;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Locale;
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
    }

    public SheetFormula(CellNames cells) {
        this.cells = cells;
    }

    /** The first part of a formula that this back end can't write yet; empty where it can write all of it. */
    public static Optional<Formula> unwritable(Formula formula) {
        boolean unknown = formula instanceof Formula.Whole || formula instanceof Formula.Running || formula instanceof Formula.Previous
                || formula instanceof Formula.Rank || formula instanceof Formula.Period || formula instanceof Formula.Lookup
                || formula instanceof Formula.Rounded || formula instanceof Formula.Repeated || formula instanceof Formula.Joined
                || formula instanceof Formula.Written;
        return unknown ? Optional.of(formula)
                : formula.operands().stream().flatMap(operand -> unwritable(operand).stream()).findFirst();
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
            } else if (formula instanceof Formula.Arithmetic || formula instanceof Formula.Magnitude) {
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
            String bare = f.match(new Bare());
            return needs.isEmpty() ? bare : "IF(" + all(require(needs)) + "," + bare + "," + ABSENT + ")";
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
            String compared = left + f.relation().sign() + right;
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
