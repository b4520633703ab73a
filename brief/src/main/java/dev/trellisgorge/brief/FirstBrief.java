package dev.trellisgorge.brief;

import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Key.Takes;
import dev.trellisgorge.pattern.Key;
import dev.trellisgorge.pattern.PatternType;
import dev.trellisgorge.pattern.Patterns;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.shape.Slice;
import dev.trellisgorge.shape.Unpivot;
import dev.trellisgorge.table.CalendarUnit;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Numbers;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.Found;
import java.time.Month;
import java.time.format.TextStyle;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/**
 * A first brief for a table, with comments that say what was chosen and what else there is: the category is the first column of texts, of dates or of years; a
 * column that is called a target, a plan or a limit is that, and never the figure itself; months that stand beside each other are turned to rows; where a category
 * stands on several rows a slice keeps one of each, or else they are totalled; a pattern of two sides takes a column with both signs, and shares are written as such.
 */
public final class FirstBrief {
    private static final int MOST_TRIES = 100;
    private static final int LEAST_WIDE = 3;
    private static final Pattern TARGET = Pattern.compile("(?iu).*(target|goal|plan|budget|limit|licen[cs]e|forecast|quota|soll|ziel|grenze|objecti[fv]|cible|pr[ée]vu|presupuesto|meta|obiettivo|baseline|benchmark|allow(ed|ance)|permitted|expected|scheduled|quota|vorjahr|vorperiode|vormonat|prior|previous|last year|norm(al)?).*");
    /** What a figure is called that stands beside a target, whatever else its name says. */
    private static final Pattern ACTUAL = Pattern.compile("(?iu)(.*[^\\p{L}])?(actuals?|reading|measured|emitted|ist|aktuell|r[ée]el|r[ée]alis[ée]|real|effettivo|this year|current)([^\\p{L}].*)?");
    /** Numbers that name or count rows, and are no amounts. */
    private static final Pattern INDEX_NAME = Pattern.compile("(?iu)(hour|stunde|heure|hora|ora|minute|week|woche|semaine|semana|weekday|day|tag|jour|d[ií]a|giorno|month|monat|mois|mes|id|no\\.?|nr\\.?|number|nummer|index|row|line|rank|rang|code|key|zip|plz|.*[ _-](id|no|nr|code|key))");
    private static final Pattern YEAR_NAME = Pattern.compile("(?iu)(year|jahr|ann[ée]e|a[ñn]o|anno)");
    private static final Pattern SHARE_NAME = Pattern.compile("(?iu).*(share|ratio|rate|percent|anteil|quote|prozent|part|taux|pourcent|tasa|porcentaje|percentuale|%).*");
    private static final Pattern YEAR_COLUMN = Pattern.compile("(?:.*\\D)?((?:19|20|21)\\d\\d)(?:\\D.*)?");
    private static final Pattern LOW = Pattern.compile("(?iu)(.*[^\\p{L}])?(lowest|low|least|minimum|min|from|start|begin|von|d[ée]but|desde|tiefst\\p{L}*)([^\\p{L}].*)?");
    private static final Pattern HIGH = Pattern.compile("(?iu)(.*[^\\p{L}])?(highest|high|most|maximum|max|to|end|bis|fin|hasta|h[öo]chst\\p{L}*)([^\\p{L}].*)?");
    private static final Set<String> SIGNED = Set.of("diverging", "breakdown", "waterfall");
    private static final Set<String> KINDS = Set.of("start", "change", "subtotal", "total");
    private static final Set<String> FOR_TARGETS = Set.of("target", "points", "against");

    private final PatternType type;
    private final Table raw;
    private final Table table;
    private final Optional<Unpivot> turned;
    private final Found found;
    private final List<String> comments = new ArrayList<>();
    private List<String> drawn = List.of();
    private String category = "";

    private FirstBrief(PatternType type, Found found) {
        this.type = type;
        this.found = found;
        this.raw = found.table();
        this.turned = wide(raw);
        this.table = turned.map(step -> Executor.over(raw, Settings.NONE).run(Pipeline.of(raw.name()).then(step))).orElse(raw);
    }

    /**
     * @param found the table, and how its file is to be read
     * @param data  how the brief is to name the file
     * @return a brief that runs as it stands
     * @throws BadInput where the table has too few columns of the kinds that the pattern needs, no slice has each
     *                  category once, or the pattern can't show the figures in any order of the columns
     */
    public static String of(PatternType type, Found found, String data) {
        return new FirstBrief(type, found).running(data);
    }

    private String running(String data) {
        Optional<BadInput> refused = Optional.empty();
        for (List<Column> order : orders(figures())) {
            String text = text(data, order);
            try {
                Brief brief = new BriefReader(text, raw).read();
                brief.compute(brief.charts());
                return text;
            } catch (BadInput e) {
                refused = refused.or(() -> Optional.of(e));
            }
        }
        throw refused.orElseThrow();
    }

    /** The patterns for which there is a first brief of a table, in their own order, each with a line that says what it would show. */
    public static Map<PatternType, String> suiting(Found found) {
        Map<PatternType, String> suiting = new LinkedHashMap<>();
        for (PatternType type : Patterns.all()) {
            FirstBrief first = new FirstBrief(type, found);
            try {
                if (!first.isMeant()) {
                    continue;
                }
                first.running("data");
                suiting.put(type, type.purpose() + ": " + String.join(", ", first.drawn) + (first.category.isEmpty() ? "" : " by " + first.category));
            } catch (BadInput unfit) {
                continue;
            }
        }
        return suiting;
    }

    /** Whether the columns say that they are what the pattern shows: a target, two ends, or figures on both sides of zero. */
    private boolean isMeant() {
        List<Column> figures = figures();
        Set<String> asked = type.keys().stream().filter(Key::required).map(Key::name).collect(Collectors.toSet());
        if (asked.contains("target") && figures.stream().noneMatch(FirstBrief::isTarget)) {
            return false;
        }
        if (asked.contains("from") && (figures.stream().noneMatch(column -> LOW.matcher(column.name()).matches()) || figures.stream().noneMatch(column -> HIGH.matcher(column.name()).matches()))) {
            return false;
        }
        if (asked.contains("against") && figures.stream().noneMatch(FirstBrief::isTarget) && figures.stream().filter(FirstBrief::isOfAYear).count() < 2 && !isOverTime()) {
            return false;
        }
        return !type.name().equals("diverging") && !type.name().equals("waterfall") || kinds().isPresent() || figures.stream().anyMatch(FirstBrief::hasBothSigns);
    }

    /** Whether a row before another one is earlier. */
    private boolean isOverTime() {
        Column names = table.column(category());
        return names.kind() != Kind.TEXT || IntStream.range(0, names.size()).filter(names::isPresent).mapToObj(names::written).allMatch(FirstBrief::isPeriod);
    }

    /** Months or other periods as the names of columns of numbers, turned to rows. */
    private static Optional<Unpivot> wide(Table table) {
        List<String> periods = table.columns().stream().filter(column -> column.kind() == Kind.NUMBER && isPeriod(column.name())).map(Column::name).toList();
        long figures = table.columns().stream().filter(column -> column.kind() == Kind.NUMBER).count();
        boolean free = !table.schema().has("month") && !table.schema().has("value");
        return periods.size() >= LEAST_WIDE && periods.size() * 2 > figures && free ? Optional.of(new Unpivot(periods, "month", "value")) : Optional.empty();
    }

    private static boolean isPeriod(String name) {
        return CalendarUnit.days(name).isPresent() || Arrays.stream(Month.values()).anyMatch(month -> Stream.of(TextStyle.FULL, TextStyle.SHORT)
                .anyMatch(style -> Stream.of(Locale.ENGLISH, Locale.GERMAN, Locale.FRENCH).anyMatch(locale -> month.getDisplayName(style, locale).replace(".", "").equalsIgnoreCase(name.replace(".", "")))));
    }

    private boolean isYear(Column column) {
        return column.kind() == Kind.NUMBER && YEAR_NAME.matcher(column.name()).matches();
    }

    /** What may be the figure first, then what is called a target. */
    private List<Column> figures() {
        List<Column> numbers = table.columns().stream().filter(column -> column.kind() == Kind.NUMBER && !isYear(column)).toList();
        List<Column> amounts = numbers.stream().filter(column -> !isIndex(column) && !isSum(column)).toList();
        List<Column> kept = amounts.isEmpty() ? numbers : amounts;
        List<Column> all = kept.stream().filter(column -> !isActual(column)).toList();
        List<Column> figures = new ArrayList<>(kept.stream().filter(FirstBrief::isActual).toList());
        Stream.of(all.stream().filter(column -> !isTarget(column) && !isShare(column)), all.stream().filter(column -> !isTarget(column) && isShare(column)),
                all.stream().filter(FirstBrief::isTarget)).forEach(some -> some.forEach(figures::add));
        List<Column> signed = figures.stream().filter(column -> SIGNED.contains(type.name()) && !isTarget(column) && hasBothSigns(column)).toList();
        figures.removeAll(signed);
        figures.addAll(0, signed);
        return latestYearFirst(figures);
    }

    /** Of figures that are called by their years, the latest is the figure, and the one before is what it is compared with. */
    private List<Column> latestYearFirst(List<Column> figures) {
        List<Column> years = figures.stream().filter(FirstBrief::isOfAYear)
                .sorted(Comparator.comparing((Column column) -> year(column.name())).reversed()).toList();
        if (years.size() < 2) {
            return figures;
        }
        List<Column> ordered = new ArrayList<>(years);
        figures.stream().filter(column -> !years.contains(column)).forEach(ordered::add);
        return ordered;
    }

    private static boolean isOfAYear(Column column) {
        return YEAR_COLUMN.matcher(column.name()).matches();
    }

    private static String year(String name) {
        Matcher year = YEAR_COLUMN.matcher(name);
        return year.matches() ? year.group(1) : "";
    }

    private static boolean isTarget(Column column) {
        return TARGET.matcher(column.name()).matches() && !isActual(column);
    }

    private static boolean isActual(Column column) {
        return ACTUAL.matcher(column.name()).matches();
    }

    /** Whole numbers by which rows are called or counted. */
    private static boolean isIndex(Column column) {
        return INDEX_NAME.matcher(column.name()).matches() && IntStream.range(0, column.size()).filter(column::isPresent).allMatch(row -> column.number(row) == Math.rint(column.number(row)));
    }

    /** Whether a column is what several others beside it make together, on every row: months beside their sum in the raw table. */
    private boolean isSum(Column column) {
        List<Column> others = raw.columns().stream().filter(other -> other.kind() == Kind.NUMBER && !other.name().equals(column.name()) && !isYear(other) && !isIndex(other) && !isTarget(other)).toList();
        Optional<Column> whole = raw.find(column.name()).filter(found -> others.size() >= LEAST_WIDE);
        return whole.isPresent() && IntStream.range(0, raw.rowCount()).allMatch(row -> {
            double sum = others.stream().filter(other -> other.isPresent(row)).mapToDouble(other -> other.number(row)).sum();
            return whole.get().isPresent(row) && Math.abs(sum - whole.get().number(row)) <= 1e-9 * Math.abs(sum);
        });
    }

    private static boolean hasBothSigns(Column column) {
        return IntStream.range(0, column.size()).anyMatch(row -> column.number(row) < 0) && IntStream.range(0, column.size()).anyMatch(row -> column.number(row) > 0);
    }

    /** Parts of one: by its name, and no cell is below 0 or above 1. */
    private static boolean isShare(Column column) {
        return column.kind() == Kind.NUMBER && SHARE_NAME.matcher(column.name()).matches() && IntStream.range(0, column.size()).filter(column::isPresent)
                .allMatch(row -> column.number(row) >= 0 && column.number(row) <= 1);
    }

    /** The columns as they stand, then each other pair of them first. */
    private static List<List<Column>> orders(List<Column> figures) {
        List<List<Column>> orders = new ArrayList<>(List.of(figures));
        for (Column first : figures) {
            for (Column second : figures) {
                if (first != second && orders.size() < MOST_TRIES) {
                    orders.add(List.of(first, second));
                }
            }
        }
        return orders;
    }

    private String text(String data, List<Column> order) {
        comments.clear();
        StringBuilder keys = new StringBuilder("charts:\n  first:\n    pattern: " + type.name() + "\n");
        Map<String, String> slice = Map.of();
        Optional<String> totalled = Optional.empty();
        if (type.categories()) {
            category = category();
            keys.append("    category: ").append(quoted(category)).append('\n');
            Optional<Map<String, String>> found = slice(category);
            slice = found.orElse(Map.of());
            totalled = found.isEmpty() ? Optional.of(category) : Optional.empty();
        } else if (table.rowCount() > 1) {
            slice = oneRow();
        }
        List<Column> figures = new ArrayList<>(order);
        List<String> used = new ArrayList<>();
        for (Key key : type.keys()) {
            if (key.required()) {
                int before = figures.size();
                List<Column> had = List.copyOf(figures);
                keys.append("    ").append(key.name()).append(": ").append(value(key, figures)).append('\n');
                had.stream().filter(column -> figures.size() < before && !figures.contains(column)).map(Column::name).forEach(used::add);
            }
        }
        drawn = List.copyOf(used);
        if (!used.isEmpty() && used.stream().allMatch(name -> isShare(table.column(name))) && type.categories() && !type.name().equals("progress")) {
            keys.append("    labels: {format: \"0.#%\"}\n");
        }
        if (type.name().equals("waterfall")) {
            kinds().ifPresent(column -> keys.append("    kind: ").append(quoted(column)).append('\n'));
        }
        if (!slice.isEmpty()) {
            keys.append("    slice: {").append(slice.entrySet().stream().map(cut -> quoted(cut.getKey()) + ": " + quoted(cut.getValue()))
                    .collect(Collectors.joining(", "))).append("}\n");
            comments.add("some rows alone, so that each stands once; next time another value, or a setting");
        }
        others(used);
        String shape = shape(totalled, used);
        comments.addAll(0, found.comments());
        return comments.stream().map(line -> "# " + line + "\n").collect(Collectors.joining()) + "brief: 1\ndata:\n  " + quoted(raw.name()) + ": " + source(data) + "\n"
                + shape + keys;
    }

    /** The file, and what is said of it. */
    private String source(String data) {
        return found.keys().isEmpty() ? quoted(data) : "{file: " + quoted(data) + found.keys().entrySet().stream().map(key -> ", " + key.getKey() + ": "
                + (key.getValue().size() == 1 ? quoted(key.getValue().get(0)) : key.getValue().stream().map(FirstBrief::quoted).collect(Collectors.joining(", ", "[", "]")))).collect(Collectors.joining()) + "}";
    }

    private String shape(Optional<String> totalled, List<String> used) {
        StringBuilder shape = new StringBuilder();
        turned.ifPresent(step -> shape.append("  - unpivot: {columns: [").append(step.columns().stream().map(FirstBrief::quoted).collect(Collectors.joining(", ")))
                .append("], names: month, values: value}\n"));
        totalled.ifPresent(key -> {
            List<String> shares = used.stream().filter(name -> isShare(table.column(name))).toList();
            List<String> amounts = used.stream().filter(name -> !shares.contains(name)).toList();
            comments.add(amounts.isEmpty() ? "the rows of each " + key + " are averaged, as shares don't add up"
                    : "the rows of each " + key + " are added up" + (shares.isEmpty() ? "" : ", and of " + String.join(", ", shares) + " averaged, as shares don't add up"));
            shape.append("  - total: {by: ").append(quoted(key)).append(list(", sum", amounts)).append(list(", mean", shares)).append("}\n");
        });
        return shape.isEmpty() ? "" : "shape:\n" + shape;
    }

    private static String list(String key, List<String> names) {
        return names.isEmpty() ? "" : key + ": [" + names.stream().map(FirstBrief::quoted).collect(Collectors.joining(", ")) + "]";
    }

    /** What else there is. */
    private void others(List<String> used) {
        List<Column> left = table.columns().stream().filter(column -> column.kind() == Kind.NUMBER && !used.contains(column.name()) && !isYear(column)).toList();
        if (!left.isEmpty()) {
            comments.add(0, (used.isEmpty() ? "" : "it draws " + String.join(", ", used) + "; ") + "there " + (left.size() == 1 ? "is" : "are") + " also " + left.stream().map(column -> column.name()
                    + (TARGET.matcher(column.name()).matches() ? " (a target or limit, by its name)" : "")).collect(Collectors.joining(", ")));
        }
        if (turned.isPresent()) {
            comments.add(0, "the columns " + turned.get().columns().get(0) + " to " + turned.get().columns().get(turned.get().columns().size() - 1) + " are turned to rows");
        }
    }

    /** A column whose cells say which rows are starts, changes and totals. */
    private Optional<String> kinds() {
        return table.columns().stream().filter(column -> column.kind() == Kind.TEXT && column.size() > 0 && IntStream.range(0, column.size())
                .allMatch(row -> column.isPresent(row) && KINDS.contains(column.written(row)))).map(Column::name).findFirst();
    }

    private String value(Key key, List<Column> figures) {
        if (key.takes() == Takes.FIGURE) {
            Optional<Column> target = FOR_TARGETS.contains(key.name()) ? figures.stream().filter(FirstBrief::isTarget).findFirst() : Optional.empty();
            if (target.isPresent()) {
                figures.remove(target.get());
                return quoted(target.get().name());
            }
            boolean byYears = figures().stream().filter(FirstBrief::isOfAYear).count() > 1 && !figures.isEmpty() && isOfAYear(figures.get(0));
            if (key.name().equals("against") && !byYears) {
                return "{previous: row}";
            }
            Optional<Column> end = key.name().equals("from") ? named(figures, LOW) : key.name().equals("to") ? named(figures, HIGH) : Optional.empty();
            if (end.isPresent()) {
                figures.remove(end.get());
                return quoted(end.get().name());
            }
            if (figures.isEmpty()) {
                throw new BadInput(table.place(), ProblemKind.DATA, "has too few columns of numbers for '" + key.name() + "' of the pattern '" + type.name() + "'");
            }
            return quoted(figures.remove(0).name());
        }
        return switch (key.name()) {
            case "bands" -> "[{name: low, width: 0.5}, {name: high, width: 0.5}]";
            case "scale" -> "[" + scale() + "]";
            default -> throw new IllegalStateException("no first value for the key " + key.name());
        };
    }

    private static Optional<Column> named(List<Column> figures, Pattern name) {
        return figures.stream().filter(column -> name.matcher(column.name()).matches()).findFirst();
    }

    /** A round scale that holds every figure of the first column of numbers. */
    private String scale() {
        Column figures = figures().stream().findFirst().orElseThrow();
        double size = IntStream.range(0, figures.size()).mapToDouble(figures::number).filter(Double::isFinite).map(Math::abs).max().orElse(1);
        double round = Math.pow(10, Math.ceil(Math.log10(Math.max(size, 1e-6))));
        boolean negative = IntStream.range(0, figures.size()).anyMatch(row -> figures.number(row) < 0);
        String high = Numbers.shortest(round);
        return (negative ? "-" + high : "0") + ", " + high;
    }

    private String category() {
        Optional<String> kinds = kinds();
        List<Column> texts = table.columns().stream().filter(column -> column.kind() == Kind.TEXT && !kinds.equals(Optional.of(column.name()))).toList();
        List<Column> dates = table.columns().stream().filter(column -> column.kind() == Kind.DATE).toList();
        boolean oneName = !texts.isEmpty() && texts.stream().allMatch(column -> IntStream.range(0, column.size()).mapToObj(column::written).distinct().count() == 1) && table.rowCount() > 1;
        return texts.stream().filter(column -> (turned.isPresent() || oneName) && once(table, column.name())).findFirst()
                .or(() -> oneName ? dates.stream().filter(column -> once(table, column.name())).findFirst() : Optional.empty())
                .or(() -> texts.stream().filter(column -> once(table, column.name())).findFirst()).or(() -> texts.stream().findFirst())
                .or(() -> dates.stream().findFirst()).or(() -> table.columns().stream().filter(this::isYear).findFirst())
                .orElseThrow(() -> new BadInput(table.place(), ProblemKind.DATA, "has no column of texts or dates to name the rows")).name();
    }

    /** The column, and its last value, whose rows have each category once; none where all rows do; empty where there is no such column. */
    private Optional<Map<String, String>> slice(String category) {
        if (once(table, category)) {
            return Optional.of(Map.of());
        }
        for (Column column : table.columns()) {
            Optional<String> last = last(column);
            if (!column.name().equals(category) && column.kind() != Kind.NUMBER && last.isPresent()
                    && once(sliced(table, column.name(), last.get()), category)) {
                return Optional.of(Map.of(column.name(), last.get()));
            }
        }
        return Optional.empty();
    }

    private static Table sliced(Table rows, String column, String value) {
        return Executor.over(rows, Settings.NONE).run(Pipeline.of(rows.name()).then(new Slice(column, value)));
    }

    private Map<String, String> oneRow() {
        Map<String, String> slice = new LinkedHashMap<>();
        Table left = table;
        for (Column column : table.columns()) {
            if (left.rowCount() > 1 && column.kind() != Kind.NUMBER && column.isPresent(0)) {
                slice.put(column.name(), column.written(0));
                left = sliced(left, column.name(), column.written(0));
            }
        }
        if (left.rowCount() > 1) {
            throw new BadInput(table.place(), ProblemKind.DATA, "the pattern '" + type.name() + "' shows one figure, and no slice of texts or dates has one row");
        }
        return slice;
    }

    private static Optional<String> last(Column column) {
        return IntStream.range(0, column.size()).filter(column::isPresent).mapToObj(column::written).reduce((a, b) -> b);
    }

    private static boolean once(Table rows, String category) {
        Column names = rows.column(category);
        return IntStream.range(0, names.size()).allMatch(names::isPresent)
                && IntStream.range(0, names.size()).mapToObj(names::written).distinct().count() == names.size();
    }

    private static String quoted(String text) {
        return text.matches("[1-9]\\d{0,8}|[\\p{L}_][\\p{L}\\p{N}_./-]*|\\d{4}-\\d{2}-\\d{2}") && !text.matches("(?i)true|false|null|yes|no|on|off") ? text
                : "\"" + text.replace("\\", "\\\\").replace("\"", "\\\"").replace("\n", "\\n").replace("\t", "\\t") + "\"";
    }
}
