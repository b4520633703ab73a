package dev.trellisgorge.shape;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Leaf;
import dev.trellisgorge.formula.ColumnReferences;
import dev.trellisgorge.shape.Total.Fold;
import dev.trellisgorge.table.Schema;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** Where the columns of a pipeline come from: what a row that stands for several others has to know. Thread-safe. */
public final class Lineage {
    private final Map<String, Origin> origins;

    /** How a column's cells came to be. */
    sealed interface Origin {

        /** They stand in a raw table. */
        record Given() implements Origin {
        }

        /** They are made of several raw cells. */
        record Folded(Fold fold) implements Origin {
        }

        /** They are worked out from the row's other cells. */
        record Derived(Formula formula) implements Origin {
        }

        /** Neither: a name, a period, a cell of another row's ratio. */
        record Other() implements Origin {
        }
    }

    private Lineage(Map<String, Origin> origins) {
        this.origins = origins;
    }

    /** Of a pipeline's outcome. Errors as for its schema. */
    public static Lineage of(Pipeline pipeline, Catalog known) {
        Map<String, Origin> origins = new LinkedHashMap<>();
        Schema schema = known.source(pipeline.source());
        schema.columnNames().forEach(name -> origins.put(name, new Origin.Given()));
        for (Step step : pipeline.steps()) {
            Schema after = step.schema(schema, known);
            Map<String, Origin> next = new LinkedHashMap<>();
            Schema before = schema;
            after.columnNames().forEach(name -> next.put(name, step.match(new After(name, before, origins, known))));
            origins.clear();
            origins.putAll(next);
            schema = after;
        }
        origins.replaceAll((name, origin) -> origin instanceof Origin.Derived derived && !origins.keySet().containsAll(ColumnReferences.columns(derived.formula())) ? new Origin.Other() : origin);
        return new Lineage(origins);
    }

    /**
     * What a column of a step's outcome is.
     *
     * @param before  the columns before the step
     * @param origins theirs
     */
    private record After(String name, Schema before, Map<String, Origin> origins, Catalog known) implements Step.Cases<Origin> {

        private Origin same() {
            return origins.getOrDefault(name, new Origin.Other());
        }

        @Override
        public Origin addRow(AddRow step) {
            return same();
        }

        @Override
        public Origin choose(Choose step) {
            return same();
        }

        @Override
        public Origin addColumn(AddColumn step) {
            return step.name().equals(name) ? new Origin.Derived(step.formula()) : same();
        }

        @Override
        public Origin join(Join step) {
            return before.has(name) ? same() : of(step.other(), known).origins.getOrDefault(name, new Origin.Other());
        }

        @Override
        public Origin keep(Keep step) {
            return same();
        }

        @Override
        public Origin order(Order step) {
            return same();
        }

        @Override
        public Origin periodOf(PeriodOf step) {
            return same();
        }

        @Override
        public Origin pivot(Pivot step) {
            return step.by().contains(name) ? same() : notDerived(origins.get(step.values()));
        }

        @Override
        public Origin previous(Previous step) {
            return step.name().equals(name) ? notDerived(origins.get(step.of())) : same();
        }

        @Override
        public Origin rank(Rank step) {
            return same();
        }

        @Override
        public Origin rename(Rename step) {
            String old = step.names().entrySet().stream().filter(each -> each.getValue().equals(name)).map(Map.Entry::getKey).findFirst().orElse(name);
            Origin origin = origins.getOrDefault(old, new Origin.Other());
            return origin instanceof Origin.Derived derived ? new Origin.Derived(renamed(derived.formula(), step.names())) : origin;
        }

        @Override
        public Origin slice(Slice step) {
            return same();
        }

        @Override
        public Origin top(Top step) {
            return same();
        }

        @Override
        public Origin total(Total step) {
            return step.figures().stream().filter(figure -> figure.name().equals(name)).findFirst()
                    .<Origin>map(figure -> new Origin.Folded(figure.fold())).orElse(new Origin.Given());
        }

        @Override
        public Origin unpivot(Unpivot step) {
            return step.values().equals(name) ? notDerived(origins.get(step.columns().get(0))) : same();
        }
    }

    private static Origin notDerived(Origin origin) {
        return origin == null || origin instanceof Origin.Derived ? new Origin.Other() : origin;
    }

    /** A formula over columns that got other names. */
    static Formula renamed(Formula formula, Map<String, String> names) {
        if (formula instanceof Leaf.Column column) {
            return names.containsKey(column.name()) ? new Leaf.Column(names.get(column.name())) : column;
        }
        return formula.operands().isEmpty() ? formula : formula.rebuilt(formula.operands().stream().map(operand -> renamed(operand, names)).toList());
    }

    Origin of(String column) {
        return origins.getOrDefault(column, new Origin.Other());
    }

    /** The formula by which a column was derived; empty where it was not. */
    public Map<String, Formula> derived() {
        Map<String, Formula> derived = new LinkedHashMap<>();
        origins.forEach((name, origin) -> {
            if (origin instanceof Origin.Derived made) {
                derived.put(name, made.formula());
            }
        });
        return derived;
    }

    /** Columns and all that their formulas read, each after what it reads. */
    public Set<String> closure(Set<String> columns) {
        Set<String> all = new HashSet<>();
        columns.forEach(column -> close(column, all));
        return all;
    }

    private void close(String column, Set<String> all) {
        if (all.add(column) && of(column) instanceof Origin.Derived derived) {
            ColumnReferences.columns(derived.formula()).forEach(read -> close(read, all));
        }
    }

    /** A formula in which each derived column stands as what it was derived from. */
    public Formula expanded(Formula formula) {
        if (formula instanceof Leaf.Column column) {
            return of(column.name()) instanceof Origin.Derived derived ? expanded(derived.formula()) : formula;
        }
        return formula.operands().isEmpty() ? formula : formula.rebuilt(formula.operands().stream().map(this::expanded).toList());
    }

    /**
     * How each column's cell is made in a row that stands for several others.
     *
     * @param schema  the columns
     * @param amounts raw columns of amounts, which may be added up
     */
    public Map<String, Rest.Way> ways(Schema schema, Set<String> amounts) {
        Map<String, Rest.Way> ways = new LinkedHashMap<>();
        schema.fields().forEach(field -> {
            Origin origin = of(field.name());
            boolean number = field.kind() == dev.trellisgorge.table.Kind.NUMBER;
            Rest.Way way = Rest.Way.MISSING;
            if (number && origin instanceof Origin.Given && amounts.contains(field.name())) {
                way = Rest.Way.SUM;
            } else if (number && origin instanceof Origin.Folded folded) {
                way = switch (folded.fold()) {
                    case SUM, COUNT -> Rest.Way.SUM;
                    case MEAN -> Rest.Way.MEAN;
                    case LEAST -> Rest.Way.LEAST;
                    case GREATEST -> Rest.Way.GREATEST;
                    case FIRST, LAST -> Rest.Way.MISSING;
                };
            } else if (origin instanceof Origin.Derived derived && !readsOtherRows(derived.formula())) {
                way = Rest.Way.DERIVED;
            }
            ways.put(field.name(), way);
        });
        return ways;
    }

    private static boolean readsOtherRows(Formula formula) {
        return formula instanceof dev.trellisgorge.formula.Window || formula instanceof Leaf.RowNumber || formula.operands().stream().anyMatch(Lineage::readsOtherRows);
    }

    /** The derived columns in an order in which each stands after the ones that it reads. */
    static List<String> inOrder(Map<String, Formula> derived) {
        List<String> order = new ArrayList<>();
        Map<String, Boolean> seen = new HashMap<>();
        derived.keySet().forEach(name -> place(name, derived, seen, order));
        return order;
    }

    private static void place(String name, Map<String, Formula> derived, Map<String, Boolean> seen, List<String> order) {
        if (derived.containsKey(name) && seen.put(name, true) == null) {
            ColumnReferences.columns(derived.get(name)).forEach(read -> place(read, derived, seen, order));
            order.add(name);
        }
    }
}
