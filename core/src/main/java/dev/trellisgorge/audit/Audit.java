package dev.trellisgorge.audit;

import dev.trellisgorge.chart.Color;
import dev.trellisgorge.chart.PlainChart;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.formula.HelperTable;
import dev.trellisgorge.formula.Identity;
import dev.trellisgorge.formula.Watch;
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
 * @param findings in the order of the rules; none is a mistake
 */
public record Audit(PlainChart chart, List<Proof> proofs, List<Finding> findings) {
    private static final double LEAST_CONTRAST = 3;

    public static Audit of(PlainChart chart) {
        HelperTable data = chart.data();
        List<Finding> findings = new ArrayList<>();
        data.watches().forEach(watch -> watched(data, watch, findings));
        similarCategories(data.category(), findings);
        paleFills(chart, findings);
        return new Audit(chart, data.identities().stream().map(identity -> prove(data, identity)).toList(), findings);
    }

    /** Whether every identity holds on every row. */
    public boolean holds() {
        return proofs.stream().allMatch(Proof::holds);
    }

    private static Proof prove(HelperTable data, Identity identity) {
        Column holds = data.evaluate("holds", identity.holds());
        Column left = data.evaluate("left", identity.left());
        Column right = data.evaluate("right", identity.right());
        List<Proof.Failure> failures = IntStream.range(0, data.rowCount()).filter(row -> holds.number(row) != 1)
                .mapToObj(row -> new Proof.Failure(data.category().written(row), left.number(row), right.number(row)))
                .toList();
        return new Proof(identity, data.rowCount(), failures);
    }

    private static void watched(HelperTable data, Watch watch, List<Finding> findings) {
        Column when = data.evaluate("when", watch.when());
        Column figure = data.evaluate("figure", watch.figure());
        List<String> rows = IntStream.range(0, data.rowCount()).filter(row -> when.number(row) == 1)
                .mapToObj(row -> data.category().written(row)
                        + (figure.isPresent(row) ? " (" + Numbers.shortest(figure.number(row)) + ")" : ""))
                .toList();
        if (!rows.isEmpty()) {
            findings.add(new Finding(watch.sentence(), rows));
        }
    }

    private static void similarCategories(Column category, List<Finding> findings) {
        Map<String, List<String>> alike = IntStream.range(0, category.size()).mapToObj(category::written)
                .collect(Collectors.groupingBy(Audit::folded, LinkedHashMap::new, Collectors.toList()));
        alike.values().stream().filter(names -> names.size() > 1).forEach(names -> findings
                .add(new Finding("categories that differ only in case or blanks",
                        names.stream().map(name -> "'" + name + "'").toList())));
    }

    private static String folded(String name) {
        return name.strip().replaceAll("[\\s\\u00a0]+", " ").toLowerCase(Locale.ROOT);
    }

    private static void paleFills(PlainChart chart, List<Finding> findings) {
        Color paper = Role.PAPER.color();
        List<String> pale = chart.series().stream().filter(s -> s.fill().contrast(paper) < LEAST_CONTRAST)
                .map(Series::name).toList();
        if (!pale.isEmpty()) {
            findings.add(new Finding("a fill too pale to be seen well on paper (contrast below 3 to 1)", pale));
        }
    }
}
