package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.formula.Typing;
import dev.trellisgorge.formula.Window;
import dev.trellisgorge.shape.AddRow;
import dev.trellisgorge.shape.Choose;
import dev.trellisgorge.shape.AddColumn;
import dev.trellisgorge.shape.Join;
import dev.trellisgorge.shape.Keep;
import dev.trellisgorge.shape.Order;
import dev.trellisgorge.shape.PeriodOf;
import dev.trellisgorge.shape.Pivot;
import dev.trellisgorge.shape.Previous;
import dev.trellisgorge.shape.Rank;
import dev.trellisgorge.shape.Rename;
import dev.trellisgorge.shape.Rest;
import dev.trellisgorge.shape.Slice;
import dev.trellisgorge.shape.Step;
import dev.trellisgorge.shape.Top;
import dev.trellisgorge.shape.Total;
import dev.trellisgorge.shape.Unpivot;
import dev.trellisgorge.table.CalendarUnit;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/** Why the outcome of a step stands in a workbook as it was, and not as formulas. */
final class StaticSteps {
    /** Ranks compare each row with each other. */
    private static final int MOST_RANKED = 5_000;
    /** A cell's formula has an end; each column that it reads takes the name of a sheet. */
    private static final int LONGEST = 1_000;
    private static final int MOST_OPERANDS = 60;
    private static final int MOST_TURNED = 30;
    /** Longer texts are not looked up. */
    private static final int LONGEST_KEY = 250;
    private static final double MOST_LOOKUPS = 50e6;
    private static final String TOO_LONG = "it is too long for the formula of a cell";
    private static final String CONDITION = "(?s)\\s*|[=<>].*";
    private static final String SIGNS = "(?s).*[*?~].*";

    private final Settings settings;

    StaticSteps(Settings settings) {
        this.settings = settings;
    }

    /**
     * @param before the rows that the step is taken on
     * @param needed the columns that are read after it
     * @param after  how many rows it leaves
     * @param others the outcome of the other table that the step reads; empty where it reads none
     * @return a reason in words; empty where the step can be formulas
     */
    Optional<String> why(Step step, Table before, Set<String> needed, int after, Optional<Table> others) {
        if (before.rowCount() == 0) {
            return Optional.of("there are no rows");
        } else if (!SheetBounds.fits(before) || others.filter(table -> !SheetBounds.fits(table)).isPresent()) {
            return Optional.of("the rows before it don't fit on a sheet");
        } else if (after + SheetLayout.FIRST > SheetBounds.ROWS) {
            return Optional.of("its rows don't fit on a sheet");
        } else if (before.rowCount() > MOST_RANKED && (step.traits().sorts() || step.formulas().stream().anyMatch(StaticSteps::ranks))) {
            return Optional.of("ranks of more than " + MOST_RANKED + " rows would take a sheet minutes");
        } else if (looksUp(step, before.rowCount(), after, others) > MOST_LOOKUPS) {
            return Optional.of("to look up so many rows would take a sheet minutes");
        } else if (step.formulas().stream().anyMatch(StaticSteps::isLong)) {
            return Optional.of(TOO_LONG);
        }
        return step.match(new Why(before, needed, others));
    }

    /** A reason in what the step itself does. */
    private final class Why implements Step.Cases<Optional<String>> {
        private final Table before;
        private final Set<String> needed;
        private final Optional<Table> others;

        Why(Table before, Set<String> needed, Optional<Table> others) {
            this.before = before;
            this.needed = needed;
            this.others = others;
        }

        @Override
        public Optional<String> addRow(AddRow step) {
            return Optional.empty();
        }

        @Override
        public Optional<String> choose(Choose step) {
            return Optional.empty();
        }

        @Override
        public Optional<String> addColumn(AddColumn step) {
            return Optional.empty();
        }

        @Override
        public Optional<String> join(Join step) {
            return step.many() ? Optional.of("a row may match several")
                    : step.on().entrySet().stream().flatMap(key -> alike(key.getKey(), Stream.concat(texts(before.column(key.getKey())), texts(others.orElseThrow().column(key.getValue())))).stream()).findFirst();
        }

        @Override
        public Optional<String> keep(Keep step) {
            return Optional.empty();
        }

        @Override
        public Optional<String> order(Order step) {
            return notRanked(step.by(), before);
        }

        @Override
        public Optional<String> periodOf(PeriodOf step) {
            return step.fill() ? Optional.of("rows are added for periods that have none") : before.column(step.of()).kind() != Kind.DATE ? Optional.of("periods are made of texts")
                    : step.unit() == CalendarUnit.WEEK ? Optional.of("no format of a sheet writes the week of a date") : Optional.empty();
        }

        @Override
        public Optional<String> pivot(Pivot step) {
            return StaticSteps.pivot(step, before);
        }

        @Override
        public Optional<String> previous(Previous step) {
            return !step.by().isEmpty() ? Optional.of("the row before is looked for within " + String.join(" and ", step.by()))
                    : step.period().isEmpty() && before.column(step.of()).kind() != Kind.NUMBER ? Optional.of(step.of() + " holds no figures") : Optional.empty();
        }

        @Override
        public Optional<String> rank(Rank step) {
            return step.anchors().isPresent() ? Optional.of("some rows stay where they are while others are put in order")
                    : step.order() == Rank.Way.TABLE ? rest(step, needed) : notRanked(step.by(), before).or(() -> rest(step, needed));
        }

        @Override
        public Optional<String> rename(Rename step) {
            return Optional.empty();
        }

        @Override
        public Optional<String> slice(Slice step) {
            return step.cut().stated().size() > MOST_OPERANDS ? Optional.of(TOO_LONG)
                    : step.condition(before.schema(), settings).isPresent() ? Optional.empty() : Optional.of("cells are compared as they are written");
        }

        @Override
        public Optional<String> top(Top step) {
            return Optional.empty();
        }

        @Override
        public Optional<String> total(Total step) {
            return StaticSteps.total(step, before, needed);
        }

        @Override
        public Optional<String> unpivot(Unpivot step) {
            return step.columns().size() > MOST_TURNED ? Optional.of(TOO_LONG) : Optional.empty();
        }
    }

    /** How many cells are compared, about. */
    private static double looksUp(Step step, int before, int after, Optional<Table> others) {
        boolean groups = step instanceof Total total ? !total.by().isEmpty() : step instanceof Pivot;
        return groups ? (double) before * after : others.map(table -> (double) before * table.rowCount()).orElse(0.0);
    }

    private static boolean isLong(Formula formula) {
        return formula.toString().length() > LONGEST || hasMany(formula);
    }

    private static boolean hasMany(Formula formula) {
        return formula.operands().size() > MOST_OPERANDS || formula.operands().stream().anyMatch(StaticSteps::hasMany);
    }

    private static boolean ranks(Formula formula) {
        return formula instanceof Window.Rank || formula.operands().stream().anyMatch(StaticSteps::ranks);
    }

    private Optional<String> notRanked(Formula by, Table before) {
        Kind kind = new Typing(before.schema(), settings).kind(by).orElse(Kind.NUMBER);
        return kind == Kind.NUMBER || kind == Kind.DATE ? Optional.empty() : Optional.of("a sheet ranks figures and dates alone, and " + by.title() + " is " + kind.phrase());
    }

    private static Optional<String> rest(Rank rank, Set<String> needed) {
        return rank.rest().flatMap(row -> row.ways().entrySet().stream().filter(way -> needed.contains(way.getKey()) && !way.getKey().equals(row.column()))
                .filter(way -> way.getValue() == Rest.Way.MEAN || way.getValue() == Rest.Way.LEAST || way.getValue() == Rest.Way.GREATEST)
                .map(way -> "the row " + row.name() + " has the " + way.getValue().name().toLowerCase(Locale.ROOT) + " of " + way.getKey()).findFirst());
    }

    private static Optional<String> total(Total total, Table before, Set<String> needed) {
        for (Total.Figure figure : total.figures()) {
            Column cells = before.column(figure.column());
            boolean whole = IntStream.range(0, before.rowCount()).allMatch(cells::isPresent);
            boolean figures = figure.fold() == Total.Fold.SUM || figure.fold() == Total.Fold.MEAN || figure.fold() == Total.Fold.COUNT && cells.kind() != Kind.TEXT && cells.kind() != Kind.TRUTH;
            boolean extreme = figure.fold() == Total.Fold.LEAST || figure.fold() == Total.Fold.GREATEST;
            if (needed.contains(figure.name()) && !figures && (!whole || extreme && cells.kind() == Kind.TRUTH)) {
                return Optional.of("the " + figure.fold() + " of " + figure.column() + " passes over missing cells");
            }
        }
        return keys(total.by(), before);
    }

    private static Optional<String> pivot(Pivot pivot, Table before) {
        Column values = before.column(pivot.values());
        boolean figures = (values.kind() == Kind.NUMBER || values.kind() == Kind.DATE) && IntStream.range(0, before.rowCount()).allMatch(values::isPresent);
        return !figures ? Optional.of("cells that are missing, or no figures, are turned into columns")
                : before.column(pivot.names()).kind() != Kind.TEXT || pivot.columns().stream().anyMatch(name -> name.matches(CONDITION)) ? Optional.of("names that a sheet would take for conditions become columns")
                : keys(pivot.by(), before).or(() -> alike(pivot.names(), Stream.concat(texts(before.column(pivot.names())), pivot.columns().stream())));
    }

    private static Optional<String> keys(Collection<String> keys, Table before) {
        return keys.stream().flatMap(key -> alike(key, texts(before.column(key))).stream()).findFirst();
    }

    private static Stream<String> texts(Column cells) {
        return cells.kind() != Kind.TEXT ? Stream.empty() : IntStream.range(0, cells.size()).filter(cells::isPresent).mapToObj(cells::written);
    }

    /** Functions of a sheet pass over capitals and take some characters for others. */
    private static Optional<String> alike(String key, Stream<String> cells) {
        List<String> texts = cells.distinct().toList();
        Set<String> alike = new HashSet<>();
        return texts.stream().noneMatch(text -> text.length() > LONGEST_KEY || text.matches(SIGNS)) && texts.stream().allMatch(text -> alike.add(text.toLowerCase(Locale.ROOT).strip())) ? Optional.empty()
                : Optional.of("cells of " + key + " differ by capitals alone, hold *, ? or ~, or are long, which functions of a sheet don't tell apart");
    }
}
