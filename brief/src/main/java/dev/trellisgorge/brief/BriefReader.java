package dev.trellisgorge.brief;

import dev.trellisgorge.brief.Mapping.Text;
import dev.trellisgorge.chart.Format;
import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.engine.SheetAnchor;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.sql.Database;
import dev.trellisgorge.tables.Progress;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Numbers;
import dev.trellisgorge.table.Table;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import org.snakeyaml.engine.v2.nodes.Node;

/** Reads one brief: its keys, then its raw tables, then the steps and charts as data, and all their mistakes. */
final class BriefReader {
    private static final String SETTING_NAME = "[A-Za-z_][A-Za-z0-9_]*";
    private static final String CHART_NAME = "[\\p{L}\\p{N}_][\\p{L}\\p{N} _.-]*";

    private final Path file;
    private final String name;
    private final Optional<String> given;
    private final Optional<Table> givenTable;
    private final Overrides overrides;
    private final AccessPolicy trust;
    private final Progress progress;
    private final Problems problems = new Problems();
    private final List<Path> inputs = new ArrayList<>();

    BriefReader(Path file, Overrides overrides, AccessPolicy trust, Progress progress) {
        this(file, Optional.empty(), Optional.empty(), overrides, trust, progress);
    }

    /** A brief that is no file yet, over a table that was read. */
    BriefReader(String text, Table table) {
        this(Path.of("brief"), Optional.of(text), Optional.of(table), Overrides.NONE, AccessPolicy.OWN_FOLDER, Progress.NONE);
    }

    private BriefReader(Path file, Optional<String> given, Optional<Table> givenTable, Overrides overrides, AccessPolicy trust, Progress progress) {
        this.file = file;
        this.name = overrides.names().file(file, Brief.folder(file));
        this.given = given;
        this.givenTable = givenTable;
        this.overrides = overrides;
        this.trust = trust;
        this.progress = progress;
        inputs.add(file);
    }

    Brief read() {
        Optional<Mapping> root = Mapping.open(name, parsed(), "the brief", problems).map(m -> m.allowing(BriefSchema.BRIEF));
        root.ifPresent(this::version);
        Settings settings = overridden(root.flatMap(m -> m.mapping("settings")).map(this::settings).orElse(Settings.NONE));
        Executor executor = givenTable.map(table -> Executor.over(table, settings)).or(() -> root.map(m -> new SourceReader(file, m, overrides, trust, progress, inputs, problems).read(settings)))
                .orElseGet(() -> Executor.of(Map.of(), settings));
        try {
            return brief(root, settings, executor);
        } catch (RuntimeException e) {
            Brief.database(executor).ifPresent(Database::close);
            throw e;
        }
    }

    private Brief brief(Optional<Mapping> root, Settings settings, Executor executor) {
        Optional<Mapping> data = root.filter(m -> givenTable.isEmpty()).flatMap(m -> m.mapping("data"));
        Locale locale = locale(root);
        Looks theme = root.flatMap(m -> m.mapping("theme")).map(keys -> LooksReader.theme(keys, problems)).orElse(Looks.OWN);
        ChartedTables charted = new ChartedTables(executor.known().sources().keySet(), data, root, overrides, executor, problems);
        Optional<Mapping> chartKeys = root.flatMap(m -> m.mapping("charts"));
        Map<String, Pipeline> own = new LinkedHashMap<>();
        Map<String, SheetAnchor> spots = new LinkedHashMap<>();
        List<Chart> charts = chartKeys.map(m -> charts(m, charted, locale, theme, own, spots)).orElse(List.of());
        Optional<Board> board = root.flatMap(m -> m.mapping("board"))
                .map(m -> new BoardReader(m, chartKeys.map(Mapping::keyList).orElse(List.of()), charted, locale, theme, problems).read());
        if (board.isPresent() && chartKeys.isPresent() && chartKeys.get().has(Board.NAME)) {
            problems.add(chartKeys.get().keyPlace(Board.NAME), ProblemKind.CONFLICT, "'" + Board.NAME + "' is what the board's page is called by; give the chart another name");
        }
        board.stream().flatMap(shown -> shown.tiles().stream()).filter(Board.ChartTile.class::isInstance).map(tile -> ((Board.ChartTile) tile).chart()).filter(spots::containsKey).distinct()
                .forEach(chart -> problems.add(chartKeys.orElseThrow().keyPlace(chart), ProblemKind.CONFLICT, "'at' has no effect here: the chart stands on the board"));
        problems.throwIfAny();
        return new Brief(file, inputs, new Brief.Content(settings, charted.first().orElseThrow(), charts, own, spots, board, executor, charted.notes(), overrides.names()), () -> new BriefReader(file, given, givenTable, overrides.readHere(), trust, progress).read());
    }

    /** The brief and its data files, as far as that can be told, whatever is wrong with them. */
    List<Path> files() {
        Problems unheard = new Problems();
        unheard.attempt(this::parse).flatMap(root -> Mapping.open(name, root, "the brief", unheard)).flatMap(m -> m.mapping("data")).ifPresent(data -> {
            for (String table : data.keys()) {
                Optional<Text> text = data.isMapping(table) ? data.mapping(table).flatMap(keys -> keys.text("file")) : data.text(table);
                Optional<Path> source = overrides.data().containsKey(table) ? Optional.of(overrides.data().get(table))
                        : text.map(one -> file.resolveSibling(one.value()));
                boolean named = overrides.data().containsKey(table);
                source.filter(path -> named || trust.refusal(file, path, overrides.names()).isEmpty()).ifPresent(inputs::add);
            }
        });
        return List.copyOf(inputs);
    }

    private Node parse() {
        return given.map(text -> BriefText.parse(text, name)).orElseGet(() -> BriefText.read(file, name));
    }

    /** What is no brief at all is quoted nowhere: it may be a file that was not meant to be read. */
    private Node parsed() {
        Node root = parse();
        if (!Mapping.hasAnyOf(root, BriefSchema.BRIEF.names())) {
            throw new BadInput(Mapping.placeOf(name, root), ProblemKind.SYNTAX, "is no brief; a brief is a mapping of keys to values that starts with 'brief: 1'");
        }
        return root;
    }

    private void version(Mapping root) {
        root.text("brief").filter(text -> !text.value().equals("1")).ifPresent(text -> problems.add(text.place(), ProblemKind.UNSUPPORTED,
                "this program reads briefs of version 1, not '" + text.value() + "'"));
    }

    /** What the command line says, or the brief. */
    private Locale locale(Optional<Mapping> root) {
        Optional<Text> given = overrides.locale().map(tag -> new Text(tag, overrides.place(InputNames.Input.LOCALE))).or(() -> root.flatMap(m -> m.text("locale")));
        return given.flatMap(tag -> Languages.named(tag.value()).or(() -> {
            problems.add(tag.place(), ProblemKind.INVALID, Languages.refusal(tag.value()));
            return Optional.empty();
        })).orElse(Locale.ROOT);
    }

    private Settings settings(Mapping mapping) {
        Settings settings = Settings.NONE;
        for (String key : mapping.keys()) {
            if (!key.matches(SETTING_NAME)) {
                problems.add(mapping.keyPlace(key), ProblemKind.INVALID, "'" + key + "' can't name a setting; use letters, digits and _");
            }
            // A setting with a wrong value is reported once, and not again as unknown where it is used.
            Optional<Mapping> more = mapping.isMapping(key) ? mapping.mapping(key).map(keys -> keys.allowing(BriefSchema.SETTING)) : Optional.empty();
            Optional<Text> value = mapping.isMapping(key) ? more.flatMap(keys -> keys.text("value")) : mapping.text(key);
            settings = value.isPresent() ? with(settings, key, value.get()) : settings.with(key, Double.NaN);
            settings = more.isPresent() ? settings.telling(key, about(more.get(), settings.kind(key))) : settings;
        }
        return settings;
    }

    /** The description of a setting for readers. */
    private Settings.About about(Mapping keys, Kind kind) {
        Optional<Text> format = keys.text("format");
        if (format.isPresent() && kind != Kind.NUMBER) {
            problems.add(format.get().place(), ProblemKind.CONFLICT, "a format has no effect here: the value is " + kind.phrase());
        } else if (format.isPresent()) {
            try {
                Format.stated(format.get().value());
            } catch (IllegalArgumentException e) {
                problems.add(format.get().place(), ProblemKind.INVALID, e.getMessage());
            }
        }
        return new Settings.About(format.map(Text::value).orElse(""), keys.text("unit").map(Text::value).orElse(""), keys.text("meaning").map(Text::value).orElse(""));
    }

    /** A number, an ISO date, or else a text. */
    private Settings with(Settings settings, String key, Text value) {
        OptionalDouble number = Numbers.parse(value.value());
        if (number.isPresent() && Double.isInfinite(number.getAsDouble())) {
            problems.add(value.place(), ProblemKind.TOO_LARGE, "'" + key + "' is larger than a number can be");
            return settings.with(key, Double.NaN);
        }
        Optional<LocalDate> date = SettingValues.date(value.value());
        return number.isPresent() ? settings.with(key, number.getAsDouble()) : date.isPresent() ? settings.with(key, date.get()) : settings.with(key, value.value());
    }

    private Settings overridden(Settings stated) {
        Settings settings = stated;
        for (Map.Entry<String, String> given : overrides.settings().entrySet()) {
            String name = given.getKey();
            if (stated.find(name).isEmpty()) {
                problems.add(overrides.place(InputNames.Input.SETTINGS), ProblemKind.UNKNOWN_NAME, stated.unknown(name));
                continue;
            }
            Optional<Settings> changed = SettingValues.changed(settings, name, given.getValue());
            if (changed.isEmpty()) {
                Kind kind = stated.kind(name);
                problems.add(overrides.place(InputNames.Input.SETTINGS), ProblemKind.INVALID, "'" + given.getValue() + "' is " + (kind == Kind.DATE ? "no date" : "no number") + "; write " + name + "="
                        + (kind == Kind.DATE ? "2031-03-01" : "380"));
            }
            settings = changed.orElse(settings);
        }
        return settings;
    }

    private Optional<SheetAnchor> spot(Text written) {
        try {
            return Optional.of(SheetAnchor.parse(written.value()));
        } catch (IllegalArgumentException e) {
            problems.add(written.place(), ProblemKind.INVALID, e.getMessage());
            return Optional.empty();
        }
    }

    /**
     * @param own   takes the table of each chart
     * @param spots takes the places in a workbook that is drawn into
     */
    private List<Chart> charts(Mapping mapping, ChartedTables charted, Locale locale, Looks theme, Map<String, Pipeline> own, Map<String, SheetAnchor> spots) {
        List<Chart> charts = new ArrayList<>();
        for (String key : mapping.keys()) {
            if (!key.matches(CHART_NAME)) {
                problems.add(mapping.keyPlace(key), ProblemKind.INVALID, "'" + key + "' can't name a chart; files and sheets are called by it,"
                        + " so use letters, digits, blanks, and _ . -");
            }
            mapping.mapping(key).flatMap(keys -> {
                Optional<Pipeline> table = charted.of(keys);
                table.ifPresent(pipeline -> own.put(key, pipeline));
                keys.text("at").flatMap(this::spot).ifPresent(spot -> spots.put(key, spot));
                return new ChartReader(keys, charted.expressions(table), charted.raw(table), locale, theme, problems).read();
            }).ifPresent(chart -> charts.add(chart.named(key)));
        }
        if (!mapping.keys().iterator().hasNext()) {
            problems.add(mapping.place(), ProblemKind.MISSING, "'charts' names no chart");
        }
        return charts;
    }
}
