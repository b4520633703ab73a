package dev.trellisgorge.formula;

import dev.trellisgorge.formula.Condition.Connective;
import dev.trellisgorge.formula.Condition.Relation;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Numbers;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * The back end that writes a column of {@link Stages} for one row of a sheet, in the SpreadsheetML formula language
 * (ECMA-376 part 1, 18.17), without the leading {@code =}. Not thread-safe.
 *
 * <p>Sheets count a blank cell as zero and have no unknown truth, so both are made explicit. An absent cell is
 * {@code NA()}, which charts skip and arithmetic carries on; in a range that others run over it is an empty text, which no
 * sum or rank counts. A condition is written so that it is true only where it is certainly true: every cell that it reads
 * is first required to hold what its kind says.
 */
public final class SheetFormula {
    private static final String ABSENT = "NA()";

    private final Typing typing;
    private final CellNames cells;

    /** What the leaves of a formula are called on the sheet, for one row. */
    public interface CellNames {
        /** The cell of a column of the shaped table: {@code 'Data'!C2}. */
        String column(String name);

        /** The cell of a computed column: {@code B2}. It holds what its kind says, or an error where it is absent. */
        String computed(String name);

        /** The defined name of a setting's cell. */
        String setting(String name);

        /** The cell above, in the column that is written; empty on the first row. */
        Optional<String> ownAbove();

        /** The cell of one of {@link SheetFormula#ranges}, on this row. */
        String here(Formula leaf);

        /** The same a row up; empty on the first row. */
        Optional<String> above(Formula leaf);

        /** The same on every row: {@code $F$2:$F$9}. */
        String range(Formula leaf);

        /** The same on every row above this one; empty on the first row. */
        Optional<String> rangeAbove(Formula leaf);

        /** A range as long as there are rows. */
        String rows();
    }

    /** How far formulas are taken apart for a sheet: a person reads them in a cell, and a cell has an end. */
    public static final Stages.Grain GRAIN = new Stages.Grain(12, 60, (node, kind) -> node instanceof Choice.NullIf || node instanceof Textual.Repeat || node instanceof Calendar
            || node instanceof Textual.Formatted || node instanceof Condition.Comparison compared && kind == Kind.TEXT && compared.relation().isOrdered());

    /** @param typing what the formulas were staged with */
    public SheetFormula(Typing typing, CellNames cells) {
        this.typing = typing;
        this.cells = cells;
    }

    /**
     * The formula as it is to be staged for a sheet. Absent cells of a range are empty texts there, so a count, which may be one
     * of texts, counts figures instead.
     */
    public static Formula countingFigures(Formula formula) {
        if (formula.operands().isEmpty()) {
            return formula;
        }
        List<Formula> operands = formula.operands().stream().map(SheetFormula::countingFigures).toList();
        boolean count = formula instanceof Window.Aggregate aggregate && aggregate.fold() == Window.Fold.COUNT && !(aggregate.of() instanceof Leaf.Literal);
        return count ? Formulas.count(Formulas.only(Formulas.present(operands.get(0)), Formulas.number(1))) : formula.rebuilt(operands);
    }

    /** The leaves whose cells other cells run over: each needs a column in which absent is an empty text. */
    public static Set<Formula> ranges(Stages stages) {
        Set<Formula> leaves = new LinkedHashSet<>();
        for (Stages.StageColumn column : stages.columns()) {
            Formula f = column.formula();
            if (f instanceof Window.Aggregate aggregate && !(aggregate.of() instanceof Leaf.Literal && aggregate.fold() == Window.Fold.COUNT)) {
                leaves.add(aggregate.of());
            } else if (f instanceof Window.Lag || f instanceof Window.Rank) {
                leaves.add(f.operands().get(0));
            } else if (f instanceof Window.Lookup lookup) {
                leaves.add(lookup.of());
                leaves.add(lookup.key());
            }
        }
        return leaves;
    }

    /** A cell of a range that others run over. */
    public String writeInRange(Formula formula) {
        return "IFERROR(" + write(formula) + ",\"\")";
    }

    /** The formula of one cell; an error value where the cell is absent. */
    public String write(Formula formula) {
        return value(formula, Set.of());
    }

    private String value(Formula formula, Set<Formula> known) {
        return typing.match(formula, new Value(known));
    }

    private String bare(Formula formula) {
        return typing.match(formula, new Bare());
    }

    private Kind kind(Formula formula) {
        return typing.of(formula);
    }

    /** The cells that have to hold something before an expression over them means anything. */
    private static Set<Formula> needs(Formula... formulas) {
        Set<Formula> found = new LinkedHashSet<>();
        for (Formula formula : formulas) {
            if (formula instanceof Leaf.Column || formula instanceof Leaf.Computed || formula instanceof Leaf.Setting) {
                found.add(formula);
            } else if (formula instanceof Numeric || formula instanceof Calendar || formula instanceof Textual.Text || formula instanceof Textual.Formatted) {
                found.addAll(needs(formula.operands().toArray(Formula[]::new)));
            }
        }
        return found;
    }

    /** The conditions under which every needed cell holds what its kind says. */
    private List<String> require(Set<Formula> needs) {
        List<String> numbers = new ArrayList<>();
        List<String> conditions = new ArrayList<>();
        for (Formula need : needs) {
            String cell = bare(need);
            switch (kind(need)) {
                case TEXT -> conditions.add("ISTEXT(" + cell + ")");
                case TRUTH -> conditions.add("ISLOGICAL(" + cell + ")");
                default -> numbers.add(cell);
            }
        }
        if (numbers.size() == 1) {
            conditions.add("ISNUMBER(" + numbers.get(0) + ")");
        } else if (numbers.size() > 1) {
            conditions.add("COUNT(" + String.join(",", numbers) + ")=" + numbers.size());
        }
        return conditions;
    }

    private static String all(List<String> conditions) {
        return conditions.size() == 1 ? conditions.get(0) : "AND(" + String.join(",", conditions) + ")";
    }

    /** A condition that is TRUE where a truth is certainly what is wanted, and FALSE elsewhere. */
    private String certainly(Formula truth, boolean wanted) {
        if (truth instanceof Condition.Comparison f) {
            return compared(f.relation(), f.left(), f.right(), wanted);
        } else if (truth instanceof Condition.In f) {
            List<String> each = f.list().stream().map(one -> compared(Relation.EQUAL, f.of(), one, wanted)).toList();
            return each.size() == 1 ? each.get(0) : (wanted ? "OR(" : "AND(") + String.join(",", each) + ")";
        } else if (truth instanceof Condition.Logic f) {
            boolean and = (f.connective() == Connective.AND) == wanted;
            return (and ? "AND(" : "OR(") + f.of().stream().map(each -> certainly(each, wanted)).collect(Collectors.joining(",")) + ")";
        } else if (truth instanceof Condition.Not f) {
            return certainly(f.of(), !wanted);
        } else if (truth instanceof Condition.Present f) {
            boolean cell = f.of() instanceof Leaf.Column || f.of() instanceof Leaf.Computed || f.of() instanceof Leaf.Setting;
            String present = cell ? all(require(needs(f.of()))) : "NOT(ISERROR(" + write(f.of()) + "))";
            return wanted ? present : "NOT(" + present + ")";
        } else if (truth instanceof Leaf.Literal f) {
            return f.value().equals(wanted) ? "TRUE" : "FALSE";
        } else if (truth instanceof Choice.Case f) {
            String otherwise = f.otherwise() instanceof Leaf.Absent ? "FALSE" : certainly(f.otherwise(), wanted);
            for (int i = f.whens().size() - 1; i >= 0; i--) {
                otherwise = "IF(" + certainly(f.whens().get(i).condition(), true) + "," + certainly(f.whens().get(i).result(), wanted) + "," + otherwise + ")";
            }
            return otherwise;
        }
        return "IFERROR(" + write(truth) + "=" + (wanted ? "TRUE" : "FALSE") + ",FALSE)";
    }

    private String compared(Relation relation, Formula left, Formula right, boolean wanted) {
        if (left instanceof Leaf.Absent || right instanceof Leaf.Absent) {
            return "FALSE";
        }
        String a = bare(left);
        String b = bare(right);
        String holds = kind(left) == Kind.TEXT ? SheetTexts.compared(relation, a, b) : a + relation.sign() + b;
        List<String> conditions = require(needs(left, right));
        conditions.add(wanted ? holds : "NOT(" + holds + ")");
        return mayFail(left) || mayFail(right) ? "IFERROR(" + all(conditions) + ",FALSE)" : all(conditions);
    }

    /** Cells of the shaped table, settings and stated values can't give an error; all else may. */
    private static boolean mayFail(Formula f) {
        return !(f instanceof Leaf.Column || f instanceof Leaf.Setting || f instanceof Leaf.Literal);
    }

    /** A division by zero is an error of its own kind on a sheet, which charts do not skip; so is a text that is no date. */
    private static boolean failsItself(Formula f) {
        return f instanceof Numeric.Arithmetic a && a.operator() == Numeric.Operator.OVER || f.operands().stream().anyMatch(SheetFormula::failsItself);
    }

    /** The value of a cell; an error where it is absent. */
    private class Value implements Formula.Cases<String> {
        private final Set<Formula> known;

        Value(Set<Formula> known) {
            this.known = known;
        }

        /** What is missing where one of its cells is. */
        private String guarded(Formula f) {
            Set<Formula> needs = needs(f);
            needs.removeAll(known);
            String bare = failsItself(f) ? "IFERROR(" + bare(f) + "," + ABSENT + ")" : bare(f);
            return needs.isEmpty() ? bare : "IF(" + all(require(needs)) + "," + bare + "," + ABSENT + ")";
        }

        private String threeValued(Formula f) {
            return "IF(" + certainly(f, true) + ",TRUE,IF(" + certainly(f, false) + ",FALSE," + ABSENT + "))";
        }

        @Override
        public String column(Leaf.Column f, Kind kind) {
            return guarded(f);
        }

        @Override
        public String computed(Leaf.Computed f, Kind kind) {
            return cells.computed(f.name());
        }

        @Override
        public String literal(Leaf.Literal f, Kind kind) {
            return switch (kind) {
                case NUMBER -> Numbers.shortest(f.figure()).toUpperCase(Locale.ROOT);
                case TEXT -> SheetTexts.quoted((String) f.value());
                case DATE -> SheetTexts.date((java.time.LocalDate) f.value());
                case TRUTH -> f.value().toString().toUpperCase(Locale.ROOT);
            };
        }

        @Override
        public String absent(Leaf.Absent f, Kind kind) {
            return ABSENT;
        }

        @Override
        public String setting(Leaf.Setting f, Kind kind) {
            return guarded(f);
        }

        @Override
        public String rowNumber(Leaf.RowNumber f, Kind kind) {
            return "(ROW()-1)";
        }

        @Override
        public String arithmetic(Numeric.Arithmetic f, Kind kind) {
            return guarded(f);
        }

        @Override
        public String extreme(Numeric.Extreme f, Kind kind) {
            return guarded(f);
        }

        @Override
        public String negate(Numeric.Negate f, Kind kind) {
            return guarded(f);
        }

        @Override
        public String abs(Numeric.Abs f, Kind kind) {
            return guarded(f);
        }

        @Override
        public String floor(Numeric.Floor f, Kind kind) {
            return guarded(f);
        }

        @Override
        public String round(Numeric.Round f, Kind kind) {
            return guarded(f);
        }

        @Override
        public String comparison(Condition.Comparison f, Kind kind) {
            return threeValued(f);
        }

        @Override
        public String in(Condition.In f, Kind kind) {
            return threeValued(f);
        }

        @Override
        public String logic(Condition.Logic f, Kind kind) {
            return threeValued(f);
        }

        @Override
        public String not(Condition.Not f, Kind kind) {
            return threeValued(f);
        }

        @Override
        public String present(Condition.Present f, Kind kind) {
            return certainly(f, true);
        }

        @Override
        public String cases(Choice.Case f, Kind kind) {
            String otherwise = value(f.otherwise(), known);
            for (int i = f.whens().size() - 1; i >= 0; i--) {
                Formula condition = f.whens().get(i).condition();
                Set<Formula> then = new LinkedHashSet<>(known);
                if (condition instanceof Condition.Comparison c) {
                    then.addAll(needs(c.left(), c.right()));
                } else if (condition instanceof Condition.Present p) {
                    then.addAll(needs(p.of()));
                }
                otherwise = "IF(" + certainly(condition, true) + "," + value(f.whens().get(i).result(), then) + "," + otherwise + ")";
            }
            return otherwise;
        }

        @Override
        public String coalesce(Choice.Coalesce f, Kind kind) {
            String last = value(f.of().get(f.of().size() - 1), known);
            for (int i = f.of().size() - 2; i >= 0; i--) {
                last = "IFERROR(" + value(f.of().get(i), known) + "," + last + ")";
            }
            return last;
        }

        @Override
        public String nullIf(Choice.NullIf f, Kind kind) {
            return "IF(" + compared(Relation.EQUAL, f.left(), f.right(), true) + "," + ABSENT + "," + value(f.left(), known) + ")";
        }

        @Override
        public String calendarField(Calendar.CalendarField f, Kind kind) {
            return guarded(f);
        }

        @Override
        public String period(Calendar.Period f, Kind kind) {
            return guarded(f);
        }

        @Override
        public String concat(Textual.Concat f, Kind kind) {
            return "(" + f.of().stream().map(each -> value(each, known)).collect(Collectors.joining("&")) + ")";
        }

        /** The count may be an error, which {@code REPT} need not take for one. */
        @Override
        public String repeat(Textual.Repeat f, Kind kind) {
            String count = value(f.count(), known);
            String repeated = "REPT(" + value(f.text(), known) + ",MAX(0," + count + "))";
            return f.count() instanceof Leaf.Literal ? repeated : "IF(ISNUMBER(" + count + ")," + repeated + "," + ABSENT + ")";
        }

        @Override
        public String text(Textual.Text f, Kind kind) {
            return guarded(f);
        }

        @Override
        public String formatted(Textual.Formatted f, Kind kind) {
            return guarded(f);
        }

        @Override
        public String aggregate(Window.Aggregate f, Kind kind) {
            if (f.of() instanceof Leaf.Literal && f.fold() == Window.Fold.COUNT) {
                return "ROWS(" + cells.rows() + ")";
            }
            String range = cells.range(f.of());
            return f.fold() == Window.Fold.COUNT ? "COUNT(" + range + ")" : "IF(COUNT(" + range + ")=0," + ABSENT + "," + f.fold() + "(" + range + "))";
        }

        @Override
        public String cumulative(Window.Cumulative f, Kind kind) {
            String before = cells.ownAbove().orElse("0");
            String carried = f.restart() instanceof Leaf.Absent ? before : "IF(" + certainly(f.restart(), true) + ",0," + before + ")";
            return carried + "+IFERROR(" + write(f.of()) + ",0)";
        }

        @Override
        public String lag(Window.Lag f, Kind kind) {
            return cells.above(f.of()).map(cell -> "IF(" + cell + "=\"\"," + ABSENT + "," + cell + ")").orElse(ABSENT);
        }

        @Override
        public String rank(Window.Rank f, Kind kind) {
            String here = cells.here(f.of());
            String rank = "RANK(" + here + "," + cells.range(f.of()) + "," + (f.direction() == Window.Direction.DESCENDING ? 0 : 1) + ")";
            String equalsBefore = f.ties() == Window.Ties.SHARED ? ""
                    : cells.rangeAbove(f.of()).map(above -> "+COUNTIF(" + above + "," + here + ")").orElse("");
            return "IF(ISNUMBER(" + here + ")," + rank + equalsBefore + "," + ABSENT + ")";
        }

        @Override
        public String lookup(Window.Lookup f, Kind kind) {
            String found = "INDEX(" + cells.range(f.of()) + ",MATCH(" + write(f.wanted()) + "," + cells.range(f.key()) + ",0))";
            String there = switch (kind) {
                case TEXT -> "IFERROR(LEN(" + found + "),0)>0"; // a range holds an empty text where a cell is absent, so an empty one can't be looked up
                case TRUTH -> "ISLOGICAL(" + found + ")";
                default -> "ISNUMBER(" + found + ")";
            };
            return "IF(" + there + "," + found + "," + ABSENT + ")";
        }
    }

    /** The expression with its cells bare: right only where {@link #needs} has been seen to. */
    private final class Bare extends Value {
        Bare() {
            super(Set.of());
        }

        @Override
        public String column(Leaf.Column f, Kind kind) {
            return cells.column(f.name());
        }

        @Override
        public String setting(Leaf.Setting f, Kind kind) {
            return cells.setting(f.name());
        }

        @Override
        public String arithmetic(Numeric.Arithmetic f, Kind kind) {
            String sign = switch (f.operator()) {
                case PLUS -> "+";
                case MINUS -> "-";
                case TIMES -> "*";
                case OVER -> "/";
            };
            return "(" + bare(f.left()) + sign + bare(f.right()) + ")";
        }

        @Override
        public String extreme(Numeric.Extreme f, Kind kind) {
            return (f.end() == Numeric.End.LEAST ? "MIN(" : "MAX(") + f.of().stream().map(SheetFormula.this::bare).collect(Collectors.joining(",")) + ")";
        }

        @Override
        public String negate(Numeric.Negate f, Kind kind) {
            return "(0-" + bare(f.of()) + ")";
        }

        @Override
        public String abs(Numeric.Abs f, Kind kind) {
            return "ABS(" + bare(f.of()) + ")";
        }

        @Override
        public String floor(Numeric.Floor f, Kind kind) {
            return "INT(" + bare(f.of()) + ")";
        }

        @Override
        public String round(Numeric.Round f, Kind kind) {
            return "ROUND(" + bare(f.of()) + "," + f.digits() + ")";
        }

        @Override
        public String calendarField(Calendar.CalendarField f, Kind kind) {
            return SheetTexts.field(bare(f.of()), f.part(), kind(f.of()) == Kind.TEXT);
        }

        @Override
        public String period(Calendar.Period f, Kind kind) {
            return SheetTexts.period(bare(f.of()), f.unit(), kind(f.of()) == Kind.TEXT);
        }

        @Override
        public String text(Textual.Text f, Kind kind) {
            return SheetTexts.written(bare(f.of()), kind(f.of()));
        }

        @Override
        public String formatted(Textual.Formatted f, Kind kind) {
            if (kind(f.of()) == Kind.TEXT) {
                String text = bare(f.of());
                return "IFERROR(" + SheetTexts.date(SheetTexts.firstDay(text), f.pattern(), f.locale()) + "," + text + ")";
            }
            return kind(f.of()) == Kind.DATE ? SheetTexts.date(bare(f.of()), f.pattern(), f.locale()) : SheetTexts.number(bare(f.of()), f.pattern(), f.locale());
        }
    }
}
