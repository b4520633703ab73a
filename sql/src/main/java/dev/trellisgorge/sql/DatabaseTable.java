package dev.trellisgorge.sql;

import dev.trellisgorge.problem.Place;
import dev.trellisgorge.sql.query.CheckedQuery;
import dev.trellisgorge.sql.query.QueryRights;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.FileHead;
import java.nio.file.Path;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Supplier;

/**
 * A raw table of a {@link Database}, by the name that pipelines use. Immutable and thread-safe.
 *
 * @param name   in pipelines
 * @param rows   where its rows are
 * @param rowsBy the column that numbers its rows, where one does
 * @param kinds  of columns of the database's own that are not to be found: a number of whole numbers that would be codes, or texts of whole or decimal numbers
 */
public record DatabaseTable(String name, Rows rows, Optional<String> rowsBy, Map<String, Kind> kinds) {
    public DatabaseTable {
        Objects.requireNonNull(name, "name");
        Objects.requireNonNull(rows, "rows");
        Objects.requireNonNull(rowsBy, "rowsBy");
        kinds = Collections.unmodifiableMap(new LinkedHashMap<>(kinds)); // mistakes are told in its order
    }

    /** Whose columns are of the kinds that are found. */
    public DatabaseTable(String name, Rows rows, Optional<String> rowsBy) {
        this(name, rows, rowsBy, Map.of());
    }

    /** Where the rows of a table are. */
    public sealed interface Rows {
    }

    /** In a table or view of the database, as a person names it: {@code generation}, {@code plant.generation}. */
    public record Named(String table) implements Rows {
        public Named {
            Objects.requireNonNull(table, "table");
        }
    }

    /**
     * In what a query gives.
     *
     * @param query  as it is written; only what {@link #checked} makes of it is sent to a database
     * @param rights what it may do beyond reading tables
     */
    public record Asked(String query, QueryRights rights) implements Rows {
        public Asked {
            Objects.requireNonNull(query, "query");
            Objects.requireNonNull(rights, "rights");
        }

        /** The query as it is sent. @throws dev.trellisgorge.problem.BadInput where it may do more than its rights allow */
        public String checked(Dialect dialect, Place place) {
            return CheckedQuery.of(query, dialect.language(), rights, place);
        }
    }

    /** At hand, in their order: the embedded engine is given them as it asks for them, for other databases they are copied into a temporary table. */
    public record AtHand(Table table) implements Rows {
        public AtHand {
            Objects.requireNonNull(table, "table");
        }
    }

    /**
     * In a file of delimited text or JSON that is not read before it is asked for: an embedded engine is given its rows, a cluster reads them by itself. Where
     * they are not plain, it is read here, and copied.
     *
     * @param file  where they are
     * @param shown what messages call it
     * @param head  what its first rows tell
     * @param other reads it here; where there is none, the first statement over a file that is to be read here is a {@link ReadOtherwise}
     */
    public record InFile(Path file, String shown, FileHead head, Optional<Supplier<Table>> other) implements Rows {
        public InFile {
            Objects.requireNonNull(file, "file");
            Objects.requireNonNull(shown, "shown");
            Objects.requireNonNull(head, "head");
            Objects.requireNonNull(other, "other");
        }

        /** The rows as the reader here reads them. @throws ReadOtherwise where there is none */
        public Table readHere() {
            return other.orElseThrow(() -> new ReadOtherwise(Place.inFile(shown))).get();
        }
    }

    /**
     * In a Parquet file, which an embedded engine reads by itself.
     *
     * @param shown what messages call it
     */
    public record InParquet(Path file, String shown) implements Rows {
        /** Messages call it by its path. */
        public InParquet(Path file) {
            this(file, file.toString());
        }

        public InParquet {
            Objects.requireNonNull(file, "file");
            Objects.requireNonNull(shown, "shown");
        }
    }

    /** A table or view of the database, of that name or another. */
    public static DatabaseTable named(String name, String table) {
        return new DatabaseTable(name, new Named(table), Optional.empty());
    }

    /** What a query gives that only reads tables. */
    public static DatabaseTable asked(String name, String query) {
        return asked(name, query, QueryRights.NONE);
    }

    /** What a query gives that may do more. */
    public static DatabaseTable asked(String name, String query, QueryRights rights) {
        return new DatabaseTable(name, new Asked(query, rights), Optional.empty());
    }

    /** A table that is at hand, by its own name. */
    public static DatabaseTable of(Table table) {
        return new DatabaseTable(table.name(), new AtHand(table), Optional.empty());
    }

    /** With a column that numbers its rows; without, they are in no order, see {@link Sql#rowsBy}. */
    public DatabaseTable rowsBy(String column) {
        return new DatabaseTable(name, rows, Optional.of(column), kinds);
    }

    /** With kinds of columns that are stated. */
    public DatabaseTable kinds(Map<String, Kind> stated) {
        return new DatabaseTable(name, rows, rowsBy, stated);
    }
}
