package dev.trellisgorge.audit;

import dev.trellisgorge.chart.Color;
import dev.trellisgorge.chart.ColorVision;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.plan.ComputedColumns;
import dev.trellisgorge.plan.Identity;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.plan.StepProof;
import dev.trellisgorge.plan.RowWarning;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Numbers;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/**
 * The proof of one chart: each identity held against the helper cells themselves, and what a reader should know. Immutable and thread-safe.
 *
 * @param chart    the chart that was audited
 * @param proofs   one an identity
 * @param notes in the order of the rules; none is a mistake
 */
public record Audit(PlainChart chart, List<Proof> proofs, List<Note> notes) {
    private static final double LEAST_CONTRAST = 3;
    private static final double LEAST_DIFFERENCE = 10;
    private static final double CLOSE = 1e-9;

    public Audit {
        Objects.requireNonNull(chart, "chart");
        proofs = List.copyOf(proofs);
        notes = List.copyOf(notes);
    }

    public static Audit of(PlainChart chart) {
        ComputedColumns data = chart.data();
        Map<String, Formula> asked = new LinkedHashMap<>();
        List<RowWarning> watches = chart.plan().watches();
        List<Identity> identities = chart.plan().identities();
        for (int i = 0; i < watches.size(); i++) {
            asked.put("when " + i, watches.get(i).when());
            asked.put("figure " + i, watches.get(i).figure());
            asked.put("limit " + i, watches.get(i).limit().orElse(Formulas.absent()));
        }
        for (int i = 0; i < identities.size(); i++) {
            asked.put("where " + i, identities.get(i).where());
            asked.put("holds " + i, identities.get(i).holds());
            asked.put("left " + i, identities.get(i).left());
            asked.put("right " + i, identities.get(i).right());
        }
        Map<String, Column> cells = data.evaluate(asked);
        List<Note> notes = new ArrayList<>(chart.notes());
        for (int i = 0; i < watches.size(); i++) {
            watched(data.category(), watches.get(i), cells.get("when " + i), cells.get("figure " + i), cells.get("limit " + i), notes);
        }
        similarCategories(data.category(), notes);
        PlainChart seen = chart.withoutEmptySeries();
        notes.addAll(Claims.notes(chart));
        paleFills(seen, notes);
        fillsAlike(seen, notes);
        List<Proof> proofs = new ArrayList<>();
        for (int i = 0; i < identities.size(); i++) {
            proofs.add(prove(data.category(), identities.get(i), cells.get("where " + i), cells.get("holds " + i), cells.get("left " + i), cells.get("right " + i)));
        }
        SumProof.of(chart.plan(), data).ifPresent(proofs::add);
        chart.stepProofs().forEach(proof -> proofs.add(prove(proof)));
        return new Audit(chart, proofs, notes);
    }

    /** Whether every identity holds on every row. */
    public boolean holds() {
        return proofs.stream().allMatch(Proof::holds);
    }

    private static Proof prove(Column category, Identity identity, Column where, Column holds, Column left, Column right) {
        int[] rows = IntStream.range(0, category.size()).filter(row -> where.number(row) == 1).toArray();
        List<Proof.Failure> failures = IntStream.of(rows).filter(row -> holds.number(row) != 1)
                .mapToObj(row -> new Proof.Failure(category.written(row), left.number(row), right.number(row))).toList();
        return new Proof(identity.statement(), rows.length, failures);
    }

    /** What steps left as it was: before them and after, within the rounding of figures of that size. */
    private static Proof prove(StepProof proof) {
        double largest = proof.before().stream().mapToDouble(Math::abs).filter(figure -> !Double.isNaN(figure)).max().orElse(0);
        List<Proof.Failure> failures = IntStream.range(0, proof.names().size()).filter(i -> !(Math.abs(proof.after().get(i) - proof.before().get(i)) <= largest * CLOSE)
                && !(proof.after().get(i).isNaN() && proof.before().get(i).isNaN()))
                .mapToObj(i -> new Proof.Failure(proof.names().get(i), proof.after().get(i), proof.before().get(i))).toList();
        return new Proof(proof.statement(), proof.names().size(), failures);
    }

    private static void watched(Column category, RowWarning watch, Column when, Column figure, Column limit, List<Note> notes) {
        List<String> rows = IntStream.range(0, category.size()).filter(row -> when.number(row) == 1)
                .mapToObj(row -> category.written(row) + (limit.isPresent(row) ? " (" + figure.written(row) + " against " + limit.written(row) + ")"
                        : figure.isPresent(row) ? " (" + Numbers.brief(figure.number(row)) + ")" : ""))
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
