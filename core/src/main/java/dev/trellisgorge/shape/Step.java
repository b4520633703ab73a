package dev.trellisgorge.shape;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.table.Schema;
import dev.trellisgorge.table.Table;
import java.util.List;

/**
 * One step from a table to the next, as data. What it means stands in its own file: for the columns in {@link #schema}, for
 * the order of the rows in {@link #order}, for the cells in {@link #apply}, in words in {@link #sentence}; what else
 * others need to know in {@link #traits}. Immutable and thread-safe.
 */
public sealed interface Step permits AddRow, Choose, AddColumn, Join, Keep, Order, PeriodOf, Pivot, Previous, Rank, Rename, Slice, Top, Total, Unpivot {

    /** One method a step: what forgets one does not compile. */
    interface Cases<R> {
        R addRow(AddRow step);

        R choose(Choose step);

        R addColumn(AddColumn step);

        R join(Join step);

        R keep(Keep step);

        R order(Order step);

        R periodOf(PeriodOf step);

        R pivot(Pivot step);

        R previous(Previous step);

        R rank(Rank step);

        R rename(Rename step);

        R slice(Slice step);

        R top(Top step);

        R total(Total step);

        R unpivot(Unpivot step);
    }

    <R> R match(Cases<R> cases);

    /**
     * The columns after this step, without a cell.
     *
     * @throws dev.trellisgorge.problem.BadInput where the step names what is not there, or of the wrong kind
     */
    Schema schema(Schema before, Catalog known);

    /** What the rows are sorted by after this step; rows with equal keys stand as they came from the raw table. */
    List<SortKey> order(List<SortKey> before);

    /** What it does with rows. */
    Traits traits();

    /** The formulas that it reads rows with. */
    default List<Formula> formulas() {
        return traits().formulas();
    }

    /** What it does: {@code keep the first 3 rows}. */
    String sentence();

    /** What a reader should know of the step that shows from the columns alone; often nothing. Part of what {@link #apply} notes. */
    default List<Note> notes(Schema before) {
        return List.of();
    }

    /**
     * The table after this step, with its notes and what a reader should know of the step; called by {@link Executor} alone.
     *
     * @param table fits {@link #schema}; any number of rows
     * @throws dev.trellisgorge.problem.BadInput where a cell is wrong, or the step would lose or double something unasked
     */
    Table apply(Table table, Run run);
}
