package dev.trellisgorge.sql;

import dev.trellisgorge.formula.ColumnReferences;
import dev.trellisgorge.shape.Rank;
import dev.trellisgorge.shape.Rest;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Schema;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Writes one rank: rows in an order, the first of them, and a row for all others; each run of rows between those that stay by itself. */
final class SqlRank {
    private final SqlSteps steps;
    private final Statement statement;
    private final Dialect dialect;
    private final Rank rank;
    private final SqlSums sums;

    SqlRank(SqlSteps steps, Statement statement, Rank rank) {
        this.steps = steps;
        this.statement = statement;
        this.dialect = statement.dialect();
        this.rank = rank;
        this.sums = new SqlSums(dialect);
    }

    Relation ranked(Relation over) {
        boolean rest = rank.rest().isPresent() && rank.top().isPresent();
        if (rank.anchors().isEmpty() && !rest) {
            Relation made = rank.order() == Rank.Way.TABLE ? statement.numbered(over) : steps.ordered(over, rank.by(), isDescending(), rank);
            return rank.top().isEmpty() ? made : steps.first(made, rank.top().getAsInt(), rank);
        }
        Places placed = placed(over);
        if (rest) {
            return withRest(placed, rank.rest().get(), rank.top().getAsInt());
        }
        String cut = rank.top().isEmpty() ? "" : "\n  WHERE " + placed.part() + " = 0 OR " + placed.place() + " <= " + rank.top().getAsInt();
        return statement.ordered(placed.rows(), over.schema(), statement.asTheyAre(over), placed.run() + ", " + placed.part() + ", " + placed.place(), cut, rank.sentence());
    }

    private boolean isDescending() {
        return rank.order() == Rank.Way.DESCENDING;
    }

    /**
     * Rows with their places in the order.
     *
     * @param run   the number of rows that stay, up to here
     * @param part  0 on a row that stays, which stands before its run, and 1 on others
     * @param place of others within their run
     */
    private record Places(Relation rows, String run, String part, String place) {
    }

    private Places placed(Relation over) {
        Relation at = statement.numbered(over);
        SqlSteps.Said key = steps.said(at, rank.by(), "key", rank);
        at = key.over();
        String run = "0";
        String part = "1";
        if (rank.anchors().isPresent()) {
            SqlSteps.Said stays = steps.said(at, rank.anchors().get(), "stays", rank);
            at = stays.over();
            String sum = "SUM(CASE WHEN " + stays.expression() + " THEN 1 ELSE 0 END) OVER (ORDER BY " + steps.row(at) + " ROWS UNBOUNDED PRECEDING)";
            Map<String, String> more = new LinkedHashMap<>(Map.of("run", sum, "part", "CASE WHEN " + stays.expression() + " THEN 0 ELSE 1 END"));
            Relation runs = statement.more(at, more, "the runs of rows between those that stay");
            run = steps.here(runs.computed().get("run"));
            part = steps.here(runs.computed().get("part"));
            at = runs;
        }
        String order = rank.order() == Rank.Way.TABLE ? "" : dialect.sized(key.expression(), steps.kind(over, rank.by())) + (isDescending() ? " DESC" : "") + " NULLS LAST, ";
        String each = rank.anchors().isPresent() ? "PARTITION BY " + run + ", " + part + " " : "";
        Relation places = statement.more(at, Map.of("place", "ROW_NUMBER() OVER (" + each + "ORDER BY " + order + steps.row(at) + ")"), "the places in the order");
        return new Places(places, run, part, steps.here(places.computed().get("place")));
    }

    /** The first rows, and one for all others. */
    private Relation withRest(Places placed, Rest rest, int top) {
        Relation over = placed.rows();
        Schema after = rank.schema(over.schema(), statement.known());
        Kind own = over.schema().field(rest.column()).kind();
        Relation derived = derived(others(placed, rest, top, after), rest);
        Relation both = statement.relation("rows", after);
        List<String> first = new ArrayList<>();
        List<String> last = new ArrayList<>();
        both.columns().forEach((column, alias) -> {
            String cell = steps.here(over, column);
            first.add((column.equals(rest.column()) ? steps.written(cell, own, rank) : cell) + " AS " + dialect.quoted(alias));
            last.add(steps.here(derived, column) + " AS " + dialect.quoted(alias));
        });
        Relation marked = both.with("run", Statement.free("run", both));
        marked = marked.with("part", Statement.free("part", marked));
        first.addAll(List.of(placed.run() + " AS " + dialect.quoted(marked.computed().get("run")), placed.part() + " AS " + dialect.quoted(marked.computed().get("part")), placed.place() + " AS " + dialect.quoted(both.row())));
        last.addAll(List.of(steps.row(derived), "2", "0"));
        statement.add(both.name(), "the first rows, and those for all others", "SELECT " + String.join(", ", first) + "\n  FROM " + dialect.quoted(over.name()) + " AS " + dialect.quoted("here") + "\n  WHERE " + placed.part() + " = 0 OR "
                + placed.place() + " <= " + top + "\n  UNION ALL\n  SELECT " + String.join(", ", last) + "\n  FROM " + dialect.quoted(derived.name()) + " AS " + dialect.quoted("here"));
        String order = steps.here(marked.computed().get("run")) + ", " + steps.here(marked.computed().get("part")) + ", " + steps.row(both);
        return statement.ordered(marked, after, statement.asTheyAre(marked), order, "", rank.sentence());
    }

    /** A row for each run that has more than the first rows. */
    private Relation others(Places placed, Rest rest, int top, Schema after) {
        Relation over = placed.rows();
        Map<String, String> cells = new LinkedHashMap<>();
        for (Field field : over.schema().fields()) {
            Kind kind = field.kind();
            String cell = steps.figure(steps.here(over, field.name()), kind);
            cells.put(field.name(), field.name().equals(rest.column()) ? dialect.cast(name(placed, rest), Kind.TEXT) : switch (rest.ways().getOrDefault(field.name(), Rest.Way.MISSING)) {
                case SUM -> over.decimals().contains(field.name()) ? sums.exactSum(steps.key(over, field.name()), "") : sums.sum(cell, "");
                case MEAN -> mean(over, field.name(), cell);
                case LEAST -> steps.truth("MIN(" + cell + ")", kind);
                case GREATEST -> steps.truth("MAX(" + cell + ")", kind);
                case DERIVED, MISSING -> "CAST(NULL AS " + dialect.type(kind) + ")";
            });
        }
        Relation others = statement.relation("others", after).numbered(Relation.Numbering.SORTED);
        List<String> selected = new ArrayList<>();
        others.columns().forEach((column, alias) -> selected.add(cells.get(column) + " AS " + dialect.quoted(alias)));
        Map<String, String> counts = new LinkedHashMap<>();
        rest.ways().forEach((column, way) -> {
            if (!column.equals(rest.column()) && (way == Rest.Way.SUM || way == Rest.Way.MEAN)) {
                steps.count(new Fact.PassedOverInRest(rank, column), "SUM", "COUNT(*) - COUNT(" + steps.here(over, column) + ")", others, counts);
            }
        });
        counts.forEach((alias, cell) -> selected.add(cell + " AS " + dialect.quoted(alias)));
        selected.add(placed.run() + " AS " + dialect.quoted(others.row()));
        String group = rank.anchors().isPresent() ? "\n  GROUP BY " + placed.run() : "";
        statement.add(others.name(), "the row " + rest.name(), "SELECT " + String.join(",\n    ", selected) + "\n  FROM " + dialect.quoted(over.name()) + " AS " + dialect.quoted("here") + "\n  WHERE " + placed.part() + " = 1 AND "
                + placed.place() + " > " + top + group + "\n  HAVING COUNT(*) > 0");
        return others;
    }

    /** Of several rows for others, all but the first are numbered. */
    private String name(Places placed, Rest rest) {
        String name = dialect.text(rest.name());
        String number = "ROW_NUMBER() OVER (ORDER BY " + placed.run() + ")";
        return rank.anchors().isEmpty() ? name : name + " || CASE WHEN " + number + " = 1 THEN '' ELSE ' (' || CAST(" + number + " AS " + dialect.type(Kind.TEXT) + ") || ')' END";
    }

    /** The cells of a row for others that come of its own, each after those that it reads. */
    private Relation derived(Relation others, Rest rest) {
        Relation at = others;
        List<String> open = new ArrayList<>(rest.derived().keySet().stream().filter(column -> rest.ways().get(column) == Rest.Way.DERIVED && !column.equals(rest.column())).toList());
        while (!open.isEmpty()) {
            String next = open.stream().filter(column -> ColumnReferences.columns(rest.derived().get(column)).stream().noneMatch(read -> !read.equals(column) && open.contains(read))).findFirst().orElse(open.get(0));
            open.remove(next);
            SqlSteps.Said said = steps.said(at, rest.derived().get(next), next, rank);
            Map<String, String> columns = statement.asTheyAre(at);
            columns.put(next, said.expression());
            at = statement.projected(said.over(), at.schema(), columns, next + " of the row " + rest.name());
        }
        return at;
    }

    /** The mean of cells, and where they are means themselves, of the cells that those are of. */
    private String mean(Relation over, String column, String cell) {
        String weight = over.weights().get(column);
        if (weight == null) {
            return over.decimals().contains(column) ? sums.exactMean(steps.key(over, column)) : sums.mean(cell);
        }
        String cells = dialect.cast(steps.here(weight), Kind.NUMBER);
        return "(" + sums.sum("(" + cell + " * " + cells + ")", "") + " / NULLIF(" + dialect.cast("SUM(CASE WHEN " + cell + " IS NOT NULL THEN " + steps.here(weight) + " END)", Kind.NUMBER) + ", 0))";
    }
}
