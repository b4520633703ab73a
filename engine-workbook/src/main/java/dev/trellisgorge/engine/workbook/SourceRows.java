package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.table.Table;
import java.util.Optional;

/**
 * The rows that formulas read, as they stand in the workbook. A cell that is missing is blank there, or an error where a formula
 * makes it.
 */
interface SourceRows {

    /** The rows as they are when the workbook is made, in the order of their lines. */
    Table rows();

    /** How many lines there are for rows: at least as many as rows. */
    int lines();

    /** The sheet that a reader looks them up on. */
    String sheet();

    /**
     * The cell of a column, with its line marked.
     *
     * @param from the sheet on which the formula stands
     */
    String cell(String column, String from);

    /** Whether a column stands in the workbook. */
    boolean has(String column);

    /** Whether the cells of a column are formulas. */
    boolean isComputed(String column);

    /** The cells of such a column on all lines, from another sheet or its own. */
    String range(String column, String from);

    /** The line of the raw sheet that a row stands on, as a reader counts them. */
    int rawLine(int row);

    /** The cells of some rows of the whole table below each other, as they stand on the raw sheet; rows from 0. */
    String area(String column, int first, int last);

    /** Whether a row is on no raw sheet. */
    boolean isAdded(int row);

    /** Whether a column has a cell on each row that was added, or on each that was not. */
    boolean isWhole(String column, boolean added);

    /**
     * A condition, with its line marked, that holds where a row stands on the line; empty where one always does.
     *
     * @param from as for {@link #cell}
     */
    Optional<String> there(String from);

    /**
     * A formula of how many rows there are; empty where each line has one.
     *
     * @param from as for {@link #cell}
     */
    Optional<String> count(String from);
}
