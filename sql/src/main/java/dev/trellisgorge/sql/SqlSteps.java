package dev.trellisgorge.sql;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Textual;
import dev.trellisgorge.formula.Typing;
import dev.trellisgorge.formula.Window;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.shape.AddRow;
import dev.trellisgorge.shape.Choose;
import dev.trellisgorge.shape.AddColumn;
import dev.trellisgorge.shape.Join;
import dev.trellisgorge.shape.Keep;
import dev.trellisgorge.shape.Order;
import dev.trellisgorge.shape.PeriodOf;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.shape.Pivot;
import dev.trellisgorge.shape.Previous;
import dev.trellisgorge.shape.Rank;
import dev.trellisgorge.shape.Rename;
import dev.trellisgorge.shape.Slice;
import dev.trellisgorge.shape.Step;
import dev.trellisgorge.shape.Top;
import dev.trellisgorge.shape.Total;
import dev.trellisgorge.shape.Unpivot;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Schema;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/** Writes pipelines: a common table expression or more for each step. Rows carry their order from one to the next, where they are in any. */
final class SqlSteps {
    private final Statement statement;
    private final Dialect dialect;
    private final List<Fact> facts = new ArrayList<>();
    private Pipeline before;

    SqlSteps(Statement statement) {
        this.statement = statement;
        this.dialect = statement.dialect();
    }

    /** @throws BadInput where the dialect can't say a step */
    Relation rows(Pipeline pipeline) {
        Relation at = raw(pipeline.source());
        for (int i = 0; i < pipeline.parts().size(); i++) {
            before = pipeline.upTo(i);
            at = step(at, pipeline.parts().get(i).step());
        }
        return at;
    }

    /** What the steps count on their way. */
    List<Fact> facts() {
        return facts;
    }

    /** Counts something in a column of its own, of the relation that is made. */
    void count(Fact.Of what, String fold, String cell, Relation made, Map<String, String> counts) {
        if (statement.isTelling()) {
            String alias = "count " + (facts.size() + 1);
            counts.put(alias, cell);
            facts.add(new Fact("(SELECT " + fold + "(" + dialect.quoted(alias) + ") FROM " + dialect.quoted(made.name()) + ")", before, what));
        }
    }

    private Relation raw(String name) {
        TableSource source = statement.source(name);
        Optional<String> number = source.rowsBy();
        Relation made = statement.relation("rows of " + name, source.schema()).numbered(number.isPresent() ? Relation.Numbering.SORTED : Relation.Numbering.NONE).ofDecimals(source.decimals());
        List<String> selected = new ArrayList<>();
        made.columns().forEach((column, alias) -> selected.add((source.decimals().contains(column) ? dialect.quoted(column) : dialect.cast(dialect.quoted(column), source.schema().field(column).kind())) + " AS " + dialect.quoted(alias)));
        number.ifPresent(by -> selected.add(by + " AS " + dialect.quoted(made.row())));
        statement.add(made.name(), "the table " + name, "SELECT " + String.join(",\n    ", selected) + "\n  FROM " + source.from());
        return made;
    }

    /** A cell, as a double where it is a number. */
    String here(Relation of, String column) {
        return of.names(dialect).of("here").column(column);
    }

    /** A cell as the database keeps it, where it is a key. */
    String key(Relation of, String column) {
        return here(of.columns().get(column));
    }

    /** A column of the relation that is read. */
    String here(String alias) {
        return dialect.quoted("here") + "." + dialect.quoted(alias);
    }

    String row(Relation of) {
        return dialect.quoted("here") + "." + dialect.quoted(of.row());
    }

    private static String computed(Dialect dialect, Relation of, String name) {
        return dialect.quoted("here") + "." + dialect.quoted(of.computed().get(name));
    }

    Unsaid refused(Step step, String why) {
        return new Unsaid(Place.of("step '" + step.sentence() + "'"), "isn't supported by the dialect " + dialect + ": " + why);
    }

    private Relation step(Relation over, Step step) {
        return step.match(new Over(over, step.schema(over.schema(), statement.known())));
    }

    /** A step over a relation. */
    private final class Over implements Step.Cases<Relation> {
        private final Relation over;
        private final Schema after;

        Over(Relation over, Schema after) {
            this.over = over;
            this.after = after;
        }

        /** Columns under other names. */
        private Relation chosen(Map<String, String> names, Step step) {
            Map<String, String> columns = new LinkedHashMap<>();
            Map<String, String> before = new LinkedHashMap<>();
            over.columns().keySet().forEach(column -> before.put(names.getOrDefault(column, column), column));
            after.fields().forEach(field -> columns.put(field.name(), key(over, before.get(field.name()))));
            return statement.projected(over, after, columns, step.sentence());
        }

        @Override
        public Relation addRow(AddRow step) {
            return added(over, step, after);
        }

        @Override
        public Relation choose(Choose step) {
            return chosen(Map.of(), step);
        }

        @Override
        public Relation addColumn(AddColumn step) {
            Said said = said(over, step.formula(), step.name(), step);
            Map<String, String> columns = statement.asTheyAre(over);
            columns.put(step.name(), said.expression());
            return statement.projected(said.over(), after, columns, step.sentence());
        }

        @Override
        public Relation join(Join step) {
            return joined(over, step, after);
        }

        @Override
        public Relation keep(Keep step) {
            return filtered(over, step.condition(), step);
        }

        @Override
        public Relation order(Order step) {
            return ordered(over, step.by(), step.descending(), step);
        }

        @Override
        public Relation periodOf(PeriodOf step) {
            return new SqlPeriods(SqlSteps.this, statement).period(over, step, after);
        }

        @Override
        public Relation pivot(Pivot step) {
            return pivoted(over, step, after);
        }

        @Override
        public Relation previous(Previous step) {
            return new SqlPeriods(SqlSteps.this, statement).previous(over, step, after);
        }

        @Override
        public Relation rank(Rank step) {
            return new SqlRank(SqlSteps.this, statement, step).ranked(over);
        }

        @Override
        public Relation rename(Rename step) {
            return chosen(step.names(), step);
        }

        @Override
        public Relation slice(Slice step) {
            Formula condition = step.condition(over.schema(), statement.known().settings()).orElseThrow(() -> refused(step, "the cells are of another kind than what they are to be"));
            return filtered(over, condition, step);
        }

        @Override
        public Relation top(Top step) {
            return first(over, step.rows(), step);
        }

        @Override
        public Relation total(Total step) {
            return totalled(over, step, after);
        }

        @Override
        public Relation unpivot(Unpivot step) {
            return unpivoted(over, step, after);
        }
    }

    /**
     * A formula that a step reads.
     *
     * @param over the relation that the expression is over
     */
    record Said(Relation over, String expression) {
    }

    /** A formula of one row is said where it is read; one that looks at others, or would be long, is computed before. */
    Said said(Relation over, Formula formula, String name, Step step) {
        Typing typing = statement.typing(over.schema());
        if (needsColumns(formula)) {
            Relation made = statement.computed(over, formula, name, step.sentence());
            return new Said(made, computed(dialect, made, name));
        }
        Formula typed = typing.typed(formula);
        return new Said(over, new SqlFormula(dialect, typing, over.names(dialect).of("here"), Place.of("step '" + step.sentence() + "'")).write(typed));
    }

    private static boolean needsColumns(Formula formula) {
        boolean again = Statement.isReadAgain(formula) && formula.operands().stream().anyMatch(operand -> !operand.operands().isEmpty());
        return again || formula instanceof Textual.Text || formula instanceof Textual.Formatted || formula instanceof Window || RowOrder.reads(formula) || formula.operands().stream().anyMatch(SqlSteps::needsColumns);
    }

    private Relation filtered(Relation over, Formula condition, Step step) {
        Said said = said(over, condition, "kept", step);
        return statement.filtered(over, said.over(), said.expression(), step.sentence());
    }

    Relation first(Relation over, int rows, Step step) {
        Relation numbered = statement.numbered(over);
        return statement.filtered(numbered, numbered, row(numbered) + " <= " + rows, step.sentence()).numbered(Relation.Numbering.FROM_ONE);
    }

    Relation ordered(Relation over, Formula by, boolean descending, Step step) {
        Said said = said(over, by, "key", step);
        return statement.ordered(said.over(), over.schema(), statement.asTheyAre(over), dialect.sized(said.expression(), kind(over, by)) + (descending ? " DESC" : "") + " NULLS LAST, " + statement.order(over), "", step.sentence());
    }

    /** Of what kind a formula is over rows; a number where it is absent. */
    Kind kind(Relation over, Formula formula) {
        return statement.typing(over.schema()).kind(formula).orElse(Kind.NUMBER);
    }

    /** A truth as a figure, which can be compared by size. */
    String figure(String cell, Kind kind) {
        return kind == Kind.TRUTH ? "CASE WHEN " + cell + " THEN 1 WHEN NOT " + cell + " THEN 0 END" : cell;
    }

    String truth(String figure, Kind kind) {
        return kind == Kind.TRUTH ? "(" + figure + " = 1)" : figure;
    }

    private Relation totalled(Relation given, Total total, Schema after) {
        boolean placed = total.figures().stream().anyMatch(figure -> figure.fold() == Total.Fold.FIRST || figure.fold() == Total.Fold.LAST);
        Relation over = placed ? statement.numbered(given) : given;
        Map<Total.Figure, String> places = new LinkedHashMap<>();
        Relation at = placed ? placed(over, total, places) : over;
        Map<String, String> columns = new LinkedHashMap<>();
        total.by().forEach(key -> columns.put(key, key(over, key)));
        Relation made = statement.relation("rows", after).ofDecimals(total.by().stream().filter(over.decimals()::contains).collect(Collectors.toSet()));
        Map<String, String> counts = new LinkedHashMap<>();
        SqlSums sums = new SqlSums(dialect);
        for (Total.Figure figure : total.figures()) {
            Kind kind = over.schema().field(figure.column()).kind();
            String cell = figure(here(over, figure.column()), kind);
            columns.put(figure.name(), switch (figure.fold()) {
                case SUM -> over.decimals().contains(figure.column()) ? sums.exactSum(key(over, figure.column()), "") : sums.sum(cell, "");
                case MEAN -> over.decimals().contains(figure.column()) ? sums.exactMean(key(over, figure.column())) : sums.mean(cell);
                case COUNT -> dialect.cast("COUNT(" + cell + ")", Kind.NUMBER);
                case LEAST -> truth("MIN(" + cell + ")", kind);
                case GREATEST -> truth("MAX(" + cell + ")", kind);
                case FIRST, LAST -> truth("MAX(CASE WHEN " + dialect.quoted("here") + "." + dialect.quoted(places.get(figure)) + " = 1 THEN " + cell + " END)", kind);
            });
            if (figure.fold() == Total.Fold.MEAN) {
                String alias = Statement.free("cells of " + figure.name(), made);
                made = made.weighted(figure.name(), alias);
                counts.put(alias, "COUNT(" + cell + ")");
            }
            if (figure.fold() == Total.Fold.SUM || figure.fold() == Total.Fold.MEAN) {
                count(new Fact.PassedOver(figure), "SUM", "COUNT(*) - COUNT(" + cell + ")", made, counts);
            }
        }
        if (total.by().isEmpty()) {
            count(new Fact.RowsOfAll(), "SUM", "COUNT(*)", made, counts);
        }
        List<String> keys = total.by().stream().map(key -> key(over, key)).toList();
        return grouped(made, at, keys, columns, counts, total.sentence());
    }

    private String sized(Relation over, String cell) {
        Optional<Field> field = over.schema().fields().stream().filter(each -> key(over, each.name()).equals(cell)).findFirst();
        return field.map(each -> dialect.sized(cell, each.kind())).orElse(cell);
    }

    /** One row for each key, in the order in which the keys first stand; where the rows are in none in that of the keys. */
    private Relation grouped(Relation made, Relation over, List<String> keys, Map<String, String> columns, Map<String, String> more, String what) {
        List<String> selected = new ArrayList<>();
        made.columns().forEach((column, alias) -> selected.add(columns.get(column) + " AS " + dialect.quoted(alias)));
        more.forEach((alias, cell) -> selected.add(cell + " AS " + dialect.quoted(alias)));
        String order = over.isOrdered() ? "MIN(" + row(over) + ")" : keys.stream().map(key -> sized(over, key) + " NULLS LAST").collect(Collectors.joining(", "));
        selected.add((order.isEmpty() ? "1" : "ROW_NUMBER() OVER (ORDER BY " + order + ")") + " AS " + dialect.quoted(made.row()));
        statement.add(made.name(), what, "SELECT " + String.join(",\n    ", selected) + "\n  FROM " + dialect.quoted(over.name()) + " AS " + dialect.quoted("here") + (keys.isEmpty() ? "" : "\n  GROUP BY " + String.join(", ", keys)));
        return made;
    }

    /** Numbers the rows of each key from the first or the last one that has a cell. */
    private Relation placed(Relation over, Total total, Map<Total.Figure, String> places) {
        Relation at = over;
        List<String> numbered = new ArrayList<>();
        String keys = total.by().stream().map(key -> key(over, key)).collect(Collectors.joining(", "));
        for (Total.Figure figure : total.figures()) {
            if (figure.fold() == Total.Fold.FIRST || figure.fold() == Total.Fold.LAST) {
                String alias = Statement.free("place of " + figure.name(), at);
                at = at.with(alias, alias);
                numbered.add("ROW_NUMBER() OVER (" + (keys.isEmpty() ? "" : "PARTITION BY " + keys + " ") + "ORDER BY CASE WHEN " + here(over, figure.column()) + " IS NULL THEN 1 ELSE 0 END, " + row(over)
                        + (figure.fold() == Total.Fold.LAST ? " DESC" : "") + ") AS " + dialect.quoted(alias));
                places.put(figure, alias);
            }
        }
        Relation placed = at.named(statement.free("rows"));
        statement.add(placed.name(), "number the rows of each key", "SELECT " + dialect.quoted("here") + ".*,\n    " + String.join(",\n    ", numbered) + "\n  FROM " + dialect.quoted(over.name()) + " AS " + dialect.quoted("here"));
        return placed;
    }

    private Relation unpivoted(Relation given, Unpivot unpivot, Schema after) {
        Relation over = given.isOrdered() ? statement.numbered(given) : given;
        Set<String> decimals = over.decimals().stream().filter(after.columnNames()::contains).collect(Collectors.toCollection(HashSet::new));
        if (over.decimals().containsAll(unpivot.columns())) {
            decimals.add(unpivot.values());
        }
        Relation made = statement.relation("rows", after).numbered(over.isOrdered() ? Relation.Numbering.FROM_ONE : Relation.Numbering.NONE).ofDecimals(decimals);
        List<String> parts = new ArrayList<>();
        for (int i = 0; i < unpivot.columns().size(); i++) {
            List<String> selected = new ArrayList<>();
            for (Map.Entry<String, String> column : made.columns().entrySet()) {
                String read = column.getKey().equals(unpivot.values()) ? unpivot.columns().get(i) : column.getKey();
                String cell = column.getKey().equals(unpivot.names()) ? dialect.cast(dialect.text(unpivot.columns().get(i)), Kind.TEXT) : decimals.contains(column.getKey()) ? key(over, read) : here(over, read);
                selected.add(cell + " AS " + dialect.quoted(column.getValue()));
            }
            if (over.isOrdered()) {
                selected.add("(" + row(over) + " - 1) * " + unpivot.columns().size() + " + " + (i + 1) + " AS " + dialect.quoted(made.row()));
            }
            parts.add("SELECT " + String.join(", ", selected) + "\n  FROM " + dialect.quoted(over.name()) + " AS " + dialect.quoted("here"));
        }
        statement.add(made.name(), unpivot.sentence(), String.join("\n  UNION ALL\n  ", parts));
        return made;
    }

    private Relation joined(Relation over, Join join, Schema after) {
        Relation there = join.many() && over.isOrdered() ? statement.numbered(rows(join.other())) : rows(join.other());
        String other = dialect.quoted("there") + ".";
        Map<String, String> columns = statement.asTheyAre(over);
        after.fields().stream().map(Field::name).filter(name -> !columns.containsKey(name)).forEach(name -> columns.put(name, other + dialect.quoted(there.columns().get(name))));
        String on = join.on().entrySet().stream().map(key -> same(over, key.getKey(), there, key.getValue())).collect(Collectors.joining(" AND "));
        Set<String> decimals = there.decimals().stream().filter(name -> !over.columns().containsKey(name)).collect(Collectors.toSet());
        String both = "\n  " + (join.way() == Join.Way.LEFT ? "LEFT" : "INNER") + " JOIN " + dialect.quoted(there.name()) + " AS " + dialect.quoted("there") + " ON " + on;
        if (join.many() && over.isOrdered()) {
            return statement.projected(over, after, columns, decimals, Relation.Numbering.FROM_ONE, Statement.numberedBy(row(over) + ", " + other + dialect.quoted(there.row())), both, join.sentence());
        }
        boolean all = over.numbering() == Relation.Numbering.FROM_ONE && join.way() == Join.Way.LEFT;
        return statement.projected(over, after, columns, decimals, all ? over.numbering() : over.isOrdered() ? Relation.Numbering.SORTED : Relation.Numbering.NONE, row(over), both, join.sentence());
    }

    /** Two keys that are decimal numbers are compared as such; if one of them is not, both are as doubles. */
    private String same(Relation over, String key, Relation there, String other) {
        boolean decimal = over.decimals().contains(key) && there.decimals().contains(other);
        return (decimal ? key(over, key) : here(over, key)) + " = " + (decimal ? dialect.quoted("there") + "." + dialect.quoted(there.columns().get(other)) : there.names(dialect).of("there").column(other));
    }

    private Relation pivoted(Relation over, Pivot pivot, Schema after) {
        Kind kind = over.schema().field(pivot.values()).kind();
        if (over.schema().field(pivot.names()).kind() != Kind.TEXT) {
            throw refused(pivot, "names that become columns are texts there");
        }
        Map<String, String> columns = new LinkedHashMap<>();
        pivot.by().forEach(key -> columns.put(key, key(over, key)));
        pivot.columns().forEach(column -> columns.put(column, truth("MAX(CASE WHEN " + here(over, pivot.names()) + " = " + dialect.text(column) + " THEN " + figure(here(over, pivot.values()), kind) + " END)", kind)));
        Relation made = statement.relation("rows", after).ofDecimals(pivot.by().stream().filter(over.decimals()::contains).collect(Collectors.toSet()));
        Map<String, String> counts = new LinkedHashMap<>();
        for (String column : pivot.columns()) {
            count(new Fact.RowsOfCell(pivot), "MAX", "COUNT(CASE WHEN " + here(over, pivot.names()) + " = " + dialect.text(column) + " THEN 1 END)", made, counts);
        }
        return grouped(made, over, pivot.by().stream().map(key -> key(over, key)).toList(), columns, counts, pivot.sentence());
    }

    /** A cell as text, beside a name that a row is given. @throws Unsaid where it is a number */
    String written(String cell, Kind kind, Step step) {
        return switch (kind) {
            case TEXT -> cell;
            case DATE -> dialect.cast(cell, Kind.TEXT);
            case TRUTH -> "CASE WHEN " + cell + " THEN 'true' WHEN NOT " + cell + " THEN 'false' END";
            case NUMBER -> throw refused(step, "databases don't agree on how a number is written, which stands beside the name of a row");
        };
    }

    private Relation added(Relation given, AddRow added, Schema after) {
        Relation over = statement.numbered(given);
        Relation made = statement.relation("rows", after);
        Kind before = over.schema().field(added.column()).kind();
        List<String> rows = new ArrayList<>();
        List<String> own = new ArrayList<>();
        made.columns().forEach((column, alias) -> {
            Kind kind = after.field(column).kind();
            rows.add((column.equals(added.column()) ? written(here(over, column), before, added) : here(over, column)) + " AS " + dialect.quoted(alias));
            own.add((column.equals(added.column()) ? dialect.cast(dialect.text(added.name()), kind) : "CAST(NULL AS " + dialect.type(kind) + ")") + " AS " + dialect.quoted(alias));
        });
        rows.add(row(over) + (added.first() ? " + 1" : "") + " AS " + dialect.quoted(made.row()));
        own.add(added.first() ? "1" : "(SELECT COUNT(*) + 1 FROM " + dialect.quoted(over.name()) + ")");
        statement.add(made.name(), added.sentence(), "SELECT " + String.join(", ", rows) + "\n  FROM " + dialect.quoted(over.name()) + " AS " + dialect.quoted("here") + "\n  UNION ALL\n  SELECT " + String.join(", ", own));
        return made;
    }
}
