package dev.trellisgorge.sql;

import dev.trellisgorge.shape.PeriodOf;
import dev.trellisgorge.shape.Previous;
import dev.trellisgorge.table.CalendarUnit;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Schema;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/** Writes steps that go by calendar periods. */
final class SqlPeriods {
    private final SqlSteps steps;
    private final Statement statement;
    private final Dialect dialect;
    private final Periods periods;

    SqlPeriods(SqlSteps steps, Statement statement) {
        this.steps = steps;
        this.statement = statement;
        this.dialect = statement.dialect();
        this.periods = new Periods(dialect);
    }

    private String number(Relation over, String column, CalendarUnit unit) {
        String cell = steps.here(over, column);
        return over.schema().field(column).kind() == Kind.DATE ? periods.number(cell, unit) : periods.numberOfText(cell, unit);
    }

    Relation previous(Relation given, Previous previous, Schema after) {
        Relation over = previous.period().isPresent() ? given : statement.numbered(given);
        Map<String, String> columns = statement.asTheyAre(over);
        List<String> keys = previous.by().stream().map(key -> steps.key(over, key)).toList();
        String of = steps.here(over, previous.of());
        if (previous.period().isEmpty()) {
            columns.put(previous.name(), "LAG(" + of + ") OVER (" + partition(keys) + "ORDER BY " + steps.row(over) + ")");
            return statement.projected(over, after, columns, previous.sentence());
        }
        String period = previous.period().get();
        CalendarUnit unit = previous.unit().or(() -> over.schema().field(period).unit()).orElseThrow(() -> steps.refused(previous, "how long the periods of '" + period + "' are is not known; say it with 'unit'"));
        Relation numbered = statement.more(over, Map.of("period", number(over, period, unit)), "the numbers of the periods");
        String number = steps.here(numbered.computed().get("period"));
        String window = " OVER (" + partition(keys) + "ORDER BY " + number + " NULLS LAST)";
        columns.put(previous.name(), "CASE WHEN LAG(" + number + ")" + window + " = " + number + " - 1 THEN LAG(" + of + ")" + window + " END");
        return statement.projected(numbered, after, columns, previous.sentence());
    }

    private static String partition(List<String> keys) {
        return keys.isEmpty() ? "" : "PARTITION BY " + String.join(", ", keys) + " ";
    }

    Relation period(Relation over, PeriodOf period, Schema after) {
        Map<String, String> columns = statement.asTheyAre(over);
        if (over.schema().field(period.of()).kind() == Kind.DATE && !period.fill()) {
            columns.put(period.name(), dialect.period(steps.here(over, period.of()), period.unit()));
            return statement.projected(over, after, columns, period.sentence());
        }
        Relation numbered = statement.more(period.fill() ? statement.numbered(over) : over, Map.of("period", number(over, period.of(), period.unit())), "the numbers of the periods");
        String number = steps.here(numbered.computed().get("period"));
        columns.put(period.name(), periods.written(number, period.unit()));
        return period.fill() ? filled(numbered, number, period, after) : statement.projected(numbered, after, columns, period.sentence());
    }

    /** For each key the rows in order of their period, and a row for each period between that has none. */
    private Relation filled(Relation over, String number, PeriodOf period, Schema after) {
        List<String> keys = period.by().stream().map(key -> steps.here(over, key)).toList();
        String rows = dialect.quoted(over.name());
        Relation groups = statement.more(over, Map.of("first", "MIN(" + steps.row(over) + ") OVER (" + partition(keys).strip() + ")"), "where the keys first stand");
        String first = steps.here(groups.computed().get("first"));
        String kept = statement.free("keys");
        String key = dialect.quoted("key");
        List<String> columns = IntStream.range(0, keys.size()).mapToObj(i -> keys.get(i) + " AS " + dialect.quoted("key " + i)).toList();
        statement.add(kept, "the keys", "SELECT DISTINCT " + Stream.concat(columns.stream(), Stream.of(first + " AS " + key)).collect(Collectors.joining(", ")) + "\n  FROM " + dialect.quoted(groups.name()) + " AS " + dialect.quoted("here"));
        String all = statement.free("periods");
        String own = dialect.quoted(over.computed().get("period"));
        String numbers = dialect.numbers("(SELECT MIN(" + own + ") FROM " + rows + ")", "(SELECT MAX(" + own + ") FROM " + rows + ")", dialect.quoted("number"));
        statement.add(all, "all periods from the first to the last", "SELECT " + dialect.cast(dialect.quoted("number"), Kind.NUMBER) + " AS " + dialect.quoted("number") + "\n  FROM " + numbers + " AS " + dialect.quoted("here"));
        Relation made = statement.relation("rows", after);
        Relation ordered = made.with("key", Statement.free("key", made));
        ordered = ordered.with("number", Statement.free("number", ordered));
        List<String> there = new ArrayList<>();
        List<String> added = new ArrayList<>();
        String at = dialect.quoted("all") + "." + dialect.quoted("number");
        Map<String, String> keyed = new LinkedHashMap<>();
        IntStream.range(0, keys.size()).forEach(i -> keyed.put(period.by().get(i), dialect.quoted("keys") + "." + dialect.quoted("key " + i)));
        made.columns().forEach((column, alias) -> {
            Field field = after.field(column);
            boolean name = column.equals(period.name());
            there.add((name ? periods.written(number, period.unit()) : steps.here(over, column)) + " AS " + dialect.quoted(alias));
            added.add(name ? periods.written(at, period.unit()) : keyed.getOrDefault(column, "CAST(NULL AS " + dialect.type(field.kind()) + ")"));
        });
        there.addAll(List.of(first + " AS " + dialect.quoted(ordered.computed().get("key")), number + " AS " + dialect.quoted(ordered.computed().get("number")), steps.row(over) + " AS " + dialect.quoted(made.row())));
        added.addAll(List.of(dialect.quoted("keys") + "." + key, at, "0"));
        String same = Stream.concat(IntStream.range(0, keys.size()).mapToObj(i -> keys.get(i) + " IS NOT DISTINCT FROM " + dialect.quoted("keys") + "." + dialect.quoted("key " + i)), Stream.of(number + " = " + at)).collect(Collectors.joining(" AND "));
        statement.add(made.name(), "the rows, and those that are added", "SELECT " + String.join(", ", there) + "\n  FROM " + dialect.quoted(groups.name()) + " AS " + dialect.quoted("here") + "\n  UNION ALL\n  SELECT " + String.join(", ", added) + "\n  FROM "
                + dialect.quoted(kept) + " AS " + dialect.quoted("keys") + " CROSS JOIN " + dialect.quoted(all) + " AS " + dialect.quoted("all") + "\n  WHERE NOT EXISTS (SELECT 1 FROM " + rows + " AS " + dialect.quoted("here") + " WHERE " + same + ")");
        String order = steps.here(ordered.computed().get("key")) + ", " + steps.here(ordered.computed().get("number")) + " NULLS LAST, " + steps.row(made);
        return statement.ordered(ordered, after, statement.asTheyAre(ordered), order, "", period.sentence());
    }
}
