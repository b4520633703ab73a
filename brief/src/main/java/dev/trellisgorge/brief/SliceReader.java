package dev.trellisgorge.brief;

import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.brief.Mapping.Text;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.shape.Cut;
import dev.trellisgorge.shape.Slice;
import dev.trellisgorge.shape.Step;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Reads a slice: {@code {column: cell}}, where a cell is one as it is written, a setting, a list of them, or {@code {from: …, to: …}}; and
 * {@code on-raw: true}, by which the columns are the raw table's.
 *
 * @param cuts  by column
 * @param onRaw whether the raw table is sliced, before all steps
 */
record SliceReader(Map<String, Cut> cuts, boolean onRaw) {
    static final String ON_RAW = "on-raw";
    static final SliceReader NONE = new SliceReader(Map.of(), false);

    List<Step> steps() {
        return cuts.entrySet().stream().<Step>map(cut -> new Slice(cut.getKey(), cut.getValue())).toList();
    }

    /** What is wrong is reported, and then not sliced by. */
    static SliceReader read(Mapping slice, Expressions shaped, Expressions raw) {
        boolean onRaw = slice.has(ON_RAW) && slice.truth(ON_RAW);
        Expressions columns = onRaw ? raw : shaped;
        Map<String, Cut> cuts = new LinkedHashMap<>();
        for (String column : slice.keys()) {
            if (!column.equals(ON_RAW) && columns.column(new Text(column, slice.keyPlace(column))).isPresent()) {
                cut(slice, column, columns).ifPresent(cut -> cuts.put(column, cut));
            }
        }
        if (onRaw && slice.keyList().size() == 1) {
            slice.refuse(ON_RAW, ProblemKind.UNKNOWN_NAME, "there is no column to slice by");
        }
        return new SliceReader(cuts, onRaw);
    }

    private static Optional<Cut> cut(Mapping slice, String column, Expressions columns) {
        if (slice.isMapping(column)) {
            Mapping range = slice.mapping(column).orElseThrow().allowing(ChartSchema.RANGE);
            if (!range.has("from") && !range.has("to")) {
                slice.refuse(column, ProblemKind.INVALID, "a range has 'from', 'to' or both");
                return Optional.empty();
            }
            Optional<Formula> from = range.text("from").flatMap(text -> stated(text, columns));
            Optional<Formula> to = range.text("to").flatMap(text -> stated(text, columns));
            return from.isEmpty() && to.isEmpty() ? Optional.empty() : Optional.of(new Cut.Range(from, to));
        }
        if (slice.isList(column) && slice.isEmpty(column)) {
            slice.refuse(column, ProblemKind.MISSING, "the list has no cell");
        }
        List<Text> texts = slice.isList(column) ? slice.texts(column) : slice.text(column).stream().toList();
        List<Formula> cells = texts.stream().flatMap(text -> stated(text, columns).stream()).toList();
        return cells.isEmpty() ? Optional.empty() : Optional.of(new Cut.OneOf(cells));
    }

    private static Optional<Formula> stated(Text text, Expressions columns) {
        return text.value().startsWith(":") ? columns.setting(text, text.value().substring(1)) : Optional.of(Formulas.text(text.value()));
    }
}
