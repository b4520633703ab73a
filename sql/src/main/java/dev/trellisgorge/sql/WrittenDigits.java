package dev.trellisgorge.sql;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Leaf;
import dev.trellisgorge.formula.NumberPattern;
import dev.trellisgorge.formula.Textual;
import dev.trellisgorge.formula.Typing;
import dev.trellisgorge.sql.Relation.Aid;
import dev.trellisgorge.table.Kind;
import java.text.DecimalFormatSymbols;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * Figures as texts that depend on how large they are: in their shortest form, or with an exponent. Databases write doubles in the fewest
 * digits that read back, but each in a form of its own; so the digits and the place of the point are columns of an expression before.
 */
final class WrittenDigits {
    /** So many digits fit into a whole number of a database. */
    private static final int MOST = 17;
    /** The shortest form has an exponent from this power of ten on, and below the other. */
    private static final int LARGE = 21;
    private static final int SMALL = -7;
    /** Larger ones rounded up may be none that a double holds. */
    private static final int READ_BACK = 308;

    private final Dialect dialect;
    private final String digits;
    private final String point;

    /** Of a figure whose digits are columns of what the names are of. */
    WrittenDigits(Dialect dialect, SqlFormula.Names names, Formula figure) {
        this.dialect = dialect;
        this.digits = names.aid(new Aid.Digits(figure));
        this.point = names.aid(new Aid.Point(figure));
    }

    /** Adds the figures whose digits a formula reads, and what it reads of those. */
    static void read(Formula formula, Typing typing, Set<Formula> figures, Set<Aid.Mantissa> mantissas) {
        if ((formula instanceof Textual.Text || hasExponent(formula) && !(formula.operands().get(0) instanceof Leaf.Absent)) && typing.of(formula.operands().get(0)) == Kind.NUMBER) {
            figures.add(formula.operands().get(0));
            if (formula instanceof Textual.Formatted formatted) {
                exponential(formatted).ifPresent(format -> mantissas.add(mantissa(formatted, format)));
            }
        }
        formula.operands().forEach(operand -> read(operand, typing, figures, mantissas));
    }

    static boolean hasExponent(Formula formula) {
        return formula instanceof Textual.Formatted formatted && NumberPattern.exponent(formatted.pattern()) > 0;
    }

    /** As the evaluator writes a number as a text. */
    String shortest(String figure) {
        String first = "SUBSTRING(" + digits + " FROM 1 FOR 1)";
        String others = "CASE WHEN CHAR_LENGTH(" + digits + ") > 1 THEN '.' || SUBSTRING(" + digits + " FROM 2) ELSE '' END";
        String exponential = first + " || " + others + " || 'e' || CAST(" + point + " - 1 AS " + dialect.type(Kind.TEXT) + ")";
        return "CASE WHEN " + figure + " < 0 THEN '-' ELSE '' END || CASE WHEN " + figure + " IS NULL THEN NULL"
                + " WHEN " + digits + " = '' THEN '0'"
                + " WHEN " + point + " > " + LARGE + " OR " + point + " <= " + SMALL + " THEN " + exponential
                + " WHEN " + point + " <= 0 THEN '0.' || REPEAT('0', -" + point + ") || " + digits
                + " WHEN CHAR_LENGTH(" + digits + ") <= " + point + " THEN " + digits + " || REPEAT('0', " + point + " - CHAR_LENGTH(" + digits + "))"
                + " ELSE SUBSTRING(" + digits + " FROM 1 FOR " + point + ") || '.' || SUBSTRING(" + digits + " FROM " + point + " + 1) END";
    }

    /** A pattern with an exponent; empty where it asks for more than one digit before the point, or for others than 0 to 9. */
    private static Optional<NumberPattern> exponential(Textual.Formatted f) {
        return Optional.of(NumberPattern.of(f.pattern(), f.locale())).filter(pattern -> pattern.symbols().getZeroDigit() == '0' && pattern.mostWhole() == 1 && pattern.leastWhole() == 1 && pattern.mostDecimals() + 1 <= MOST
                && pattern.shift() == 0 && !pattern.alwaysPoint());
    }

    private static Aid.Mantissa mantissa(Textual.Formatted f, NumberPattern format) {
        return new Aid.Mantissa(f.of(), format.mostDecimals() + 1);
    }

    /** @return empty where the pattern asks for more than one digit before the point, or for others than 0 to 9 */
    static Optional<String> exponential(Dialect dialect, Textual.Formatted f, String figure, SqlFormula.Names names) {
        return exponential(f).map(format -> {
            DecimalFormatSymbols symbols = format.symbols();
            String first = names.aid(mantissa(f, format));
            String power = names.aid(new Aid.Power(mantissa(f, format)));
            WrittenFigures written = new WrittenFigures(dialect);
            String body = "SUBSTRING(" + first + " FROM 1 FOR 1)" + written.fraction(first, format.leastDecimals(), format.mostDecimals(), String.valueOf(symbols.getDecimalSeparator()), false)
                    + " || " + dialect.text(symbols.getExponentSeparator()) + " || CASE WHEN " + power + " < 0 THEN " + dialect.text(String.valueOf(symbols.getMinusSign())) + " ELSE '' END || "
                    + padded("CAST(ABS(" + power + ") AS " + dialect.type(Kind.TEXT) + ")", format.leastExponent());
            return written.signed(figure, figure + " < 0", body, format);
        });
    }

    private static String padded(String digits, int least) {
        return least == 1 ? digits : "CASE WHEN CHAR_LENGTH(" + digits + ") < " + least + " THEN LPAD(" + digits + ", " + least + ", '0') ELSE " + digits + " END";
    }

    /** The columns that hold digits and points. */
    static final class Columns {
        private final Statement statement;
        private final Relation over;
        private final Dialect dialect;

        Columns(Statement statement, Relation over) {
            this.statement = statement;
            this.over = over;
            this.dialect = statement.dialect();
        }

        /** @param figures the expressions over the relation, by what they say */
        Relation of(Map<Formula, String> figures) {
            Map<Aid, String> texts = new LinkedHashMap<>();
            figures.forEach((figure, expression) -> texts.put(new Aid.Draft(new Aid.Digits(figure), 1), "LOWER(CAST(ABS(" + expression + ") AS " + dialect.type(Kind.TEXT) + "))"));
            Relation written = statement.aided(over, texts, "write figures, each database in its own form");
            Map<Aid, String> parts = new LinkedHashMap<>();
            for (Formula figure : figures.keySet()) {
                String text = written.names(dialect).aid(new Aid.Draft(new Aid.Digits(figure), 1));
                parts.put(new Aid.Draft(new Aid.Digits(figure), 2), "REPLACE(" + mantissa(text) + ", '.', '')");
                parts.put(new Aid.Draft(new Aid.Point(figure), 2), wholeDigits(text) + " + " + power(text));
            }
            Relation split = statement.aided(written, parts, "take the digits and the place of the point from that");
            Map<Aid, String> settled = new LinkedHashMap<>();
            for (Formula figure : figures.keySet()) {
                String all = split.names(dialect).aid(new Aid.Draft(new Aid.Digits(figure), 2));
                settled.put(new Aid.Digits(figure), "TRIM(BOTH '0' FROM " + all + ")");
                settled.put(new Aid.Point(figure), split.names(dialect).aid(new Aid.Draft(new Aid.Point(figure), 2)) + " - CHAR_LENGTH(" + all + ") + CHAR_LENGTH(TRIM(LEADING '0' FROM " + all + "))");
            }
            Relation done = statement.aided(split, settled, "without zeros in front and at the end");
            return dialect.mayWriteOneDigitMore() ? shortened(done, figures) : done;
        }

        /** The first digits of figures whose digits are there, rounded; rounding may carry over to one more. */
        Relation of(Set<Aid.Mantissa> mantissas) {
            String text = dialect.type(Kind.TEXT);
            Map<Aid, String> rounded = new LinkedHashMap<>();
            for (Aid.Mantissa mantissa : mantissas) {
                String digits = over.names(dialect).aid(new Aid.Digits(mantissa.figure()));
                String first = "CAST(SUBSTRING(RPAD(" + digits + ", " + mantissa.digits() + ", '0') FROM 1 FOR " + mantissa.digits() + ") AS BIGINT)";
                rounded.put(new Aid.Draft(mantissa, 1), "CAST(" + first + " + CASE WHEN SUBSTRING(" + digits + " FROM " + (mantissa.digits() + 1) + " FOR 1) >= '5' THEN 1 ELSE 0 END AS " + text + ")");
            }
            Relation carried = statement.aided(over, rounded, "round to the first digits");
            SqlFormula.Names names = carried.names(dialect);
            Map<Aid, String> settled = new LinkedHashMap<>();
            for (Aid.Mantissa mantissa : mantissas) {
                String all = names.aid(new Aid.Draft(mantissa, 1));
                String point = names.aid(new Aid.Point(mantissa.figure()));
                settled.put(mantissa, "SUBSTRING(RPAD(" + all + ", " + mantissa.digits() + ", '0') FROM 1 FOR " + mantissa.digits() + ")");
                settled.put(new Aid.Power(mantissa), "CASE WHEN " + names.aid(new Aid.Digits(mantissa.figure())) + " = '' THEN 0 WHEN CHAR_LENGTH(" + all + ") > " + mantissa.digits() + " THEN " + point + " ELSE " + point + " - 1 END");
            }
            return statement.aided(carried, settled, "with the power of ten of the first one");
        }

        /** Without the last digit, where the rest still reads back. */
        private Relation shortened(Relation over, Map<Formula, String> figures) {
            Map<Aid, String> tried = new LinkedHashMap<>();
            for (Formula figure : figures.keySet()) {
                String digits = over.names(dialect).aid(new Aid.Digits(figure));
                String rest = "CHAR_LENGTH(" + digits + ") - 1";
                tried.put(new Aid.Draft(new Aid.Digits(figure), 3), "CASE WHEN " + rest + " BETWEEN 1 AND " + MOST + " AND " + over.names(dialect).aid(new Aid.Point(figure)) + " <= " + READ_BACK + " THEN CAST(CAST(SUBSTRING(" + digits + " FROM 1 FOR " + rest + ") AS BIGINT) + CASE WHEN SUBSTRING(" + digits
                        + " FROM CHAR_LENGTH(" + digits + ")) >= '5' THEN 1 ELSE 0 END AS " + dialect.type(Kind.TEXT) + ") END");
            }
            Relation shorter = statement.aided(over, tried, "with a digit less");
            Map<Aid, String> points = new LinkedHashMap<>();
            for (Formula figure : figures.keySet()) {
                String digits = shorter.names(dialect).aid(new Aid.Digits(figure));
                points.put(new Aid.Draft(new Aid.Point(figure), 3), shorter.names(dialect).aid(new Aid.Point(figure)) + " + CHAR_LENGTH(" + shorter.names(dialect).aid(new Aid.Draft(new Aid.Digits(figure), 3)) + ") - CHAR_LENGTH(" + digits + ") + 1");
            }
            Relation placed = statement.aided(shorter, points, "and the place of its point");
            SqlFormula.Names names = placed.names(dialect);
            Map<Aid, String> chosen = new LinkedHashMap<>();
            figures.forEach((figure, expression) -> {
                String less = names.aid(new Aid.Draft(new Aid.Digits(figure), 3));
                String at = names.aid(new Aid.Draft(new Aid.Point(figure), 3));
                String same = "CASE WHEN CAST('0.' || " + less + " || 'E' || CAST(" + at + " AS " + dialect.type(Kind.TEXT) + ") AS " + dialect.type(Kind.NUMBER) + ") = ABS(" + expression + ") THEN ";
                chosen.put(new Aid.Draft(new Aid.Digits(figure), 4), same + "TRIM(TRAILING '0' FROM " + less + ") ELSE " + names.aid(new Aid.Digits(figure)) + " END");
                chosen.put(new Aid.Draft(new Aid.Point(figure), 4), same + at + " ELSE " + names.aid(new Aid.Point(figure)) + " END");
            });
            Relation settled = statement.aided(placed, chosen, "where that reads back");
            for (Formula figure : figures.keySet()) {
                settled = settled.standing(new Aid.Draft(new Aid.Digits(figure), 4), new Aid.Digits(figure)).standing(new Aid.Draft(new Aid.Point(figure), 4), new Aid.Point(figure));
            }
            return settled;
        }

        private static String at(String sign, String text) {
            return "POSITION('" + sign + "' IN " + text + ")";
        }

        private static String mantissa(String text) {
            return "CASE WHEN " + at("e", text) + " > 0 THEN SUBSTRING(" + text + " FROM 1 FOR " + at("e", text) + " - 1) ELSE " + text + " END";
        }

        private static String wholeDigits(String text) {
            return "CASE WHEN " + at(".", text) + " > 0 THEN " + at(".", text) + " - 1 WHEN " + at("e", text) + " > 0 THEN " + at("e", text) + " - 1 ELSE CHAR_LENGTH(" + text + ") END";
        }

        private static String power(String text) {
            return "CAST(CASE WHEN " + at("e", text) + " > 0 THEN SUBSTRING(" + text + " FROM " + at("e", text) + " + 1) ELSE '0' END AS INTEGER)";
        }
    }
}
