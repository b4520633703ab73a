package dev.trellisgorge.shape;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Typing;
import dev.trellisgorge.formula.ColumnReferences;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Schema;
import dev.trellisgorge.table.Table;
import java.util.Objects;
import java.util.stream.IntStream;
import java.util.List;

/**
 * Keeps the rows on which a condition is true, in their order; one that can't be told, as a cell is missing, is not. Immutable and thread-safe.
 *
 * @param condition gives true or false
 */
public record Keep(Formula condition) implements Step {
    public Keep {
        Objects.requireNonNull(condition, "condition");
    }

    @Override
    public Schema schema(Schema before, Catalog known) {
        Kind kind = new Typing(before, known.settings()).kind(condition).orElse(Kind.TRUTH);
        if (kind != Kind.TRUTH) {
            throw new BadInput(before.place(), ProblemKind.WRONG_TYPE, "a condition is needed, and '" + condition + "' is " + kind.phrase());
        }
        return before;
    }

    @Override
    public List<SortKey> order(List<SortKey> before) {
        return before;
    }

    @Override
    public Traits traits() {
        return Traits.of(List.of(condition)).filtering(ColumnReferences.columns(condition));
    }

    @Override
    public <R> R match(Cases<R> cases) {
        return cases.keep(this);
    }

    @Override
    public String sentence() {
        return "keep the rows where " + condition;
    }

    @Override
    public Table apply(Table table, Run run) {
        Column truth = run.evaluate(table, "keep", condition);
        int[] kept = IntStream.range(0, table.rowCount()).filter(row -> truth.number(row) == 1).toArray();
        int unknown = (int) IntStream.range(0, table.rowCount()).filter(row -> !truth.isPresent(row)).count();
        return DroppedRows.told(table, kept, (left, all, amounts, names) -> StepNotes.leftOut(this, left, all, unknown, amounts, names));
    }
}
