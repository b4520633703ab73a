package dev.trellisgorge.cli;

import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/**
 * A brief over tables whose cells executors tend to see differently: ties, −0, decimals, seventeen digits, years from 1 to 9999, letters beyond the first plane, missing cells, one row or none.
 *
 * @param text  the brief
 * @param rows  of the table t: n, station, meter, day, v, w, ok; a missing cell is empty
 * @param meters of the table m: meter, river, kw
 */
record UglyBrief(String text, List<List<String>> rows, List<List<String>> meters) {
    static final List<String> COLUMNS = List.of("n", "station", "meter", "day", "v", "w", "ok");
    private static final String[] STATIONS = {"Fern Pool", "fern pool", "Mill Race", "Ölmühle", "\ud83d\ude00 weir", "\uffee weir", "Weir", "weir", "Low Lock", "Otter Bend", "O'Leat"};
    private static final String[] LONG = {"12345678901234567", "12345678901234568", "9007199254740993", "9007199254740992", "9007199254740991"};
    private static final String[] SHORT = {"1", "2", "5", "7", "11"};
    private static final String[] DAYS = {"2031-01-31", "2031-02-28", "2032-02-29", "2031-03-01", "2031-12-31", "2032-01-01", "1999-12-31", "1900-02-28"};
    private static final String[] OLD = {"0001-01-01", "0044-03-15", "1000-02-28", "1582-10-04", "1582-10-15", "9999-12-31", "2031-06-30"};
    private static final String[] FIGURES = {"0", "-0.0", "0.1", "0.2", "0.3", "0.30000000000000004", "-0.1", "5", "5", "-5", "12.5", "99.95", "100", "400", "1e-7", "1e13", "123456.789", "5.3", "2.7", ""};
    private static final String[] LARGE = {"1e300", "-1e300", "1e-300", "4.9e-324", "1.7e308", "9007199254740992"};
    private static final String[] EXPRESSIONS = {"v", "w", "v + w", "v - w", "v / w", "v * 0.1", "ABS(v)", "-v", "ROUND(v, 1)", "FLOOR(w)", "COALESCE(v, 0)", "NULLIF(v, w)", "LEAST(v, w)", "GREATEST(v, w, 0)", "CASE WHEN ok THEN v ELSE w END", "n / 3",
        "EXTRACT(YEAR FROM day)", "CASE WHEN v > w THEN v WHEN v = w THEN 0 END", ":goal - v", "v * w / 3"};
    private static final String[] CONDITIONS = {"v > 0", "v >= w", "station = 'Weir'", "station > 'Low Lock'", "ok", "NOT ok", "v IS NULL", "day < DATE '1582-10-15'", "v IN (5, 0.1)", "station IN ('Weir', 'weir') OR v < 0", "v < -1000", "EXTRACT(MONTH FROM day) = 2",
        "day IS NOT NULL AND w > 0", "v <> 5"};
    private static final String[] WORDS = {"{SUM(v)} in all", "{AVG(v) | #,##0.00}", "{MAX(day)} is the last", "{COUNT(*)} rows of {COUNT(v)}", "{FIRST_VALUE(station) OVER (ORDER BY v DESC)} leads", "{FIRST_VALUE(day) OVER (ORDER BY v)}", "{MIN(v) - MAX(w)}",
        "{:goal | 0.0}", "{SUM(v) / SUM(w) | 0.0%}", "plain words"};

    private static final List<String> COLUMNS_OF_ALL = List.of("n", "station", "meter", "day", "v", "w", "ok", "z", "period", "which");

    static UglyBrief of(long seed) {
        return new Making(new SplittableRandom(seed)).made();
    }

    /** The rows as delimited text. */
    String csv() {
        return lines(COLUMNS, rows);
    }

    String metersCsv() {
        return lines(List.of("meter", "river", "kw"), meters);
    }

    private static String lines(List<String> names, List<List<String>> rows) {
        return String.join(",", names) + "\n" + rows.stream().map(row -> row.stream().map(cell -> cell.matches(".*[,\"\n].*") ? '"' + cell.replace("\"", "\"\"") + '"' : cell).collect(Collectors.joining(",")) + "\n").collect(Collectors.joining());
    }

    /** Makes one. */
    private record Making(SplittableRandom random) {
        private String of(String... choices) {
            return choices[random.nextInt(choices.length)];
        }

        private boolean oneIn(int many) {
            return random.nextInt(many) == 0;
        }

        UglyBrief made() {
            int count = oneIn(9) ? 0 : oneIn(6) ? 1 : 2 + random.nextInt(14);
            boolean old = oneIn(3);
            boolean large = oneIn(6);
            boolean missing = oneIn(12);
            String[] meters = oneIn(2) ? LONG : SHORT;
            String[] stations = IntStream.range(0, 1 + random.nextInt(6)).mapToObj(i -> of(STATIONS)).toArray(String[]::new);
            List<List<String>> rows = new ArrayList<>();
            for (int i = 0; i < count; i++) {
                rows.add(List.of(String.valueOf(i + 1), of(stations), oneIn(30) ? "" : of(meters), of(old ? OLD : DAYS), missing ? "" : large && oneIn(4) ? of(LARGE) : of(FIGURES), of(FIGURES), oneIn(15) ? "" : of("true", "false")));
            }
            List<List<String>> other = IntStream.range(0, meters.length - 1).mapToObj(i -> List.of(meters[i], of("Wend", "Arle", ""), of(FIGURES))).toList();
            return new UglyBrief(text(), rows, other);
        }

        private String text() {
            List<String> columns = new ArrayList<>(COLUMNS);
            StringBuilder text = new StringBuilder("brief: 1\nsettings: {goal: " + of("0.1", "5", "0") + "}\ndata: DATA\n");
            StringBuilder steps = new StringBuilder();
            for (int i = random.nextInt(4); i > 0; i--) {
                steps.append("- ").append(step(columns)).append('\n');
            }
            String category = oneOf(columns, "station", "station", "meter", "day", "ok", "n", "period", "which");
            if (!category.equals("n")) {
                steps.append("- total: {by: ").append(category).append(", sum: ").append(columns.contains("z") && !columns.contains("w") ? "z" : of("[v, w]", "v, mean: w", "v, least: w", "w, last: v", "v, count: w")).append("}\n");
                columns.retainAll(List.of(category, columns.contains("w") ? "v" : "z", "w"));
            }
            if (steps.length() > 0) {
                text.append("shape:\n").append(steps);
            }
            text.append("charts:\n");
            for (int i = random.nextInt(2); i >= 0; i--) {
                text.append("  c").append(i).append(": {").append(chart(category, columns)).append("}\n");
            }
            return text.toString();
        }

        /** One that reads nothing but these columns. */
        private String oneOf(List<String> columns, String... choices) {
            String[] fit = Stream.of(choices).filter(choice -> COLUMNS_OF_ALL.stream().noneMatch(name -> !columns.contains(name) && choice.matches("(?s).*(?<![A-Za-z:'{])" + name + "(?![A-Za-z']).*"))).toArray(String[]::new);
            return fit.length == 0 ? choices[0] : of(fit);
        }

        private String step(List<String> columns) {
            switch (random.nextInt(12)) {
                case 0, 1 -> {
                    return "keep: " + oneOf(columns, CONDITIONS);
                }
                case 2, 3 -> {
                    String step = columns.contains("z") ? "top: 8" : "add: {z: \"" + oneOf(columns, EXPRESSIONS) + "\"}";
                    if (!columns.contains("z")) {
                        columns.add("z");
                    }
                    return step;
                }
                case 4, 5 -> {
                    String keys = oneOf(columns, "[station, meter]", "[station, day]", "[meter, day]", "[station, ok]", "[day, n]");
                    columns.retainAll(List.of(keys.replaceAll("[\\[\\]]", "").split(", ")[0], keys.replaceAll("[\\[\\]]", "").split(", ")[1], "v", "w"));
                    return "total: {by: " + keys + ", sum: " + of("[v, w]", "v, mean: w", "w, greatest: v", "v, first: w") + "}";
                }
                case 6, 7 -> {
                    return "order: {by: \"" + oneOf(columns, "v", "station", "day", "-w", "meter") + "\", order: " + of("ascending", "descending") + "}";
                }
                case 8 -> {
                    return "top: " + (1 + random.nextInt(6));
                }
                case 9 -> {
                    if (!columns.contains("day") || columns.contains("period")) {
                        return "top: 9";
                    }
                    columns.add("period");
                    return "period: {of: day, unit: " + of("month", "quarter", "year", "week", "day") + ", as: period" + "}";
                }
                case 10 -> {
                    if (columns.contains("before")) {
                        return "top: 7";
                    }
                    columns.add("before");
                    return "previous: {of: v" + of("", ", by: " + oneOf(columns, "station", "meter", "[v]")) + ", as: before}";
                }
                default -> {
                    if (!columns.contains("meter") || columns.contains("river")) {
                        return "keep: w >= 0";
                    }
                    columns.add("river");
                    return "join: {table: m, on: meter" + of("", ", way: inner") + "}";
                }
            }
        }

        private String chart(String category, List<String> columns) {
            String value = columns.contains("w") ? of("v", "v", "w") : "z";
            String rule = of("", "", ", classify: {split: {at: " + of("5", "0.1", "\":goal\"", value) + of("", ", ties: below") + "}}",
                    ", classify: {highlight: {" + of("largest: 2", "smallest: 1", "where: \"" + value + " > 0\"", "first: 1") + "}}", ", classify: {bands: {limits: [0, 5]}}", ", classify: {sign: {}}");
            String rank = of("", "", "", ", rank: {by: " + value + ", order: " + of("descending", "ascending") + of("", ", top: 2", ", top: 3, rest: Others", ", top: 1, rest: Others") + "}");
            String slice = of("", "", "", "", "", ", slice: {" + oneOf(columns, "station: Weir", "ok: true", "station: nowhere", "day: 2031-03-01", "meter: 5", value + ": 5") + "}");
            String labels = of("", ", labels: {format: \"" + of("#,##0.0", "0.##", "0%", "+0.0;-0.0") + "\"}");
            String title = of("", ", title: \"" + oneOf(columns, WORDS) + "\"");
            String pattern = switch (random.nextInt(8)) {
                case 0 -> "pattern: waterfall, value: " + value;
                case 1 -> "pattern: breakdown, value: " + value;
                case 2 -> "pattern: to-target, value: " + value + ", target: " + of("5", "\":goal\"") + rule;
                case 3 -> "pattern: variance, value: " + value + ", against: " + (columns.contains("w") ? "w" : "5");
                default -> "pattern: columns, value: " + value + rule;
            };
            return pattern + ", category: " + category + rank + slice + labels + title;
        }
    }
}
