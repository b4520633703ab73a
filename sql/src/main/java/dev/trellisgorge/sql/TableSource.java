package dev.trellisgorge.sql;

import dev.trellisgorge.table.Schema;
import java.util.Objects;
import java.util.Optional;

/**
 * Where a statement finds the rows of a raw table.
 *
 * @param from   what stands behind FROM
 * @param schema the columns
 * @param rowsBy an expression that grows from row to row; none where the rows are in no order
 * @param isCopy whether it is a table of the connection's own, and gone with it
 */
record TableSource(String from, Schema schema, Optional<String> rowsBy, boolean isCopy) {
    TableSource {
        Objects.requireNonNull(from, "from");
        Objects.requireNonNull(schema, "schema");
        Objects.requireNonNull(rowsBy, "rowsBy");
    }

    /** A table that is called as the raw table is. */
    static TableSource named(String table, Schema schema, Optional<String> rowsBy, Dialect dialect) {
        return new TableSource(dialect.quoted(table), schema, rowsBy.map(dialect::quoted), false);
    }
}
