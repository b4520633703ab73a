package dev.trellisgorge.brief;

import dev.trellisgorge.brief.Mapping.Text;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Numbers;
import dev.trellisgorge.table.Schema;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.regex.Pattern;

/**
 * Turns the text of an expression into a formula: text that is exactly a column's name is that column; all else is an ISO SQL
 * value expression ({@link SqlExpression}).
 *
 * @param table    the columns of the shaped table, or empty where it could not be read, which is reported elsewhere: then nothing but settings is looked up
 * @param settings the brief's settings
 * @param problems where mistakes go
 */
record Expressions(Optional<Schema> table, Settings settings, Problems problems) {
    private static final Pattern SETTING = Pattern.compile(":[A-Za-z_][A-Za-z0-9_]*");
    private static final Pattern QUOTED = Pattern.compile("\"(?:[^\"]|\"\")++\"");
    private static final Pattern WORDS = Pattern.compile("[\\p{L}\\p{N}_. ]+");
    private static final Pattern LITERAL = Pattern.compile("(?i)true|false|null|case .*|not .*|.* (and|or|is|in|not|between) .*");

    /** The formula; empty where the text is none, which is reported. */
    Optional<Formula> read(Text text) {
        String written = text.value();
        if (table.flatMap(t -> t.find(written)).isPresent()) {
            return Optional.of(Formulas.column(written));
        }
        if (SETTING.matcher(written).matches()) {
            return setting(text, written.substring(1));
        }
        if (table.isEmpty()) { // what is wrong with the table is reported; what it would mean for this text can't be said
            return Optional.empty();
        }
        if (QUOTED.matcher(written).matches()) {
            return column(new Text(written.substring(1, written.length() - 1).replace("\"\"", "\""), text.place()))
                    .map(Formulas::column);
        }
        OptionalDouble number = Numbers.parse(written);
        if (number.isPresent()) {
            return Optional.of(Formulas.number(number.getAsDouble()));
        }
        if (settings.find(written).isPresent()) {
            problems.add(text.place(), ProblemKind.UNKNOWN_NAME, "'" + written + "' is no column; the setting is written \":" + written + "\"");
            return Optional.empty();
        }
        return WORDS.matcher(written).matches() && !LITERAL.matcher(written).matches() ? column(text).map(Formulas::column) : sql(text);
    }

    /** The parser takes time to load, so it is asked only where the text is more than one name or figure. */
    private Optional<Formula> sql(Text text) {
        try {
            return Optional.of(new SqlExpression(names(Optional.empty()), false).read(text.value()));
        } catch (SqlExpression.NotTaken e) {
            problems.add(text.place(), ProblemKind.SYNTAX, e.getMessage());
            return Optional.empty();
        }
    }

    /** @param more columns that are taken too */
    private SqlExpression.Names names(Optional<Expressions> more) {
        return new SqlExpression.Names() {
            @Override
            public Formula column(String name) throws SqlExpression.NotTaken {
                if (table.isPresent() && !isColumn(name)) {
                    throw new SqlExpression.NotTaken(table.get().unknownColumn(name) + " A text stands in single quotes.");
                }
                return Formulas.column(name);
            }

            @Override
            public Optional<Kind> kind(String column) {
                return table.flatMap(t -> t.find(column)).or(() -> more.flatMap(Expressions::table).flatMap(t -> t.find(column))).map(Field::kind);
            }

            @Override
            public Formula setting(String name) throws SqlExpression.NotTaken {
                if (settings.find(name).isEmpty()) {
                    throw new SqlExpression.NotTaken(settings.unknown(name));
                }
                return Formulas.setting(name);
            }

            @Override
            public boolean isColumn(String name) {
                return has(name) || more.filter(others -> others.has(name)).isPresent();
            }
        };
    }

    /**
     * The same in a line of words: aggregates over all rows are taken, and columns of the raw table too, of which a slice may keep one cell.
     */
    Optional<Formula> said(Text text, Expressions raw) {
        String written = text.value();
        if (table.isEmpty() || raw.table().isEmpty() || SETTING.matcher(written).matches()) {
            return read(text);
        }
        String name = QUOTED.matcher(written).matches() ? written.substring(1, written.length() - 1).replace("\"\"", "\"") : written;
        if (has(name) || raw.has(name)) {
            return Optional.of(Formulas.column(name));
        }
        if (WORDS.matcher(written).matches() && !LITERAL.matcher(written).matches() && Numbers.parse(written).isEmpty()) {
            return column(text).map(Formulas::column);
        }
        try {
            return Optional.of(new SqlExpression(names(Optional.of(raw)), true).read(written));
        } catch (SqlExpression.NotTaken e) {
            problems.add(text.place(), ProblemKind.SYNTAX, e.getMessage());
            return Optional.empty();
        }
    }

    private boolean has(String column) {
        return table.flatMap(t -> t.find(column)).isPresent();
    }

    /** The name of a column that is there; empty where it is not, which is reported. */
    Optional<String> column(Text text) {
        if (table.isEmpty()) {
            return Optional.empty();
        }
        if (table.get().find(text.value()).isEmpty()) {
            problems.add(text.place(), ProblemKind.UNKNOWN_NAME, table.get().unknownColumn(text.value()));
            return Optional.empty();
        }
        return Optional.of(text.value());
    }

    /** A setting by its name; empty where there is none, which is reported. */
    Optional<Formula> setting(Text text, String name) {
        if (settings.find(name).isEmpty()) {
            problems.add(text.place(), ProblemKind.UNKNOWN_NAME, settings.unknown(name));
            return Optional.empty();
        }
        return Optional.of(Formulas.setting(name));
    }
}
