package dev.trellisgorge.sql;

import dev.trellisgorge.formula.Window;
import dev.trellisgorge.table.Schema;
import java.util.LinkedHashMap;
import java.util.Map;

/**
 * A common table expression: what it is called, and what its columns are called in it.
 *
 * @param columns  of the table, by their own names
 * @param computed those that were computed over it
 * @param row      the one that numbers the rows from 1
 */
record Relation(String name, Schema schema, Map<String, String> columns, Map<String, String> computed, Map<Window.Cumulative, String> parts, String row) {

    /** The same columns in another expression. */
    Relation named(String other) {
        return new Relation(other, schema, columns, computed, parts, row);
    }

    Relation with(String column, String alias) {
        Map<String, String> more = new LinkedHashMap<>(computed);
        more.put(column, alias);
        return new Relation(name, schema, columns, more, parts, row);
    }

    Relation with(Window.Cumulative sum, String alias) {
        Map<Window.Cumulative, String> more = new LinkedHashMap<>(parts);
        more.put(sum, alias);
        return new Relation(name, schema, columns, computed, more, row);
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
            return quoted(columns.get(column));
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
        public String part(Window.Cumulative sum) {
            return quoted(parts.get(sum));
        }

        @Override
        public SqlFormula.Names of(String alias) {
            return new Naming(dialect, dialect.quoted(alias) + ".");
        }
    }
}
