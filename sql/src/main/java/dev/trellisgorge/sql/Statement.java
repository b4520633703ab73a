package dev.trellisgorge.sql;

import dev.trellisgorge.formula.Calendar;
import dev.trellisgorge.formula.Condition;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.Leaf;
import dev.trellisgorge.formula.Numeric;
import dev.trellisgorge.formula.Stages;
import dev.trellisgorge.formula.Textual;
import dev.trellisgorge.formula.Typing;
import dev.trellisgorge.formula.Window;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.shape.Catalog;
import dev.trellisgorge.sql.Relation.Numbering;
import dev.trellisgorge.table.FreeName;
import dev.trellisgorge.table.Schema;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;

/** A statement while it is put together: a chain of common table expressions. Used by one thread. */
final class Statement {
    /** The expression that holds the settings, in one row. */
    static final String SETTINGS = "settings";
    /** Databases cut longer names short. */
    private static final int LONGEST = 60;
    private static final int LINE = 160;
    static final Stages.Grain GRAIN = new Stages.Grain(4, 200, (node, kind) -> isReadAgain(node));

    private final Dialect dialect;
    private final Catalog known;
    private final Map<String, TableSource> sources;
    private final boolean telling;
    private final List<String> expressions = new ArrayList<>();
    private final Set<String> names = new HashSet<>();

    /** @param telling whether counts of what is reported go along */
    Statement(Dialect dialect, Catalog known, Map<String, TableSource> sources, boolean telling) {
        this.telling = telling;
        this.dialect = dialect;
        this.known = known;
        this.sources = sources;
        names.add(SETTINGS);
        known.sources().keySet().forEach(source -> names.add(source.toLowerCase(Locale.ROOT)));
    }

    /** Whether the operands of a node are written several times: nested, they would double at each level. */
    static boolean isReadAgain(Formula node) {
        return node instanceof Numeric.Extreme || node instanceof Numeric.Round || node instanceof Textual.Repeat || node instanceof Textual.Text || node instanceof Textual.Formatted || node instanceof Condition.In || node instanceof Calendar || isSum(node);
    }

    private static boolean isSum(Formula node) {
        return node instanceof Window.Cumulative || node instanceof Window.Aggregate aggregate && aggregate.fold() == Window.Fold.SUM;
    }

    Dialect dialect() {
        return dialect;
    }

    Catalog known() {
        return known;
    }

    boolean isTelling() {
        return telling;
    }

    TableSource source(String name) {
        return sources.get(name);
    }

    /** A name that no other expression has, whatever databases make of upper and lower case. */
    String free(String wanted) {
        return free(wanted, names);
    }

    private static String free(String wanted, Set<String> taken) {
        String name = FreeName.of(cut(wanted), known -> taken.contains(known.toLowerCase(Locale.ROOT)));
        taken.add(name.toLowerCase(Locale.ROOT));
        return name;
    }

    private static String cut(String name) {
        String cut = name;
        while (cut.getBytes(StandardCharsets.UTF_8).length > LONGEST - 4) {
            cut = cut.substring(0, cut.offsetByCodePoints(cut.length(), -1));
        }
        return cut;
    }

    /** A name that no column of a relation has. */
    static String free(String wanted, Relation of) {
        return free(wanted, of.taken());
    }

    /** Adds an expression. @param what it does, in words */
    void add(String name, String what, String select) {
        add(name, what, select, "");
    }

    /** @param computed how a dialect says that it is computed on its own, once */
    private void add(String name, String what, String select, String computed) {
        String said = what.replaceAll("[\\p{Cntrl}\\u2028\\u2029]", " ");
        expressions.add("-- " + (said.length() > LINE ? said.substring(0, said.offsetByCodePoints(LINE, 0)) + "…" : said) + "\n" + dialect.quoted(name) + " AS " + computed + "(\n  " + select + "\n)");
    }

    /** A relation of a schema's columns, under names of their own. */
    Relation relation(String name, Schema schema) {
        Set<String> taken = new HashSet<>();
        Map<String, String> columns = new LinkedHashMap<>();
        schema.fields().forEach(field -> columns.put(field.name(), free(field.name(), taken)));
        return new Relation(free(name), schema, columns, Map.of(), Map.of(), Map.of(), Set.of(), free("row", taken), Numbering.FROM_ONE);
    }

    /** Formulas over a relation, each as a computed column; what only serves them is computed too. */
    Relation computed(Relation over, Map<String, Formula> formulas, Typing typing, String what) {
        Relation at = formulas.values().stream().anyMatch(RowOrder::reads) ? numbered(over) : over;
        Stages stages = Stages.of(formulas, formulas.keySet(), typing, GRAIN);
        for (Stages.Stage stage : stages.all()) {
            at = stage(aided(at, stage, typing), stage, typing, what);
        }
        return at;
    }

    private Relation stage(Relation over, Stages.Stage stage, Typing typing, String what) {
        Relation made = over;
        List<String> selected = new ArrayList<>();
        for (Stages.StageColumn column : stage.columns()) {
            String alias = free(column.name(), made);
            SqlFormula writer = new SqlFormula(dialect, typing, over.names(dialect), Place.of("column '" + column.name() + "'"));
            selected.add(writer.write(column.formula()) + " AS " + dialect.quoted(alias));
            made = made.with(column.name(), alias);
        }
        String wanted = stage.columns().stream().filter(Stages.StageColumn::wanted).map(Stages.StageColumn::name).collect(Collectors.joining(", "));
        return select(made, over, selected, what + (wanted.isEmpty() ? ", in between" : ": " + wanted));
    }

    /** What the formulas of a stage read besides columns. */
    private Relation aided(Relation over, Stages.Stage stage, Typing typing) {
        return rounded(digits(parts(over, stage, typing), stage, typing), stage, typing);
    }

    /** Figures without their signs, as their patterns round them. */
    private Relation rounded(Relation over, Stages.Stage stage, Typing typing) {
        Set<Relation.Aid.Rounded> figures = new LinkedHashSet<>();
        stage.columns().forEach(column -> WrittenFigures.read(column.formula(), typing, figures));
        figures.removeAll(over.aids().keySet());
        SqlFormula writer = writer(over, stage, typing);
        Map<Relation.Aid, String> texts = new LinkedHashMap<>();
        figures.forEach(figure -> texts.put(figure, new WrittenFigures(dialect).rounded(writer.write(figure.figure()), figure)));
        return texts.isEmpty() ? over : aided(over, texts, "round figures for their texts");
    }

    private SqlFormula writer(Relation over, Stages.Stage stage, Typing typing) {
        return new SqlFormula(dialect, typing, over.names(dialect), Place.of("column '" + stage.columns().get(0).name() + "'"));
    }

    private Relation digits(Relation over, Stages.Stage stage, Typing typing) {
        Set<Formula> figures = new LinkedHashSet<>();
        Set<Relation.Aid.Mantissa> mantissas = new LinkedHashSet<>();
        stage.columns().forEach(column -> WrittenDigits.read(column.formula(), typing, figures, mantissas));
        figures.removeIf(figure -> over.aids().containsKey(new Relation.Aid.Digits(figure)));
        mantissas.removeAll(over.aids().keySet());
        Map<Formula, String> expressions = new LinkedHashMap<>();
        SqlFormula writer = writer(over, stage, typing);
        figures.forEach(figure -> expressions.put(figure, writer.write(figure)));
        Relation made = figures.isEmpty() ? over : new WrittenDigits.Columns(this, over).of(expressions);
        return mantissas.isEmpty() ? made : new WrittenDigits.Columns(this, made).of(mantissas);
    }

    /** Running sums that start anew are sums of parts, which are numbered before. */
    private Relation parts(Relation over, Stages.Stage stage, Typing typing) {
        Map<Relation.Aid, String> numbers = new LinkedHashMap<>();
        for (Stages.StageColumn column : stage.columns()) {
            if (column.formula() instanceof Window.Cumulative sum && !(sum.restart() instanceof Leaf.Absent)) {
                SqlFormula writer = new SqlFormula(dialect, typing, over.names(dialect), Place.of("column '" + column.name() + "'"));
                numbers.put(new Relation.Aid.Part(sum), "SUM(CASE WHEN " + writer.write(sum.restart()) + " THEN 1 ELSE 0 END) OVER (ORDER BY " + over.names(dialect).row() + " ROWS UNBOUNDED PRECEDING)");
            }
        }
        return numbers.isEmpty() ? over : aided(over, numbers, "number the parts between restarts");
    }

    /** The same rows with more columns, which only serve formulas, but many times each. */
    Relation aided(Relation over, Map<Relation.Aid, String> expressions, String what) {
        Relation made = over;
        List<String> selected = new ArrayList<>();
        for (Map.Entry<Relation.Aid, String> each : expressions.entrySet()) {
            String alias = free(each.getKey().called(), made);
            selected.add(each.getValue() + " AS " + dialect.quoted(alias));
            made = made.with(each.getKey(), alias);
        }
        return select(made, over, selected, what, dialect.computedOnce());
    }

    private Relation select(Relation made, Relation over, List<String> selected, String what) {
        return select(made, over, selected, what, "");
    }

    private Relation select(Relation made, Relation over, List<String> selected, String what, String computed) {
        Relation named = made.named(free("columns"));
        add(named.name(), what, "SELECT " + dialect.quoted("here") + ".*,\n    " + String.join(",\n    ", selected) + "\n  FROM " + dialect.quoted(over.name()) + " AS " + dialect.quoted("here"), computed);
        return named;
    }

    /** Columns of its own alone, numbered from 1 in an order. */
    Relation ordered(Relation over, Schema schema, Map<String, String> expressions, String order, String more, String what) {
        return projected(over, schema, expressions, Numbering.FROM_ONE, numberedBy(order), more, what);
    }

    static String numberedBy(String order) {
        return "ROW_NUMBER() OVER (ORDER BY " + order + ")";
    }

    /** Columns of its own alone, each on its row. */
    Relation projected(Relation over, Schema schema, Map<String, String> expressions, String what) {
        return projected(over, schema, expressions, over.numbering(), here(over.row()), "", what);
    }

    /** The same columns of some of the rows. */
    Relation filtered(Relation over, Relation from, String condition, String what) {
        return projected(from, over.schema(), asTheyAre(over), from.isOrdered() ? Numbering.SORTED : Numbering.NONE, here(from.row()), "\n  WHERE " + condition, what);
    }

    /** @param row what the row column says, where the rows are in an order */
    Relation projected(Relation over, Schema schema, Map<String, String> expressions, Numbering numbering, String row, String more, String what) {
        return projected(over, schema, expressions, Set.of(), numbering, row, more, what);
    }

    /** @param decimals columns that are decimal numbers of another relation's; those of the one that is read are known */
    Relation projected(Relation over, Schema schema, Map<String, String> expressions, Set<String> decimals, Numbering numbering, String row, String more, String what) {
        Set<String> read = over.decimals().stream().map(column -> here(over.columns().get(column))).collect(Collectors.toSet());
        Set<String> kept = schema.columnNames().stream().filter(column -> decimals.contains(column) || read.contains(expressions.get(column))).collect(Collectors.toSet());
        Relation made = relation("rows", schema).numbered(numbering).ofDecimals(kept);
        List<String> selected = new ArrayList<>();
        made.columns().forEach((column, alias) -> selected.add(expressions.get(column) + " AS " + dialect.quoted(alias)));
        for (Map.Entry<String, String> weight : over.weights().entrySet()) {
            String cell = here(over.columns().get(weight.getKey()));
            for (String column : schema.columnNames()) {
                if (cell.equals(expressions.get(column))) {
                    made = made.weighted(column, free("cells of " + column, made));
                    selected.add(here(weight.getValue()) + " AS " + dialect.quoted(made.weights().get(column)));
                }
            }
        }
        if (numbering != Numbering.NONE) {
            selected.add(row + " AS " + dialect.quoted(made.row()));
        }
        add(made.name(), what, "SELECT " + String.join(",\n    ", selected) + "\n  FROM " + dialect.quoted(over.name()) + " AS " + dialect.quoted("here") + more);
        return made;
    }

    /** The same rows numbered from 1; those that are in no order in that of all their cells, from the left. */
    Relation numbered(Relation over) {
        return over.numbering() == Numbering.FROM_ONE ? over : ordered(over, over.schema(), asTheyAre(over), order(over), "", "number the rows");
    }

    /** What rows are sorted by. */
    String order(Relation over) {
        return over.isOrdered() ? here(over.row()) : over.schema().fields().stream().map(field -> dialect.sized(here(over.columns().get(field.name())), field.kind()) + " NULLS LAST").collect(Collectors.joining(", "));
    }

    private String here(String alias) {
        return dialect.quoted("here") + "." + dialect.quoted(alias);
    }

    /** The same rows with more columns, as computed ones. @param expressions by the names that they are asked for by */
    Relation more(Relation over, Map<String, String> expressions, String what) {
        Relation made = over;
        List<String> selected = new ArrayList<>();
        for (Map.Entry<String, String> each : expressions.entrySet()) {
            String alias = free(each.getKey(), made);
            selected.add(each.getValue() + " AS " + dialect.quoted(alias));
            made = made.with(each.getKey(), alias);
        }
        return select(made, over, selected, what);
    }

    /** The columns of a relation as they are, decimal numbers too. */
    Map<String, String> asTheyAre(Relation over) {
        Map<String, String> all = new LinkedHashMap<>();
        over.columns().forEach((column, alias) -> all.put(column, here(alias)));
        return all;
    }

    Typing typing(Schema schema) {
        return new Typing(schema, known.settings());
    }

    /** One formula over a relation. */
    Relation computed(Relation over, Formula formula, String name, String what) {
        return computed(over, Map.of(name, formula), typing(over.schema()), what);
    }

    /** All of it, before what is selected at last. @param settings one row of the settings' cells */
    String with(String settings) {
        List<String> all = new ArrayList<>();
        if (!settings.isEmpty()) {
            all.add("-- the settings\n" + dialect.quoted(SETTINGS) + " AS (\n  " + settings + "\n)");
        }
        all.addAll(expressions);
        return "WITH\n" + String.join(",\n", all) + "\n";
    }
}
