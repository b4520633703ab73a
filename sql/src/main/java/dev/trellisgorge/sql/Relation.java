package dev.trellisgorge.sql;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Leaf;
import dev.trellisgorge.formula.Window;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Schema;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * A common table expression: what it is called, and what its columns are called in it.
 *
 * @param columns   of the table, by their own names
 * @param computed  those that were computed over it
 * @param aids      those that only serve others
 * @param weights   by the column whose cells are means, the one that says of how many cells
 * @param decimals  those whose cells are decimal or whole numbers of the database's own, and no doubles yet
 * @param row       the one that tells the order of the rows; not there where they are in none
 * @param numbering what it says
 */
record Relation(String name, Schema schema, Map<String, String> columns, Map<String, String> computed, Map<Aid, String> aids, Map<String, String> weights, Set<String> decimals, String row, Numbering numbering) {

    /** What is known of the order of rows. */
    enum Numbering {
        /** They are in none. */
        NONE,
        /** Larger numbers come later. */
        SORTED,
        /** They are numbered from 1 without a gap. */
        FROM_ONE
    }

    /** A column that only serves formulas of a later expression. */
    sealed interface Aid {

        /** What its column is called, where that is free. */
        String called();

        /** The figure's own name, where it has one. */
        private static String of(Formula figure) {
            return figure instanceof Leaf.Computed computed ? ": " + computed.name() : figure instanceof Leaf.Column column ? ": " + column.name() : "";
        }

        /** The number of the part that a running sum is in, which starts anew with each. */
        record Part(Window.Cumulative sum) implements Aid {
            @Override
            public String called() {
                return "part";
            }
        }

        /** The digits of a figure, from the first to the last that is not 0, as a text; empty for 0. */
        record Digits(Formula figure) implements Aid {
            @Override
            public String called() {
                return "digits" + of(figure);
            }
        }

        /** How many digits stand before its point; below 0 for zeros that follow the point. */
        record Point(Formula figure) implements Aid {
            @Override
            public String called() {
                return "point" + of(figure);
            }
        }

        /** A figure without its sign, rounded to the decimals of a pattern, as a text without anything else of it. */
        record Rounded(Formula figure, int decimals, int shift) implements Aid {
            @Override
            public String called() {
                return "rounded to " + decimals + of(figure);
            }
        }

        /** The first digits of a figure, rounded, as a text. */
        record Mantissa(Formula figure, int digits) implements Aid {
            @Override
            public String called() {
                return "first " + digits + " digits" + of(figure);
            }
        }

        /** The power of ten that belongs to the first digit of those. */
        record Power(Mantissa mantissa) implements Aid {
            @Override
            public String called() {
                return "power of ten" + of(mantissa.figure());
            }
        }

        /** What another one is made of. */
        record Draft(Aid of, int version) implements Aid {
            @Override
            public String called() {
                return of.called() + ", draft " + version;
            }
        }
    }

    /** The same columns in another expression. */
    Relation named(String other) {
        return new Relation(other, schema, columns, computed, aids, weights, decimals, row, numbering);
    }

    Relation with(String column, String alias) {
        Map<String, String> more = new LinkedHashMap<>(computed);
        more.put(column, alias);
        return new Relation(name, schema, columns, more, aids, weights, decimals, row, numbering);
    }

    Relation with(Aid aid, String alias) {
        Map<Aid, String> more = new LinkedHashMap<>(aids);
        more.put(aid, alias);
        return new Relation(name, schema, columns, computed, more, weights, decimals, row, numbering);
    }

    /** With one of two that only serve standing for the other too. */
    Relation standing(Aid one, Aid other) {
        Map<Aid, String> more = new LinkedHashMap<>(aids);
        more.put(new Aid.Draft(other, 0), aids.get(other)); // its name stays taken
        more.put(other, aids.get(one));
        return new Relation(name, schema, columns, computed, more, weights, decimals, row, numbering);
    }

    Relation weighted(String column, String alias) {
        Map<String, String> more = new LinkedHashMap<>(weights);
        more.put(column, alias);
        return new Relation(name, schema, columns, computed, aids, more, decimals, row, numbering);
    }

    /** Some of whose columns are decimal numbers. */
    Relation ofDecimals(Set<String> columns) {
        return new Relation(name, schema, this.columns, computed, aids, weights, columns, row, numbering);
    }

    Relation numbered(Numbering other) {
        return new Relation(name, schema, columns, computed, aids, weights, decimals, row, other);
    }

    boolean isOrdered() {
        return numbering != Numbering.NONE;
    }

    /** Names that are taken, in one case. */
    Set<String> taken() {
        return Stream.of(columns.values(), computed.values(), aids.values(), weights.values(), List.of(row)).flatMap(Collection::stream).map(name -> name.toLowerCase(Locale.ROOT)).collect(Collectors.toSet());
    }

    /** The names in expressions over it. */
    SqlFormula.Names names(Dialect dialect) {
        return new Naming(dialect, "");
    }

    private final class Naming implements SqlFormula.Names {
        private final Dialect dialect;
        private final String before;

        Naming(Dialect dialect, String before) {
            this.dialect = dialect;
            this.before = before;
        }

        private String quoted(String alias) {
            return before + dialect.quoted(alias);
        }

        @Override
        public String column(String column) {
            String cell = quoted(columns.get(column));
            return decimals.contains(column) ? dialect.cast(cell, Kind.NUMBER) : cell;
        }

        @Override
        public Optional<String> decimal(Formula of) {
            return of instanceof Leaf.Column column && decimals.contains(column.name()) ? Optional.of(quoted(columns.get(column.name()))) : Optional.empty();
        }

        @Override
        public String computed(String column) {
            return quoted(computed.get(column));
        }

        @Override
        public String setting(String setting) {
            return "(SELECT " + dialect.quoted(setting) + " FROM " + dialect.quoted(Statement.SETTINGS) + ")";
        }

        @Override
        public String row() {
            return quoted(row);
        }

        @Override
        public String relation() {
            return dialect.quoted(name);
        }

        @Override
        public String aid(Aid aid) {
            return quoted(aids.get(aid));
        }

        @Override
        public SqlFormula.Names of(String alias) {
            return new Naming(dialect, dialect.quoted(alias) + ".");
        }
    }
}
