package dev.trellisgorge.formula;

import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Numbers;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * The back end that says a formula in words, as a person would beside a column: {@code volume where volume is at least the setting goal}.
 * What is left open is absent. Thread-safe.
 */
public final class InWords {
    private static final Phrases PHRASES = new Phrases();

    private InWords() {
    }

    /** A phrase without a full stop. */
    public static String of(Formula formula) {
        return formula.match(PHRASES, null); // no phrase depends on the kind
    }

    private static String piece(Formula formula) {
        return formula instanceof Choice || formula instanceof Condition.Logic || formula instanceof Numeric.Arithmetic ? "(" + of(formula) + ")" : of(formula);
    }

    private static String listed(List<String> phrases, String word) {
        return phrases.size() == 1 ? phrases.get(0) : String.join(", ", phrases.subList(0, phrases.size() - 1)) + " " + word + " " + phrases.get(phrases.size() - 1);
    }

    private static List<String> pieces(List<Formula> formulas) {
        return formulas.stream().map(InWords::piece).toList();
    }

    private static final class Phrases implements Formula.Cases<String> {
        @Override
        public String column(Leaf.Column f, Kind kind) {
            return f.name();
        }

        @Override
        public String computed(Leaf.Computed f, Kind kind) {
            return f.name();
        }

        @Override
        public String literal(Leaf.Literal f, Kind kind) {
            return f.kind() == Kind.NUMBER ? Numbers.shortest(f.figure()) : f.kind() == Kind.TEXT ? "'" + f.value() + "'" : f.value().toString();
        }

        @Override
        public String absent(Leaf.Absent f, Kind kind) {
            return "nothing";
        }

        @Override
        public String setting(Leaf.Setting f, Kind kind) {
            return "the setting " + f.name();
        }

        @Override
        public String rowNumber(Leaf.RowNumber f, Kind kind) {
            return "the number of the row";
        }

        @Override
        public String arithmetic(Numeric.Arithmetic f, Kind kind) {
            String sign = switch (f.operator()) {
                case PLUS -> " + ";
                case MINUS -> " − ";
                case TIMES -> " × ";
                case OVER -> " / ";
            };
            return side(f, f.left(), false) + sign + side(f, f.right(), true);
        }

        /** Brackets where the order of working out would be another one. */
        private String side(Numeric.Arithmetic whole, Formula side, boolean right) {
            boolean loose = side.strength() < whole.strength() || right && side.strength() == whole.strength() || side instanceof Choice || side instanceof Condition;
            return loose ? "(" + of(side) + ")" : of(side);
        }

        @Override
        public String extreme(Numeric.Extreme f, Kind kind) {
            List<Formula> all = taken(f, f.end()).toList();
            String which = f.end() == Numeric.End.LEAST ? all.size() == 2 ? "the smaller of " : "the least of " : all.size() == 2 ? "the larger of " : "the greatest of ";
            return which + listed(pieces(all), "and");
        }

        /** One within another of the same end is one of all. */
        private static Stream<Formula> taken(Formula f, Numeric.End end) {
            return f instanceof Numeric.Extreme extreme && extreme.end() == end ? extreme.of().stream().flatMap(each -> taken(each, end)) : Stream.of(f);
        }

        @Override
        public String negate(Numeric.Negate f, Kind kind) {
            return "the opposite of " + piece(f.of());
        }

        @Override
        public String abs(Numeric.Abs f, Kind kind) {
            return "the size of " + piece(f.of());
        }

        @Override
        public String floor(Numeric.Floor f, Kind kind) {
            return piece(f.of()) + " rounded down";
        }

        @Override
        public String round(Numeric.Round f, Kind kind) {
            return piece(f.of()) + (f.digits() == 0 ? " rounded" : " rounded to " + f.digits() + (f.digits() == 1 ? " decimal" : " decimals"));
        }

        @Override
        public String comparison(Condition.Comparison f, Kind kind) {
            String is = switch (f.relation()) {
                case BELOW -> " is below ";
                case AT_MOST -> " is at most ";
                case ABOVE -> " is above ";
                case AT_LEAST -> " is at least ";
                case EQUAL -> " is ";
                case UNEQUAL -> " is not ";
            };
            return piece(f.left()) + is + piece(f.right());
        }

        @Override
        public String in(Condition.In f, Kind kind) {
            return piece(f.of()) + " is " + listed(pieces(f.list()), "or");
        }

        @Override
        public String logic(Condition.Logic f, Kind kind) {
            return f.of().stream().map(each -> each instanceof Condition.Logic ? "(" + of(each) + ")" : of(each)).collect(Collectors.joining(f.connective() == Condition.Connective.AND ? " and " : " or "));
        }

        @Override
        public String not(Condition.Not f, Kind kind) {
            return f.of() instanceof Condition.Present present ? piece(present.of()) + " is missing" : "not " + piece(f.of());
        }

        @Override
        public String present(Condition.Present f, Kind kind) {
            return piece(f.of()) + " is there";
        }

        @Override
        public String cases(Choice.Case f, Kind kind) {
            List<String> phrases = new ArrayList<>();
            f.whens().forEach(when -> phrases.add((when.result() instanceof Leaf.Absent ? "nothing" : of(when.result())) + " where " + of(when.condition())));
            if (!(f.otherwise() instanceof Leaf.Absent)) {
                phrases.add((f.whens().size() == 1 ? "else " : "and else ") + of(f.otherwise()));
            }
            return String.join(", ", phrases);
        }

        @Override
        public String coalesce(Choice.Coalesce f, Kind kind) {
            List<String> each = pieces(f.of());
            return each.get(0) + each.stream().skip(1).map(next -> ", or where it is missing " + next).collect(Collectors.joining());
        }

        @Override
        public String nullIf(Choice.NullIf f, Kind kind) {
            return of(f.left()) + ", nothing where it is " + piece(f.right());
        }

        @Override
        public String calendarField(Calendar.CalendarField f, Kind kind) {
            return "the " + f.part().name().toLowerCase(Locale.ROOT) + " of " + piece(f.of());
        }

        @Override
        public String period(Calendar.Period f, Kind kind) {
            return "the count of the " + f.unit().name().toLowerCase(Locale.ROOT) + " of " + piece(f.of());
        }

        @Override
        public String concat(Textual.Concat f, Kind kind) {
            return pieces(f.of()).stream().collect(Collectors.joining(" followed by "));
        }

        @Override
        public String repeat(Textual.Repeat f, Kind kind) {
            return of(f.text()) + ", " + piece(f.count()) + " times";
        }

        @Override
        public String text(Textual.Text f, Kind kind) {
            return piece(f.of()) + " as a text";
        }

        @Override
        public String formatted(Textual.Formatted f, Kind kind) {
            return piece(f.of()) + " written as " + f.pattern();
        }

        @Override
        public String aggregate(Window.Aggregate f, Kind kind) {
            return switch (f.fold()) {
                case SUM -> "the sum of " + piece(f.of()) + " over all rows";
                case MIN -> "the least of " + piece(f.of()) + " over all rows";
                case MAX -> "the greatest of " + piece(f.of()) + " over all rows";
                case COUNT -> f.of() instanceof Leaf.Literal ? "how many rows there are" : "how many rows have " + piece(f.of());
            };
        }

        @Override
        public String cumulative(Window.Cumulative f, Kind kind) {
            return "the sum of " + piece(f.of()) + " so far" + (f.restart() instanceof Leaf.Absent ? "" : ", begun anew where " + of(f.restart()));
        }

        @Override
        public String lag(Window.Lag f, Kind kind) {
            return piece(f.of()) + " on the row before";
        }

        @Override
        public String rank(Window.Rank f, Kind kind) {
            return "the rank of " + piece(f.of()) + (f.direction() == Window.Direction.DESCENDING ? ", the largest first" : ", the smallest first")
                    + (f.ties() == Window.Ties.SHARED ? ", equal ones alike" : "");
        }

        @Override
        public String lookup(Window.Lookup f, Kind kind) {
            return of(f.of()) + " on the first row whose " + piece(f.key()) + " is " + piece(f.wanted());
        }
    }
}
