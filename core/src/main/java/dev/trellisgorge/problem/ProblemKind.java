package dev.trellisgorge.problem;

/**
 * What sort of mistake a problem is: for programs that act on it, or that say it in another language. The sentences of problems
 * may change from release to release; these constants and what they mean do not.
 */
public enum ProblemKind {
    /** Something is named that does not exist: a column, table, chart, series, key, setting or sheet. */
    UNKNOWN_NAME,
    /** Something that is required was not given. */
    MISSING,
    /** A value was given that can't be used here. */
    INVALID,
    /** Two things were given that exclude each other, or one that has no effect beside the rest; two names are the same. */
    CONFLICT,
    /** A brief, an expression or a query can't be parsed. */
    SYNTAX,
    /** A column or an expression is of one type (number, text, date, truth value), and another is required. */
    WRONG_TYPE,
    /** A row, cell or header of the data can't be used. */
    DATA,
    /** There are no rows, or no rows are left. */
    NO_ROWS,
    /** A file is not there, can't be read, or is not what it is taken for. */
    UNREADABLE,
    /** A file can't be written, or would replace one that must stay. */
    NOT_WRITABLE,
    /** The kind of file, database or program does not support what is asked for. */
    UNSUPPORTED,
    /** More than can be taken: a limit is exceeded, or memory. */
    TOO_LARGE,
    /** Forbidden until the one who runs the brief allows it. */
    NOT_ALLOWED,
    /** There is no connection to a database or cluster, or it was lost. */
    CONNECTION,
    /** A database or cluster rejects a statement. */
    DATABASE,
    /** The caller ended it: a statement was cancelled, or a thread interrupted. */
    CANCELLED
}
