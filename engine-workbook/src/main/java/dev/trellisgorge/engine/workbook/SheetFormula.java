package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.formula.Calendar;
import dev.trellisgorge.formula.Choice;
import dev.trellisgorge.formula.Condition;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.Leaf;
import dev.trellisgorge.formula.NumberPattern;
import dev.trellisgorge.formula.Numeric;
import dev.trellisgorge.formula.Stages;
import dev.trellisgorge.formula.Textual;
import dev.trellisgorge.formula.Typing;
import dev.trellisgorge.formula.Window;
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
import java.util.stream.Stream;

/**
 * The back end that writes a column of {@link Stages} for one row of a sheet, in the SpreadsheetML formula language
 * (ECMA-376 part 1, 18.17), without the leading {@code =}. Not thread-safe.
 *
 * <p>Sheets count a blank cell as zero and have no unknown truth, so both are made explicit. An absent cell is
 * {@code NA()}, which charts skip and arithmetic carries on; in a range that others run over it is an empty text, which no
 * sum or rank counts. A condition is written so that it is true only where it is certainly true: a cell of the table or a
 * setting that may hold something else than its kind says is first required to hold that; what {@link Presence} knows to be there is
 * read as it is. An absent computed cell is an error, which arithmetic and comparisons carry on by themselves.
 */
final class SheetFormula {
    private static final String ABSENT = "NA()";

    private final Typing typing;
    private final CellNames cells;
    private final Presence anywhere;
    private final Presence presence;
    /** Cells that a condition around what is written has found there. */
    private Set<Formula> there = Set.of();

    /** What the leaves of a formula are called on the sheet, for one row. */
    interface CellNames {
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

        /** A formula of how many rows there are. */
        String rowCount();

        /** How many lines of the sheet stand above the first row. */
        int linesAbove();
    }

    /** How far formulas are taken apart for a sheet: a person reads them in a cell, and a cell has an end. */
    static final Stages.Grain GRAIN = new Stages.Grain(12, 60, (node, kind) -> node instanceof Choice.NullIf || node instanceof Textual.Repeat || node instanceof Calendar
            || node instanceof Textual.Formatted || node instanceof Condition.Comparison compared && kind == Kind.TEXT && compared.relation().isOrdered());

    /**
     * @param typing   what the formulas were staged with
     * @param anywhere which of them may be absent on some row
     * @param presence which may be on the row that is written
     */
    SheetFormula(Typing typing, CellNames cells, Presence anywhere, Presence presence) {
        this.typing = typing;
        this.cells = cells;
        this.anywhere = anywhere;
        this.presence = presence;
    }

    /**
     * The formula as it is to be staged for a sheet. Absent cells of a range are empty texts there, so a count, which may be one
     * of texts, counts figures instead.
     */
    static Formula countingFigures(Formula formula) {
        if (formula.operands().isEmpty()) {
            return formula;
        }
        List<Formula> operands = formula.operands().stream().map(SheetFormula::countingFigures).toList();
        boolean count = formula instanceof Window.Aggregate aggregate && aggregate.fold() == Window.Fold.COUNT && !(aggregate.of() instanceof Leaf.Literal);
        return count ? Formulas.count(Formulas.only(Formulas.present(operands.get(0)), Formulas.number(1))) : formula.rebuilt(operands);
    }

    /** The leaves whose cells other cells run over, and that need a column for it: of the table's cells, or one in which absent is an empty text. */
    static Set<Formula> ranges(Stages stages, Presence presence) {
        Set<Formula> leaves = runOver(stages);
        leaves.removeIf(leaf -> leaf instanceof Leaf.Computed && !presence.mayBeAbsent(leaf));
        return leaves;
    }

    /** The leaves whose cells other cells run over, whether or not one may be absent. */
    static Set<Formula> runOver(Stages stages) {
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
        return !presence.mayBeAbsent(formula) ? write(formula) : formula instanceof Leaf.Column || formula instanceof Leaf.Setting
                ? "IF(" + all(require(Set.of(formula))) + "," + bare(formula) + ",\"\")" : "IFERROR(" + write(formula) + ",\"\")";
    }

    /** The formula of one cell; an error value where the cell is absent. */
    public String write(Formula formula) {
        return stripped(value(formula));
    }

    /** Without brackets around the whole. */
    private static String stripped(String formula) {
        return isBracketed(formula) ? formula.substring(1, formula.length() - 1) : formula;
    }

    private static boolean isBracketed(String formula) {
        if (!formula.startsWith("(") || !formula.endsWith(")")) {
            return false;
        }
        int open = 0;
        boolean quoted = false;
        for (int i = 0; i < formula.length() - 1; i++) {
            char sign = formula.charAt(i);
            quoted ^= sign == '"' || sign == '\'';
            open += quoted ? 0 : sign == '(' ? 1 : sign == ')' ? -1 : 0;
            if (open == 0) {
                return false;
            }
        }
        return true;
    }

    private String value(Formula formula) {
        return typing.match(formula, new Value());
    }

    /** What is written where a condition holds. */
    private String where(Formula condition, Formula written) {
        Set<Formula> before = there;
        there = new LinkedHashSet<>(before);
        found(condition);
        String value = value(written);
        there = before;
        return value;
    }

    /** The cells without which a condition can't hold. */
    private void found(Formula condition) {
        if (condition instanceof Condition.Comparison f) {
            read(f.left());
            read(f.right());
        } else if (condition instanceof Condition.Present f) {
            read(f.of());
        } else if (condition instanceof Condition.Logic f && f.connective() == Connective.AND) {
            f.of().forEach(this::found);
        }
    }

    private void read(Formula f) {
        if (f instanceof Leaf.Column || f instanceof Leaf.Setting || f instanceof Leaf.Computed) {
            there.add(f);
        } else if (f instanceof Numeric || f instanceof Textual.Text) {
            f.operands().forEach(this::read);
        }
    }

    private boolean mayBeAbsent(Formula f) {
        return !there.contains(f) && presence.mayBeAbsent(f);
    }

    private String bare(Formula formula) {
        return typing.match(formula, new Bare());
    }

    private Kind kind(Formula formula) {
        return typing.of(formula);
    }

    /** The cells of the table and the settings that have to hold something before an expression over them means anything. */
    private Set<Formula> needs(Formula... formulas) {
        Set<Formula> found = new LinkedHashSet<>();
        for (Formula formula : formulas) {
            if (formula instanceof Leaf.Column || formula instanceof Leaf.Setting) {
                if (mayBeAbsent(formula)) {
                    found.add(formula);
                }
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

    /** What a condition may be beside TRUE and FALSE. */
    private enum Fails {
        /** Nothing else. */
        NEVER,
        /** {@code #N/A}, where it is unknown. */
        ABSENT,
        /** An error of another kind. */
        OTHERWISE;

        Fails or(Fails other) {
            return compareTo(other) >= 0 ? this : other;
        }
    }

    /**
     * A condition that is TRUE where a truth is certainly what is wanted; elsewhere FALSE, or an error.
     *
     * @param all what must be true together; nothing where it always is
     */
    private record Truth(List<String> all, Fails fails) {
        private static final Truth NEVER = new Truth(List.of("FALSE"), Fails.NEVER);

        static Truth of(String condition) {
            return new Truth(List.of(condition), Fails.NEVER);
        }

        static Truth always(boolean is) {
            return is ? new Truth(List.of(), Fails.NEVER) : NEVER;
        }

        String text() {
            return all.isEmpty() ? "TRUE" : SheetFormula.all(all);
        }

        /** TRUE where it is certain, and FALSE elsewhere. */
        String certain() {
            return fails == Fails.NEVER ? text() : "IFERROR(" + text() + ",FALSE)";
        }

        /** The same where an absent cell does as well as FALSE. */
        String orAbsent() {
            return fails == Fails.OTHERWISE ? certain() : text();
        }
    }

    private String certainly(Formula truth, boolean wanted) {
        return truth(truth, wanted).certain();
    }

    private Truth truth(Formula truth, boolean wanted) {
        if (truth instanceof Condition.Comparison f) {
            return compared(f.relation(), f.left(), f.right(), wanted);
        } else if (truth instanceof Condition.In f) {
            return connected(f.list().stream().map(one -> compared(Relation.EQUAL, f.of(), one, wanted)).toList(), !wanted);
        } else if (truth instanceof Condition.Logic f) {
            return connected(f.of().stream().map(each -> truth(each, wanted)).toList(), (f.connective() == Connective.AND) == wanted);
        } else if (truth instanceof Condition.Not f) {
            return truth(f.of(), !wanted);
        } else if (truth instanceof Condition.Present f) {
            return present(f.of(), wanted);
        } else if (truth instanceof Leaf.Literal f) {
            return Truth.always(f.value().equals(wanted));
        } else if (truth instanceof Choice.Case f) {
            String otherwise = f.otherwise() instanceof Leaf.Absent ? "FALSE" : certainly(f.otherwise(), wanted);
            for (int i = f.whens().size() - 1; i >= 0; i--) {
                otherwise = chosen(certainly(f.whens().get(i).condition(), true), certainly(f.whens().get(i).result(), wanted), otherwise);
            }
            return Truth.of(otherwise);
        } else if (truth instanceof Leaf.Column || truth instanceof Leaf.Setting) {
            String cell = bare(truth);
            List<String> conditions = require(needs(truth));
            conditions.add(wanted ? cell : "NOT(" + cell + ")");
            return new Truth(conditions, Fails.NEVER);
        }
        String written = write(truth);
        return new Truth(List.of(wanted ? written : "NOT(" + written + ")"), mayBeAbsent(truth) ? Fails.ABSENT : Fails.NEVER);
    }

    /** Several truths of which all must hold, or one. Where one is enough, an error beside it must not hide it. */
    private static Truth connected(List<Truth> truths, boolean all) {
        if (all) {
            return truths.contains(Truth.NEVER) ? Truth.NEVER
                    : new Truth(truths.stream().flatMap(truth -> truth.all().stream()).distinct().toList(), truths.stream().map(Truth::fails).reduce(Fails.NEVER, Fails::or));
        }
        List<Truth> open = truths.stream().filter(truth -> !truth.equals(Truth.NEVER)).distinct().toList();
        return open.isEmpty() ? Truth.NEVER : open.size() == 1 ? open.get(0) : open.stream().anyMatch(truth -> truth.all().isEmpty()) ? Truth.always(true)
                : Truth.of("OR(" + open.stream().map(Truth::certain).collect(Collectors.joining(",")) + ")");
    }

    private Truth present(Formula of, boolean wanted) {
        if (!mayBeAbsent(of) || of instanceof Leaf.Absent) {
            return Truth.always((of instanceof Leaf.Absent) != wanted);
        }
        if (of instanceof Leaf.Column || of instanceof Leaf.Setting || of instanceof Leaf.Computed) {
            List<String> conditions = require(Set.of(of));
            return wanted ? new Truth(conditions, Fails.NEVER) : Truth.of("NOT(" + all(conditions) + ")");
        }
        return Truth.of(wanted ? "NOT(ISERROR(" + write(of) + "))" : "ISERROR(" + write(of) + ")");
    }

    private Truth compared(Relation relation, Formula left, Formula right, boolean wanted) {
        if (left instanceof Leaf.Absent || right instanceof Leaf.Absent) {
            return Truth.NEVER;
        }
        String a = side(left);
        String b = side(right);
        Relation asked = wanted ? relation : opposite(relation);
        Set<Formula> needs = needs(left, right);
        boolean hidden = kind(left) == Kind.TEXT && asked.isOrdered(); // character by character, so that an error would not be carried on
        Stream.of(left, right).filter(side -> hidden && side instanceof Leaf.Computed && mayBeAbsent(side)).forEach(needs::add);
        List<String> conditions = require(needs);
        conditions.add(kind(left) == Kind.TEXT ? SheetTexts.compared(asked, a, b) : a + asked.sign() + b);
        return new Truth(conditions, hidden ? Fails.NEVER : fails(left).or(fails(right)));
    }

    /** A side of a comparison; one that compares itself keeps its brackets. */
    private String side(Formula of) {
        String written = stripped(bare(of));
        return kind(of) == Kind.TRUTH && !(of instanceof Leaf) ? "(" + written + ")" : written;
    }

    private static Relation opposite(Relation relation) {
        return switch (relation) {
            case BELOW -> Relation.AT_LEAST;
            case AT_LEAST -> Relation.BELOW;
            case ABOVE -> Relation.AT_MOST;
            case AT_MOST -> Relation.ABOVE;
            case EQUAL -> Relation.UNEQUAL;
            case UNEQUAL -> Relation.EQUAL;
        };
    }

    /** What an expression may be beside a value, once its cells of the table and its settings hold what their kinds say. */
    private Fails fails(Formula f) {
        if (f instanceof Leaf.Column || f instanceof Leaf.Setting || f instanceof Leaf.Literal) {
            return Fails.NEVER;
        }
        if (f instanceof Numeric || f instanceof Textual.Text) {
            Fails own = typing.fails(f) ? Fails.OTHERWISE : Fails.NEVER;
            return f.operands().stream().map(this::fails).reduce(own, Fails::or);
        }
        return !mayBeAbsent(f) ? Fails.NEVER : f instanceof Calendar || f instanceof Textual ? Fails.OTHERWISE : Fails.ABSENT;
    }

    /** A division by zero is an error of its own kind on a sheet, which charts do not skip; so is a text that is no date. */
    private boolean failsItself(Formula f) {
        return f instanceof Numeric && typing.fails(f) || f.operands().stream().anyMatch(this::failsItself);
    }

    /** One of two values, by a condition; one where it does not matter which. */
    private static String chosen(String condition, String then, String otherwise) {
        return condition.equals("TRUE") || then.equals(otherwise) && !then.equals(ABSENT) ? then : condition.equals("FALSE") || then.equals(otherwise) ? otherwise
                : then.equals("TRUE") && otherwise.equals("FALSE") ? condition : "IF(" + stripped(condition) + "," + stripped(then) + "," + stripped(otherwise) + ")";
    }

    /** The value of a cell; an error where it is absent. */
    private class Value implements Formula.Cases<String> {

        /** What is missing where one of its cells is. */
        private String guarded(Formula f) {
            Set<Formula> needs = needs(f);
            String bare = failsItself(f) ? "IFERROR(" + stripped(bare(f)) + "," + ABSENT + ")" : bare(f);
            return needs.isEmpty() ? bare : "IF(" + all(require(needs)) + "," + stripped(bare) + "," + ABSENT + ")";
        }

        private String threeValued(Formula f) {
            Truth holds = truth(f, true);
            if (holds.fails() == Fails.NEVER && !mayBeAbsent(f)) {
                return holds.text();
            }
            boolean carriedOn = f instanceof Condition.Comparison compared && needs(compared.left(), compared.right()).isEmpty() && holds.fails() == Fails.ABSENT;
            return carriedOn ? holds.text() : chosen(holds.certain(), "TRUE", chosen(certainly(f, false), "FALSE", ABSENT));
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
            return "(ROW()-" + cells.linesAbove() + ")";
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
            return branches(f, value(f.otherwise()));
        }

        private String branches(Choice.Case f, String last) {
            String otherwise = last;
            for (int i = f.whens().size() - 1; i >= 0; i--) {
                Formula condition = f.whens().get(i).condition();
                Truth truth = truth(condition, true);
                boolean carriedOn = i == f.whens().size() - 1 && condition instanceof Condition.Comparison && condition.operands().stream().allMatch(this::isPlain) && last.equals(value(f.otherwise())) && strict(f.otherwise()).containsAll(strict(condition));
                if (otherwise.equals(ABSENT) && condition instanceof Condition.Present there && strict(f.whens().get(i).result()).contains(there.of())) {
                    otherwise = value(f.whens().get(i).result()); // which is absent by itself where that is
                    continue;
                }
                otherwise = chosen(otherwise.equals(ABSENT) || carriedOn ? truth.orAbsent() : truth.certain(), where(condition, f.whens().get(i).result()), otherwise);
            }
            return otherwise;
        }

        /** Whether a formula is absent only where one of its cells is. */
        private boolean isPlain(Formula f) {
            return f instanceof Leaf || f instanceof Numeric && f.operands().stream().allMatch(this::isPlain) || !mayBeAbsent(f);
        }

        /** The computed cells that may be absent, and without which a formula is, too. */
        private Set<Formula> strict(Formula f) {
            Set<Formula> cells = new LinkedHashSet<>();
            if (f instanceof Leaf.Computed && mayBeAbsent(f)) {
                cells.add(f);
            } else if (f instanceof Numeric || f instanceof Condition.Comparison) {
                f.operands().forEach(operand -> cells.addAll(strict(operand)));
            }
            return cells;
        }

        @Override
        public String coalesce(Choice.Coalesce f, Kind kind) {
            String last = value(f.of().get(f.of().size() - 1));
            for (int i = f.of().size() - 2; i >= 0; i--) {
                Formula each = f.of().get(i);
                boolean chosen = each instanceof Choice.Case one && one.otherwise() instanceof Leaf.Absent && one.whens().stream().noneMatch(when -> mayBeAbsent(when.result()));
                last = chosen ? branches((Choice.Case) each, last) : !mayBeAbsent(each) ? value(each) : each instanceof Leaf.Column || each instanceof Leaf.Setting
                        ? "IF(" + all(require(needs(each))) + "," + bare(each) + "," + stripped(last) + ")" : "IFERROR(" + stripped(value(each)) + "," + stripped(last) + ")";
            }
            return last;
        }

        @Override
        public String nullIf(Choice.NullIf f, Kind kind) {
            return "IF(" + compared(Relation.EQUAL, f.left(), f.right(), true).certain() + "," + ABSENT + "," + stripped(value(f.left())) + ")";
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
            return "(" + f.of().stream().map(each -> value(each)).collect(Collectors.joining("&")) + ")";
        }

        /** The count may be an error, which {@code REPT} need not take for one. */
        @Override
        public String repeat(Textual.Repeat f, Kind kind) {
            String count = stripped(value(f.count()));
            String repeated = "REPT(" + stripped(value(f.text())) + ",MAX(0," + count + "))";
            return !mayBeAbsent(f.count()) ? repeated : "IF(ISNUMBER(" + count + ")," + repeated + "," + ABSENT + ")";
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
                return cells.rowCount();
            }
            String range = cells.range(f.of());
            return f.fold() == Window.Fold.COUNT ? "COUNT(" + range + ")" : !anywhere.mayBeAbsent(f.of()) ? f.fold() + "(" + range + ")" : "IF(COUNT(" + range + ")=0," + ABSENT + "," + f.fold() + "(" + range + "))";
        }

        @Override
        public String cumulative(Window.Cumulative f, Kind kind) {
            String before = cells.ownAbove().orElse("0");
            String carried = f.restart() instanceof Leaf.Absent ? before : chosen(certainly(f.restart(), true), "0", before);
            String more = !mayBeAbsent(f.of()) ? value(f.of()) : f.of() instanceof Leaf.Column ? "IF(" + all(require(needs(f.of()))) + "," + bare(f.of()) + ",0)"
                    : "IFERROR(" + write(f.of()) + ",0)";
            return carried.equals("0") ? more : carried + "+" + more;
        }

        @Override
        public String lag(Window.Lag f, Kind kind) {
            return cells.above(f.of()).map(cell -> !anywhere.mayBeAbsent(f.of()) ? cell : "IF(" + cell + "=\"\"," + ABSENT + "," + cell + ")").orElse(ABSENT);
        }

        @Override
        public String rank(Window.Rank f, Kind kind) {
            String here = cells.here(f.of());
            String rank = "RANK(" + here + "," + cells.range(f.of()) + "," + (f.direction() == Window.Direction.DESCENDING ? 0 : 1) + ")";
            String equalsBefore = f.ties() == Window.Ties.SHARED ? ""
                    : cells.rangeAbove(f.of()).map(above -> "+COUNTIF(" + above + "," + here + ")").orElse("");
            return mayBeAbsent(f.of()) ? "IF(ISNUMBER(" + here + ")," + rank + equalsBefore + "," + ABSENT + ")" : "(" + rank + equalsBefore + ")";
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
            Optional<Formula> alone = alone(f);
            if (alone.isPresent()) {
                return bare(alone.get());
            }
            boolean sum = f.operator() == Numeric.Operator.PLUS || f.operator() == Numeric.Operator.MINUS;
            String left = sum || isProduct(f.left()) ? stripped(bare(f.left())) : bare(f.left());
            String right = sum && isProduct(f.right()) ? stripped(bare(f.right())) : bare(f.right());
            if (sum && right.startsWith("-")) { // a stated figure below zero
                return "(" + left + (sign.equals("+") ? "-" : "+") + right.substring(1) + ")";
            }
            return "(" + left + sign + right + ")";
        }

        /** The one side that counts: nothing is added, or it is taken once. */
        private Optional<Formula> alone(Numeric.Arithmetic f) {
            return switch (f.operator()) {
                case PLUS -> is(f.left(), 0) ? Optional.of(f.right()) : is(f.right(), 0) ? Optional.of(f.left()) : Optional.empty();
                case MINUS -> is(f.right(), 0) ? Optional.of(f.left()) : Optional.empty();
                case TIMES -> is(f.left(), 1) ? Optional.of(f.right()) : is(f.right(), 1) ? Optional.of(f.left()) : Optional.empty();
                case OVER -> is(f.right(), 1) ? Optional.of(f.left()) : Optional.empty();
            };
        }

        private boolean is(Formula f, double figure) {
            return f instanceof Leaf.Literal literal && literal.kind() == Kind.NUMBER && literal.figure() == figure;
        }

        private boolean isProduct(Formula f) {
            return f instanceof Numeric.Arithmetic a && (a.operator() == Numeric.Operator.TIMES || a.operator() == Numeric.Operator.OVER);
        }

        /** One within another of the same end is one of all. */
        @Override
        public String extreme(Numeric.Extreme f, Kind kind) {
            List<String> all = taken(f, f.end()).map(SheetFormula.this::bare).map(SheetFormula::stripped).distinct().toList();
            return all.size() == 1 ? bare(taken(f, f.end()).findFirst().orElseThrow()) : (f.end() == Numeric.End.LEAST ? "MIN(" : "MAX(") + String.join(",", all) + ")";
        }

        private Stream<Formula> taken(Formula f, Numeric.End end) {
            return f instanceof Numeric.Extreme extreme && extreme.end() == end ? extreme.of().stream().flatMap(each -> taken(each, end)) : Stream.of(f);
        }

        @Override
        public String negate(Numeric.Negate f, Kind kind) {
            return "(-" + bare(f.of()) + ")";
        }

        @Override
        public String abs(Numeric.Abs f, Kind kind) {
            boolean positive = f.of() instanceof Numeric.Abs || f.of() instanceof Leaf.Literal literal && literal.figure() >= 0;
            return positive ? bare(f.of()) : "ABS(" + stripped(bare(f.of())) + ")";
        }

        @Override
        public String floor(Numeric.Floor f, Kind kind) {
            return "INT(" + stripped(bare(f.of())) + ")";
        }

        @Override
        public String round(Numeric.Round f, Kind kind) {
            return "ROUND(" + stripped(bare(f.of())) + "," + f.digits() + ")";
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
            return kind(f.of()) == Kind.DATE ? SheetTexts.date(bare(f.of()), f.pattern(), f.locale()) : SheetTexts.number(bare(f.of()), NumberPattern.of(f.pattern(), f.locale()));
        }
    }
}
