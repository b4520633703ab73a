package dev.trellisgorge.sql;

import dev.trellisgorge.table.Schema;
import dev.trellisgorge.table.Table;
import java.util.Objects;
import java.util.Optional;

/**
 * Where a statement finds the rows of a raw table.
 *
 * @param from   what stands behind FROM
 * @param schema the columns
 * @param rowsBy an expression that grows from row to row; none where the rows are in no order
 * @param copied the table at hand that it is a copy of, which is gone with the connection; none where it is the database's own
 */
record TableSource(String from, Schema schema, Optional<String> rowsBy, Optional<Table> copied) {
    TableSource {
        Objects.requireNonNull(from, "from");
        Objects.requireNonNull(schema, "schema");
        Objects.requireNonNull(rowsBy, "rowsBy");
        Objects.requireNonNull(copied, "copied");
    }

    /** A table that is called as the raw table is. */
    static TableSource named(String table, Schema schema, Optional<String> rowsBy, Dialect dialect) {
        return new TableSource(dialect.quoted(table), schema, rowsBy.map(dialect::quoted), Optional.empty());
    }
}
