package dev.trellisgorge.brief;

import dev.trellisgorge.brief.Mapping.Text;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.table.Numbers;
import dev.trellisgorge.table.Table;
import java.util.Optional;
import java.util.OptionalDouble;

/**
 * Turns the text of an expression into a formula. What it takes:
 * <ul>
 *   <li>{@code generated_mwh}: text that is exactly a column's name is that column
 *   <li>{@code "generated_mwh"} in double quotes (doubled within): a column, whatever its name looks like
 *   <li>{@code :goal}: a setting
 *   <li>{@code 400}: a number
 * </ul>
 *
 * @param table    the shaped table, or empty where it could not be read; then any column is taken
 * @param settings the brief's settings
 * @param problems where mistakes go
 */
record Expressions(Optional<Table> table, Settings settings, Problems problems) {

    /** The formula; empty where the text is none, which is reported. */
    Optional<Formula> read(Text text) {
        String written = text.value();
        if (table.flatMap(t -> t.find(written)).isPresent()) {
            return Optional.of(Formulas.column(written));
        }
        if (written.startsWith(":")) {
            return setting(text, written.substring(1));
        }
        if (written.length() > 2 && written.startsWith("\"") && written.endsWith("\"")) {
            return column(new Text(written.substring(1, written.length() - 1).replace("\"\"", "\""), text.place()))
                    .map(Formulas::column);
        }
        OptionalDouble number = Numbers.parse(written);
        if (number.isPresent()) {
            return Optional.of(Formulas.number(number.getAsDouble()));
        }
        if (settings.find(written).isPresent()) {
            problems.add(text.place(), "'" + written + "' is no column; the setting is written \":" + written + "\"");
            return Optional.empty();
        }
        return column(text).map(Formulas::column);
    }

    /** The name of a column that is there; empty where it is not, which is reported. */
    Optional<String> column(Text text) {
        if (table.isPresent() && table.get().find(text.value()).isEmpty()) {
            problems.add(text.place(), table.get().unknownColumn(text.value()));
            return Optional.empty();
        }
        return Optional.of(text.value());
    }

    private Optional<Formula> setting(Text text, String name) {
        if (settings.find(name).isEmpty()) {
            problems.add(text.place(), settings.unknown(name));
            return Optional.empty();
        }
        return Optional.of(Formulas.setting(name));
    }
}
