package dev.trellisgorge.audit;

import dev.trellisgorge.chart.Color;
import dev.trellisgorge.chart.ColorVision;
import dev.trellisgorge.chart.PlainChart;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.formula.HelperTable;
import dev.trellisgorge.formula.Identity;
import dev.trellisgorge.formula.Watch;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Numbers;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/**
 * The proof of one chart: each identity held against the helper cells themselves, and what a reader should know.
 *
 * @param chart    the chart that was audited
 * @param proofs   one an identity
 * @param notes in the order of the rules; none is a mistake
 */
public record Audit(PlainChart chart, List<Proof> proofs, List<Note> notes) {
    private static final double LEAST_CONTRAST = 3;
    private static final double LEAST_DIFFERENCE = 10;

    public static Audit of(PlainChart chart) {
        HelperTable data = chart.data();
        List<Note> notes = new ArrayList<>(data.notes());
        data.watches().forEach(watch -> watched(data, watch, notes));
        similarCategories(data.category(), notes);
        paleFills(chart, notes);
        fillsAlike(chart, notes);
        return new Audit(chart, data.identities().stream().map(identity -> prove(data, identity)).toList(), notes);
    }

    /** Whether every identity holds on every row. */
    public boolean holds() {
        return proofs.stream().allMatch(Proof::holds);
    }

    private static Proof prove(HelperTable data, Identity identity) {
        Column where = data.evaluate("where", identity.where());
        Column holds = data.evaluate("holds", identity.holds());
        Column left = data.evaluate("left", identity.left());
        Column right = data.evaluate("right", identity.right());
        int[] rows = IntStream.range(0, data.rowCount()).filter(row -> where.number(row) == 1).toArray();
        List<Proof.Failure> failures = IntStream.of(rows).filter(row -> holds.number(row) != 1)
                .mapToObj(row -> new Proof.Failure(data.category().written(row), left.number(row), right.number(row)))
                .toList();
        return new Proof(identity, rows.length, failures);
    }

    private static void watched(HelperTable data, Watch watch, List<Note> notes) {
        Column when = data.evaluate("when", watch.when());
        Column figure = data.evaluate("figure", watch.figure());
        List<String> rows = IntStream.range(0, data.rowCount()).filter(row -> when.number(row) == 1)
                .mapToObj(row -> data.category().written(row)
                        + (figure.isPresent(row) ? " (" + Numbers.brief(figure.number(row)) + ")" : ""))
                .toList();
        if (!rows.isEmpty()) {
            notes.add(new Note(watch.sentence(), rows));
        }
    }

    private static void similarCategories(Column category, List<Note> notes) {
        Map<String, List<String>> alike = IntStream.range(0, category.size()).mapToObj(category::written)
                .collect(Collectors.groupingBy(Audit::folded, LinkedHashMap::new, Collectors.toList()));
        alike.values().stream().filter(names -> names.size() > 1).forEach(names -> notes
                .add(new Note("categories that differ only in case or blanks",
                        names.stream().map(name -> "'" + name + "'").toList())));
    }

    private static String folded(String name) {
        return name.strip().replaceAll("[\\s\\u00a0]+", " ").toLowerCase(Locale.ROOT);
    }

    private static void paleFills(PlainChart chart, List<Note> notes) {
        Color paper = Role.PAPER.color();
        List<String> pale = chart.series().stream().filter(s -> s.fill().filter(fill -> fill.contrast(paper) < LEAST_CONTRAST).isPresent())
                .map(Series::name).toList();
        if (!pale.isEmpty()) {
            notes.add(new Note("a fill too pale to be seen well on paper (contrast below 3 to 1)", pale));
        }
    }

    /** Series that the legend tells apart by colour, and that some readers can't. */
    private static void fillsAlike(PlainChart chart, List<Note> notes) {
        List<Series> named = chart.series().stream().filter(s -> s.inLegend() && s.fill().isPresent()).toList();
        List<String> alike = new ArrayList<>();
        for (int i = 0; i < named.size(); i++) {
            for (int j = i + 1; j < named.size(); j++) {
                if (ColorVision.leastDifference(named.get(i).fill().get(), named.get(j).fill().get()) < LEAST_DIFFERENCE) {
                    alike.add("'" + named.get(i).name() + "' and '" + named.get(j).name() + "'");
                }
            }
        }
        if (!alike.isEmpty()) {
            notes.add(new Note("colours that a reader with a colour-vision deficiency can't tell apart", alike));
        }
    }
}
