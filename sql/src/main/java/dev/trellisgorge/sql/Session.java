package dev.trellisgorge.sql;

import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Field;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;

/** Where raw tables are and statements run: a database, or a cluster. One statement at a time; {@link #cancel} may come from any thread. */
public interface Session extends AutoCloseable {

    /** What it speaks. */
    Dialect dialect();

    /**
     * Finds raw tables, once and before any statement; those at hand are copied, and are gone when it is closed. From then on it only reads.
     *
     * @return by the names that pipelines use
     * @throws dev.trellisgorge.problem.BadInput where a table or column is not there, or is of no kind that is known
     */
    Map<String, TableSource> sources(List<DatabaseTable> tables);

    /**
     * The rows that a statement gives.
     *
     * @param name   the table that it is about, for messages
     * @param fields the columns that it gives, each with a name of its own
     * @param few    whether they can't be many, so that there is no need to fetch them in parts
     * @throws dev.trellisgorge.problem.BadInput with what is said of a statement that fails or was cancelled
     */
    List<Column> rows(String name, Sql.Parametrised statement, List<Field> fields, boolean few);

    /**
     * Runs statements that make views, all or none of them where what was made can be taken back.
     *
     * @throws dev.trellisgorge.problem.BadInput where one of them fails, or views would not outlast the session
     */
    void make(List<String> statements);

    /** How far the statement is that runs, from 0 to 1; empty where none does, or the engine does not tell. From any thread. */
    OptionalDouble share();

    /** Stops the statement that runs, if one does; whoever waits for it is told that it was cancelled. */
    void cancel();

    @Override
    void close();

    /** Where it is, without a password. */
    @Override
    String toString();
}
