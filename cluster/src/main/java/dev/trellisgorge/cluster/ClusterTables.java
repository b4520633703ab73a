package dev.trellisgorge.cluster;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.sql.DatabaseColumns;
import dev.trellisgorge.sql.DatabaseTable;
import dev.trellisgorge.sql.Dialect;
import dev.trellisgorge.sql.TableSource;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Schema;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.ColumnTypes;
import dev.trellisgorge.tables.FileHead;
import dev.trellisgorge.tables.JsonHead;
import dev.trellisgorge.tables.TextHead;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.apache.spark.sql.DataFrameReader;
import org.apache.spark.sql.Dataset;
import org.apache.spark.sql.Row;
import org.apache.spark.sql.RowFactory;
import org.apache.spark.sql.SparkSession;
import org.apache.spark.sql.functions;
import org.apache.spark.sql.types.BooleanType;
import org.apache.spark.sql.types.DataType;
import org.apache.spark.sql.types.DataTypes;
import org.apache.spark.sql.types.DateType;
import org.apache.spark.sql.types.DecimalType;
import org.apache.spark.sql.types.DoubleType;
import org.apache.spark.sql.types.FloatType;
import org.apache.spark.sql.types.LongType;
import org.apache.spark.sql.types.Metadata;
import org.apache.spark.sql.types.NumericType;
import org.apache.spark.sql.types.StructField;
import org.apache.spark.sql.types.StructType;
import org.apache.spark.sql.types.TimestampNTZType;
import org.apache.spark.sql.types.TimestampType;

/** Finds raw tables on a cluster: its catalogue's, files that its workers read, and copies of those at hand. */
final class ClusterTables {
    /** So many digits of a whole number every double keeps. */
    private static final int SURE_DIGITS = 15;

    private final SparkSession spark;
    private int views;

    ClusterTables(SparkSession spark) {
        this.spark = spark;
    }

    /** @throws BadInput where a table or a column is not there, or a query is wrong */
    Map<String, TableSource> sources(List<DatabaseTable> tables) {
        Map<String, TableSource> sources = new LinkedHashMap<>();
        tables.forEach(table -> sources.put(table.name(), source(table)));
        return sources;
    }

    private TableSource source(DatabaseTable table) {
        if (table.rows() instanceof DatabaseTable.AtHand here) {
            return copied(here.table());
        } else if (table.rows() instanceof DatabaseTable.InParquet parquet) {
            return parquet(table, parquet);
        } else if (table.rows() instanceof DatabaseTable.InFile file) {
            return file.head().isOfAll(file.file()) ? plain(table.name(), file) : copied(file.readHere());
        }
        Place place = Place.of("table '" + table.name() + "'");
        String from;
        if (table.rows() instanceof DatabaseTable.Asked asked) {
            from = TableSource.asked(asked, Dialect.SPARK, place);
        } else {
            from = TableSource.quoted(TableSource.parts(((DatabaseTable.Named) table.rows()).table()), Dialect.SPARK);
        }
        StructType types = types(from, place);
        String rows = widened(from, types);
        DatabaseColumns columns = columns(types, table, rows, place);
        table.rowsBy().ifPresent(columns.schema()::field);
        return TableSource.of(rows, columns, table.rowsBy().map(Dialect.SPARK::quoted));
    }

    private DatabaseColumns columns(StructType types, DatabaseTable table, String from, Place place) {
        try {
            return DatabaseColumns.of(columnTypes(types), table, from, Dialect.SPARK, spark.conf().get(Cluster.ZONE), place, this::ask);
        } catch (BadInput wrong) {
            throw wrong;
        } catch (RuntimeException e) {
            throw new BadInput(place, ProblemKind.DATABASE, "the cluster says: " + Said.of(e), e);
        }
    }

    private void ask(String query, Predicate<List<String>> more) {
        Iterator<Row> rows = spark.sql(query).toLocalIterator();
        boolean wanted = true;
        while (wanted && rows.hasNext()) {
            Row row = rows.next();
            wanted = more.test(IntStream.range(0, row.length()).mapToObj(at -> row.isNullAt(at) ? null : String.valueOf(row.get(at))).toList());
        }
    }

    /** With long whole numbers as decimal ones, of which a sum has no end. */
    private static String widened(String from, StructType types) {
        if (Stream.of(types.fields()).noneMatch(field -> field.dataType() instanceof LongType)) {
            return from;
        }
        return Stream.of(types.fields()).map(field -> {
            String column = Dialect.SPARK.quoted(field.name());
            return field.dataType() instanceof LongType ? "CAST(" + column + " AS DECIMAL(20, 0)) AS " + column : column;
        }).collect(Collectors.joining(", ", "(SELECT ", " FROM " + from + ")"));
    }

    private static ColumnTypes columnTypes(StructType types) {
        Set<String> decimals = names(types, type -> type instanceof NumericType && !(type instanceof DoubleType || type instanceof FloatType)).collect(Collectors.toSet());
        return new ColumnTypes(fields(types), decimals, names(types, TimestampType.class::isInstance).toList(),
                names(types, type -> type instanceof LongType || type instanceof DecimalType decimal && decimal.scale() <= 0 && decimal.precision() > SURE_DIGITS).toList());
    }

    private static Stream<String> names(StructType types, Predicate<DataType> wanted) {
        return Stream.of(types.fields()).filter(field -> wanted.test(field.dataType())).map(StructField::name);
    }

    private StructType types(String from, Place place) {
        try {
            return spark.sql("SELECT * FROM " + from + " LIMIT 0").schema();
        } catch (Exception e) { // of the parser and the catalogue, which are checked and not declared
            throw new BadInput(place, ProblemKind.DATABASE, "the cluster says: " + Said.of(e), e);
        }
    }

    private static List<Field> fields(StructType types) {
        return Stream.of(types.fields()).map(field -> Field.of(field.name(), kind(field.dataType()))).toList();
    }

    private static Kind kind(DataType type) {
        return type instanceof NumericType ? Kind.NUMBER : type instanceof DateType || type instanceof TimestampType || type instanceof TimestampNTZType ? Kind.DATE : type instanceof BooleanType ? Kind.TRUTH : Kind.TEXT;
    }

    private static DataType type(Kind kind) {
        return switch (kind) {
            case NUMBER -> DataTypes.DoubleType;
            case TEXT -> DataTypes.StringType;
            case DATE -> DataTypes.DateType;
            case TRUTH -> DataTypes.BooleanType;
        };
    }

    /** Rows under a name that statements find. */
    private TableSource viewed(Dataset<Row> rows, Schema schema, String number, Optional<Table> copied) {
        return new TableSource(viewed(rows), schema, Optional.of(Dialect.SPARK.quoted(number)), copied, true);
    }

    private String viewed(Dataset<Row> rows) {
        String view = Dialect.SPARK.quoted("raw " + ++views);
        rows.createOrReplaceTempView(view);
        return view;
    }

    /** The workers have the file too, or see it at the same place. */
    private TableSource parquet(DatabaseTable table, DatabaseTable.InParquet file) {
        Place place = Place.inFile(file.shown());
        try {
            Dataset<Row> rows = spark.read().parquet(url(file.file()));
            StructType types = rows.schema();
            String number = Schema.of(table.name(), place, fields(types)).free("row");
            String from = viewed(rows.withColumn(number, functions.col("_metadata.row_index")));
            DatabaseColumns columns = columns(types, table, from, place);
            return new TableSource(widened(from, types.add(number, DataTypes.DoubleType)), columns.schema(), Optional.of(Dialect.SPARK.quoted(number)), Optional.empty(), true, columns.decimals(), columns.notes());
        } catch (BadInput wrong) {
            throw wrong;
        } catch (Exception e) {
            throw new BadInput(place, ProblemKind.UNREADABLE, "is no Parquet file that can be read: " + Said.of(e), e);
        }
    }

    /** Parts of a file are numbered as they follow each other, and the rows of each part in their order. */
    private TableSource plain(String name, DatabaseTable.InFile file) {
        FileHead head = file.head();
        Schema schema = Schema.of(name, Place.inFile(file.shown()), head.fields());
        StructType types = new StructType(head.fields().stream().map(field -> new StructField(field.name(), type(field.kind()), true, Metadata.empty())).toArray(StructField[]::new));
        String number = schema.free("row");
        DataFrameReader reader = spark.read().schema(types).option("mode", "FAILFAST").option("dateFormat", "yyyy-MM-dd");
        Dataset<Row> rows = head instanceof JsonHead json ? filled(reader.option("multiLine", !json.lines()).json(url(file.file())), head)
                : reader.option("header", true).option("sep", String.valueOf(((TextHead) head).delimiter())).option("quote", "\"").option("escape", "\"").csv(url(file.file()));
        return viewed(rows.withColumn(number, functions.monotonically_increasing_id()), schema, number, Optional.empty());
    }

    /** Empty texts are missing. */
    private static Dataset<Row> filled(Dataset<Row> rows, FileHead head) {
        return rows.selectExpr(head.fields().stream().map(field -> {
            String column = Dialect.SPARK.quoted(field.name());
            return field.kind() == Kind.TEXT ? "NULLIF(" + column + ", '') AS " + column : column;
        }).toArray(String[]::new));
    }

    private static String url(Path file) {
        return file.toAbsolutePath().toUri().toString();
    }

    private TableSource copied(Table table) {
        String number = table.schema().free("row");
        List<StructField> fields = new ArrayList<>(List.of(new StructField(number, DataTypes.IntegerType, true, Metadata.empty())));
        table.columns().forEach(column -> fields.add(new StructField(column.name(), type(column.kind()), true, Metadata.empty())));
        List<Row> rows = new ArrayList<>();
        for (int row = 0; row < table.rowCount(); row++) {
            Object[] cells = new Object[fields.size()];
            cells[0] = row + 1;
            for (int i = 1; i < cells.length; i++) {
                Column column = table.columns().get(i - 1);
                cells[i] = column.isPresent(row) ? ClusterSession.cell(column, row) : null;
            }
            rows.add(RowFactory.create(cells));
        }
        return viewed(spark.createDataFrame(rows, new StructType(fields.toArray(StructField[]::new))), table.schema(), number, Optional.of(table));
    }
}
