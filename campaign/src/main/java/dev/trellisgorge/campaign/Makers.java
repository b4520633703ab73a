package dev.trellisgorge.campaign;

import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/** What is made up, by name: each from hard pieces, some of them damaged afterwards. */
final class Makers {
    private static final List<String> CHARTS = List.of("pattern: columns, category: n, value: $X", "pattern: columns, category: n, value: v, classify: {split: {at: $N}}",
            "pattern: columns, category: n, value: v, classify: {bands: {limits: [$N, $N, $N]}}", "pattern: columns, category: n, value: v, classify: {highlight: {largest: $N}}",
            "pattern: columns, category: n, value: v, classify: {highlight: {where: $X}}", "pattern: to-target, category: n, value: $X, target: $X", "pattern: diverging, category: n, value: $X",
            "pattern: waterfall, category: n, value: $X, closing: $T", "pattern: waterfall, category: n, value: v, starts: [$T], totals: [$T], connectors: true", "pattern: breakdown, category: n, value: $X, total-name: $T",
            "pattern: range, category: n, from: $X, to: $X", "pattern: tornado, category: n, left: $X, right: $X", "pattern: text-bar, category: n, value: $X, per: $N", "pattern: text-bar, category: n, value: v, glyph: $T",
            "pattern: variance, category: n, value: $X, against: w", "pattern: marker, category: n, columns: $X, points: $X", "pattern: ring, value: $N, target: $N", "pattern: progress, value: $N, target: $N, bands: [{name: $T, width: $N}]",
            "pattern: dial, value: $N, scale: [$N, $N]");
    private static final List<String> EXTRAS = List.of("title: $T", "subtitle: $T", "rank: {by: v}", "rank: {by: $X, top: $N, rest: $T}", "slice: {n: $T}", "labels: {format: $T}", "labels: {show: share}", "labels: {show: $X}",
            "names: {value: $T}", "orientation: vertical", "shape: [{keep: $X}]", "cap: $N", "$T: $T", "table: u", "title: $W", "subtitle: $W", "slice: {n: [$T, r1]}", "slice: {d: {from: $T, to: $T}}", "slice: {n: \":goal\"}",
            "slice: {on-raw: true, v: {from: $N}}", "labels: [{format: $P}, {show: part, at: base}]", "labels: {on: [value, $T], name: true, at: centre}", "labels: {on: above, at: inside, format: $P}", "legend: right", "legend: none",
            "axis: {figures: shown, title: $T, format: $P, dates: $P}", "axis: shown", "gap: $N", "reference: {name: $W, color: $C}", "reference: none", "marker: {size: $N, color: $C, shape: dash}", "text: {title: $N, labels: $N, bold: [title, axis]}",
            "title-at: right", "scale: [$N, $N]", "good: down", "colors: {value: $C}");
    private static final List<String> LOOKS = List.of("legend: bottom", "axis: {figures: shown, format: $P}", "gap: $N", "reference: {name: $W}", "marker: {size: $N}", "text: {subtitle: $N, legend: $N}", "title-at: centre", "good: down", "colors: {good: $C, base: $C}");
    private static final List<String> COLORS = List.of("seagreen", "'#335577'", "'#fff'", "good", "muted", "'#12345g'", "transparent", "rebeccapurple");
    private static final List<String> LOCALES = List.of("de-DE", "en-GB", "fr-CH", "ar-EG", "hi-IN-u-nu-deva", "ja-JP-u-ca-japanese", "th-TH-u-ca-buddhist", "tr", "de-DE-u-cu-chf", "und", "x", "en_US", "zz-ZZ");
    private static final List<String> STEPS = List.of("keep: $X", "add: {y: $X}", "top: $N", "order: {by: $X}", "total: {by: n, sum: v}", "previous: {of: v, as: p}", "period: {of: d, unit: month, as: p, fill: true}",
            "unpivot: {columns: [v, w], name: k, values: x}", "join: {table: u, on: n}", "$T: $T", "rename: {v: $T}");
    private static final List<String> ENDINGS = List.of("svg", "png", "pdf", "xlsx", "ods", "pptx", "txt", "json");

    /** By the name that a maker is asked for by. */
    static final Map<String, Maker> ALL = new LinkedHashMap<>();

    static {
        ALL.put("expression", Makers::expression);
        ALL.put("brief", Makers::brief);
        ALL.put("damaged-brief", Makers::damagedBrief);
        ALL.put("delimited", Makers::delimited);
        ALL.put("json", Makers::json);
        ALL.put("sheet", Sheets::sheet);
        ALL.put("spreadsheet", Sheets::spreadsheet);
        ALL.put("into", Sheets::into);
        ALL.put("arguments", Makers::arguments);
        ALL.put("engine", Makers::engine);
        ALL.put("start", Makers::start);
    }

    /** As often as they are taken where nothing else is asked for: the ones that draw take the longest. */
    static final List<String> MIXED = List.of("expression", "brief", "damaged-brief", "delimited", "json", "sheet", "spreadsheet", "arguments", "expression", "brief", "delimited", "sheet", "spreadsheet", "damaged-brief",
            "json", "expression", "delimited", "engine", "start", "into");

    private Makers() {
    }

    /** A text as YAML and JSON both take it in double quotes. */
    static String quoted(String text) {
        StringBuilder quoted = new StringBuilder("\"");
        for (char character : text.toCharArray()) {
            quoted.append(character == '"' || character == '\\' ? "\\" + character : character < ' ' || character > '~' ? String.format("\\u%04x", (int) character) : String.valueOf(character));
        }
        return quoted.append('"').toString();
    }

    private static String filled(String keys, Choices choices) {
        String filled = keys;
        while (filled.contains("$")) {
            int at = filled.indexOf('$');
            String what = switch (filled.charAt(at + 1)) {
                case 'X' -> quoted(Hard.expression(choices));
                case 'W' -> quoted(Hard.words(choices));
                case 'P' -> quoted(Hard.format(choices));
                case 'C' -> choices.oneIn(15) ? quoted(Hard.text(choices)) : choices.of(COLORS);
                case 'N' -> choices.oneIn(15) ? quoted(Hard.text(choices)) : number(choices);
                default -> quoted(Hard.text(choices));
            };
            filled = filled.substring(0, at) + what.replace('$', 'S') + filled.substring(at + 2);
        }
        return filled;
    }

    private static String number(Choices choices) {
        String number = Hard.number(choices);
        return number.isEmpty() ? "0" : number;
    }

    /** A table of names, dates and two figures; most of its names stand once. */
    static List<List<String>> rows(Choices choices, int most) {
        List<List<String>> rows = new ArrayList<>();
        int count = choices.below(most) + 1;
        for (int row = 0; row < count; row++) {
            rows.add(List.of(choices.oneIn(5) ? Hard.text(choices) : "r" + row, choices.oneIn(9) ? Hard.text(choices) : "2031-" + String.format("%02d", row % 12 + 1) + "-01", Hard.cell(choices), Hard.cell(choices)));
        }
        return rows;
    }

    static String csv(List<List<String>> rows, Choices choices) {
        String between = choices.oneIn(4) ? Choices.of(choices, ";", "\t", "|") : ",";
        return "n" + between + "d" + between + "v" + between + "w\n" + rows.stream().map(row -> row.stream().map(cell -> cell.matches("[A-Za-z0-9 .-]*") ? cell : "\"" + cell.replace("\"", "\"\"") + "\"")
                .collect(Collectors.joining(between))).collect(Collectors.joining("\n")) + "\n";
    }

    private static String written(Choices choices) {
        StringBuilder brief = new StringBuilder("brief: 1\ndata: {t: t.csv, u: t.csv}\nsettings: {goal: " + (choices.oneIn(4) ? Choices.of(choices, "r1", "2031-02-01", quoted(Hard.text(choices))) : number(choices)) + "}\n");
        if (choices.oneIn(4)) {
            brief.append("locale: ").append(choices.oneIn(9) ? quoted(Hard.text(choices)) : choices.of(LOCALES)).append('\n');
        }
        if (choices.oneIn(4)) {
            brief.append("theme: {").append(filled(choices.of(LOOKS), choices)).append(", ").append(filled(choices.of(LOOKS), choices)).append("}\n");
        }
        int steps = choices.below(4);
        if (steps > 0) {
            brief.append("shape:\n");
            IntStream.range(0, steps).forEach(i -> brief.append("  - ").append(filled(choices.of(STEPS), choices)).append('\n'));
        }
        brief.append("charts:\n");
        int charts = choices.below(2) + 1;
        for (int i = 0; i < charts; i++) {
            brief.append("  c").append(i).append(": {").append(filled(choices.of(CHARTS), choices));
            for (int extra = choices.below(3); extra > 0; extra--) {
                brief.append(", ").append(filled(choices.of(EXTRAS), choices));
            }
            brief.append("}\n");
        }
        return brief.append(choices.oneIn(6) ? filled(Choices.of(choices, "board: {title: $T, columns: $N, tiles: [c0, {figure: $X, total: sum, title: $T}]}\n",
                "board: {title: $W, subtitle: $W, source: $W, columns: 3, tiles: [{chart: c0, span: [2, 1]}, {figure: $X, total: mean, table: u, title: $W, text: $W, format: $P, slice: {n: $T}, span: $N}]}\n"), choices) : "").toString();
    }

    private static Trial of(String maker, String brief, byte[] table, Choices choices) {
        List<String> command = new ArrayList<>(switch (choices.below(6)) {
            case 0 -> List.of("check", "HERE/b.yaml");
            case 1 -> List.of("series", "HERE/b.yaml", "--as", Choices.of(choices, "csv", "json"));
            case 2 -> List.of("series", "HERE/b.yaml");
            case 3 -> List.of("plan", "HERE/b.yaml");
            case 4 -> List.of("explain", "HERE/b.yaml", "--row", Choices.of(choices, "r0", "r1", Hard.text(choices).replace("\u0000", "")));
            default -> List.of("draw", "HERE/b.yaml");
        });
        if (choices.oneIn(6)) {
            command.addAll(Choices.of(choices, List.of("--where", Hard.expression(choices).replace("\u0000", "")), List.of("--locale", choices.of(LOCALES)), List.of("--set", "goal=" + Hard.text(choices).replace("\u0000", ""))));
        }
        if (command.get(0).equals("explain") && choices.oneIn(3)) {
            command.add("--formulas");
        }
        return new Trial(maker, Map.of("b.yaml", Trial.bytes(brief), "t.csv", table), command);
    }

    private static Trial expression(Choices choices) {
        String expression = Hard.expression(choices);
        String brief = "brief: 1\ndata: {t: t.csv}\nsettings: {goal: 3}\nshape:\n  - add: {y: " + quoted(choices.oneIn(3) ? Hard.damaged(expression, choices) : expression)
                + "}\ncharts:\n  c: {pattern: columns, category: n, value: y}\n";
        return of("expression", brief, Trial.bytes("n,d,v,w\na,2031-01-01,1,2\nb,2031-02-01,,0\nWeir,,-3,0.5\n"), choices);
    }

    private static Trial brief(Choices choices) {
        return of("brief", written(choices), Trial.bytes(csv(rows(choices, 12), choices)), choices);
    }

    private static Trial damagedBrief(Choices choices) {
        return of("damaged-brief", Hard.damaged(written(choices), choices), Trial.bytes(csv(rows(choices, 5), choices)), choices);
    }

    private static final String PLAIN = "charts:\n  c: {pattern: columns, category: n, value: v}\n";

    private static Trial delimited(Choices choices) {
        String text = csv(rows(choices, 20), choices);
        String marked = choices.oneIn(5) ? "sep=" + Choices.of(choices, ";", ",", "", "a", "\"", "::", "\t") + "\n" + text : choices.oneIn(8) ? "\ufeff" + text : text;
        String damaged = choices.oneIn(2) ? Hard.damaged(marked, choices) : marked;
        Charset charset = choices.oneIn(5) ? Choices.of(choices, StandardCharsets.UTF_16, StandardCharsets.ISO_8859_1, StandardCharsets.UTF_16LE) : StandardCharsets.UTF_8;
        byte[] bytes = choices.oneIn(5) ? Hard.damaged(damaged.getBytes(charset), choices) : damaged.getBytes(charset);
        String layout = choices.oneIn(2) ? "t.csv" : filled("{file: t.csv, " + Choices.of(choices, "delimiter: $T", "charset: $T", "decimal: $T", "dates: $T", "kinds: {v: figure}", "missing: $T", "total-row: drop", "header-row: $N",
                "locale: $T", "kinds: {d: date, v: text}") + "}", choices);
        return of("delimited", "brief: 1\ndata: {t: " + layout + "}\n" + PLAIN, bytes, choices);
    }

    private static Trial json(Choices choices) {
        List<List<String>> rows = rows(choices, 10);
        String text = rows.stream().map(row -> "{\"n\": " + quoted(row.get(0)) + ", \"d\": " + quoted(row.get(1)) + ", \"v\": " + (choices.oneIn(6) ? quoted(row.get(2)) : row.get(2).isEmpty() ? "null" : row.get(2)) + ", \"w\": "
                + Choices.of(choices, "true", "1", "[1]", "{}", "\"x\"", "null", "1e400", "-0") + "}").collect(Collectors.joining(choices.oneIn(3) ? "\n" : ",\n"));
        String whole = choices.oneIn(3) ? text : "[" + text + "]";
        String nested = choices.oneIn(20) ? "[".repeat(choices.below(3_000)) + whole : whole;
        byte[] bytes = Trial.bytes(choices.oneIn(2) ? Hard.damaged(nested, choices) : nested);
        String name = Choices.of(choices, "t.json", "t.ndjson", "t.jsonl");
        Trial trial = of("json", "brief: 1\ndata: {t: " + name + "}\n" + PLAIN, new byte[0], choices);
        return new Trial("json", Map.of("b.yaml", trial.files().get("b.yaml"), name, bytes), trial.arguments());
    }

    private static Trial arguments(Choices choices) {
        List<String> words = List.of("check", "series", "draw", "plan", "explain", "patterns", "start", "demo", "completion", "HERE/b.yaml", "HERE/t.csv", "HERE/none", "--chart", "c0", "--set", "goal=3", "goal=x", "=", "--data", "t=HERE/t.csv", "-o", "HERE/out.svg",
                "HERE/out", "HERE/out.x", "--size", "1x1", "64x64", "640x400", "--each", "n", "--as", "json", "csv", "--help", "--version", "--row", "r1", "--even-if-wrong", "--no-formulas", "--allow", "folder=HERE", "database", "input", "columns", "-", "", " ", "--",
                "HERE", "--where", "v > 1", "--locale", "de-DE", "--formulas", "waterfall", "--output", "@HERE/b.yaml", "x\ty", "\u00e9", "-z");
        List<String> typed = new ArrayList<>();
        for (int i = choices.below(7); i > 0; i--) {
            typed.add(choices.oneIn(12) ? Hard.text(choices).replace("\u0000", "").replaceAll("[/\\\\]", "") : choices.of(words));
        }
        typed.removeIf(word -> word.equals("demo") || word.contains("passwd") || word.contains(".."));
        return new Trial("arguments", Map.of("b.yaml", Trial.bytes(written(choices)), "t.csv", Trial.bytes(csv(rows(choices, 5), choices))), typed.contains("watch") ? List.of() : anchored(typed));
    }

    /** What would be written to the working directory goes to the trial's folder. */
    private static List<String> anchored(List<String> typed) {
        List<String> anchored = new ArrayList<>();
        for (int i = 0; i < typed.size(); i++) {
            boolean output = i > 0 && (typed.get(i - 1).equals("-o") || typed.get(i - 1).equals("--output"));
            String word = typed.get(i).startsWith("-o") && typed.get(i).length() > 2 ? "-o" : typed.get(i);
            anchored.add(output && !word.startsWith("HERE") ? "HERE/out.txt" : word);
        }
        return anchored;
    }

    private static Trial engine(Choices choices) {
        List<String> command = new ArrayList<>(List.of("draw", "HERE/b.yaml", "-o", "HERE/out." + choices.of(ENDINGS)));
        if (choices.oneIn(4)) {
            command.addAll(List.of("--size", (64 + choices.below(400)) + "x" + (64 + choices.below(300))));
        }
        if (choices.oneIn(6)) {
            command.addAll(choices.oneIn(2) ? List.of("--spare", String.valueOf(choices.below(30))) : List.of("--author", "A", "--date", choices.oneIn(4) ? "2031-13-01" : "2031-06-30"));
        }
        if (choices.oneIn(10)) {
            command.addAll(choices.oneIn(2) ? List.of("--each", "n") : List.of("--each", "d", "--each", "n"));
        }
        return new Trial("engine", Map.of("b.yaml", Trial.bytes(written(choices)), "t.csv", Trial.bytes(csv(rows(choices, 8), choices))), command);
    }

    /** A first brief for a table: with a pattern, or the patterns that suit. */
    private static Trial start(Choices choices) {
        List<String> command = new ArrayList<>(List.of("start"));
        if (choices.oneIn(2)) {
            command.add(Choices.of(choices, "columns", "to-target", "waterfall", "diverging", "variance", "ring", "dial", "text-bar", "range", "breakdown", "marker", "progress", "tornado"));
        }
        command.add("HERE/t.csv");
        String table = csv(rows(choices, 15), choices);
        String headed = choices.oneIn(3) ? Hard.text(choices) + "," + Hard.text(choices) + "\n" + table : choices.oneIn(3) ? table + "Total,,1,2\n" : table;
        return new Trial("start", Map.of("t.csv", Trial.bytes(choices.oneIn(3) ? Hard.damaged(headed, choices) : headed)), command);
    }
}
