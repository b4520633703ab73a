package dev.trellisgorge.sql.query;

import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.function.Consumer;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import net.sf.jsqlparser.expression.AllValue;
import net.sf.jsqlparser.expression.AnalyticExpression;
import net.sf.jsqlparser.expression.AnalyticType;
import net.sf.jsqlparser.expression.AnyComparisonExpression;
import net.sf.jsqlparser.expression.ArrayConstructor;
import net.sf.jsqlparser.expression.BinaryExpression;
import net.sf.jsqlparser.expression.BooleanValue;
import net.sf.jsqlparser.expression.CaseExpression;
import net.sf.jsqlparser.expression.CastExpression;
import net.sf.jsqlparser.expression.CollateExpression;
import net.sf.jsqlparser.expression.DateTimeLiteralExpression;
import net.sf.jsqlparser.expression.DateUnitExpression;
import net.sf.jsqlparser.expression.DoubleValue;
import net.sf.jsqlparser.expression.Expression;
import net.sf.jsqlparser.expression.ExtractExpression;
import net.sf.jsqlparser.expression.Function;
import net.sf.jsqlparser.expression.HexValue;
import net.sf.jsqlparser.expression.IntervalExpression;
import net.sf.jsqlparser.expression.IntervalQualifier;
import net.sf.jsqlparser.expression.JsonExpression;
import net.sf.jsqlparser.expression.LongValue;
import net.sf.jsqlparser.expression.NotExpression;
import net.sf.jsqlparser.expression.NullValue;
import net.sf.jsqlparser.expression.PartitionByClause;
import net.sf.jsqlparser.expression.RowConstructor;
import net.sf.jsqlparser.expression.SignedExpression;
import net.sf.jsqlparser.expression.StringValue;
import net.sf.jsqlparser.expression.TimeKeyExpression;
import net.sf.jsqlparser.expression.TimezoneExpression;
import net.sf.jsqlparser.expression.TrimFunction;
import net.sf.jsqlparser.expression.WhenClause;
import net.sf.jsqlparser.expression.WindowDefinition;
import net.sf.jsqlparser.expression.WindowElement;
import net.sf.jsqlparser.expression.WindowOffset;
import net.sf.jsqlparser.expression.operators.arithmetic.Addition;
import net.sf.jsqlparser.expression.operators.arithmetic.BitwiseAnd;
import net.sf.jsqlparser.expression.operators.arithmetic.BitwiseLeftShift;
import net.sf.jsqlparser.expression.operators.arithmetic.BitwiseOr;
import net.sf.jsqlparser.expression.operators.arithmetic.BitwiseRightShift;
import net.sf.jsqlparser.expression.operators.arithmetic.BitwiseXor;
import net.sf.jsqlparser.expression.operators.arithmetic.Concat;
import net.sf.jsqlparser.expression.operators.arithmetic.Division;
import net.sf.jsqlparser.expression.operators.arithmetic.Modulo;
import net.sf.jsqlparser.expression.operators.arithmetic.Multiplication;
import net.sf.jsqlparser.expression.operators.arithmetic.Subtraction;
import net.sf.jsqlparser.expression.operators.conditional.AndExpression;
import net.sf.jsqlparser.expression.operators.conditional.OrExpression;
import net.sf.jsqlparser.expression.operators.relational.Between;
import net.sf.jsqlparser.expression.operators.relational.EqualsTo;
import net.sf.jsqlparser.expression.operators.relational.ExistsExpression;
import net.sf.jsqlparser.expression.operators.relational.ExpressionList;
import net.sf.jsqlparser.expression.operators.relational.GreaterThan;
import net.sf.jsqlparser.expression.operators.relational.GreaterThanEquals;
import net.sf.jsqlparser.expression.operators.relational.InExpression;
import net.sf.jsqlparser.expression.operators.relational.IsBooleanExpression;
import net.sf.jsqlparser.expression.operators.relational.IsDistinctExpression;
import net.sf.jsqlparser.expression.operators.relational.IsNullExpression;
import net.sf.jsqlparser.expression.operators.relational.LikeExpression;
import net.sf.jsqlparser.expression.operators.relational.MinorThan;
import net.sf.jsqlparser.expression.operators.relational.MinorThanEquals;
import net.sf.jsqlparser.expression.operators.relational.NamedExpressionList;
import net.sf.jsqlparser.expression.operators.relational.NotEqualsTo;
import net.sf.jsqlparser.expression.operators.relational.ParenthesedExpressionList;
import net.sf.jsqlparser.expression.operators.relational.RegExpMatchOperator;
import net.sf.jsqlparser.schema.Column;
import net.sf.jsqlparser.statement.create.table.ColDataType;
import net.sf.jsqlparser.statement.select.AllColumns;
import net.sf.jsqlparser.statement.select.AllTableColumns;
import net.sf.jsqlparser.statement.select.LateralSubSelect;
import net.sf.jsqlparser.statement.select.OrderByElement;
import net.sf.jsqlparser.statement.select.ParenthesedSelect;
import net.sf.jsqlparser.statement.select.PlainSelect;
import net.sf.jsqlparser.statement.select.Select;
import net.sf.jsqlparser.statement.select.SetOperationList;
import net.sf.jsqlparser.statement.select.Values;

/** Writes parsed expressions anew, from the parts that are known to compute and do nothing else. */
final class ExpressionWriter {
    private static final Set<String> TYPE_WORDS = Set.of("BOOLEAN", "BOOL", "CHAR", "CHARACTER", "VARYING", "VARCHAR", "TEXT", "STRING", "TINYINT", "SMALLINT", "INTEGER", "INT", "INT2", "INT4", "INT8", "BIGINT", "HUGEINT",
            "UTINYINT", "USMALLINT", "UINTEGER", "UBIGINT", "DECIMAL", "NUMERIC", "DECFLOAT", "REAL", "FLOAT", "FLOAT4", "FLOAT8", "DOUBLE", "PRECISION", "DATE", "TIME", "TIMESTAMP", "TIMESTAMPTZ", "DATETIME", "INTERVAL", "WITH", "WITHOUT",
            "LOCAL", "ZONE", "UUID", "BYTEA", "BLOB", "BINARY", "VARBINARY", "JSON", "JSONB", "YEAR", "MONTH", "DAY", "HOUR", "MINUTE", "SECOND", "TO", "(", ")", ",", "[", "]");
    private static final Pattern DIGITS = Pattern.compile("\\d+");
    private static final Pattern PLAIN_NAME = Pattern.compile("[A-Za-z_][A-Za-z0-9_]*");
    private static final List<Class<? extends BinaryExpression>> OPERATORS = List.of(Addition.class, Subtraction.class, Multiplication.class, Division.class, Modulo.class, Concat.class, BitwiseAnd.class, BitwiseOr.class, BitwiseXor.class,
            BitwiseLeftShift.class, BitwiseRightShift.class, AndExpression.class, OrExpression.class, EqualsTo.class, NotEqualsTo.class, GreaterThan.class, GreaterThanEquals.class, MinorThan.class, MinorThanEquals.class,
            RegExpMatchOperator.class);
    private static final List<Class<? extends Select>> SELECTS = List.of(ParenthesedSelect.class, LateralSubSelect.class, PlainSelect.class, SetOperationList.class, Values.class);

    private final Nodes nodes = new Nodes();
    private final QueryLanguage language;
    private final java.util.function.Function<Select, String> selects;
    private final Consumer<String> called;

    /** @param called is told of each function that is called */
    ExpressionWriter(QueryLanguage language, java.util.function.Function<Select, String> selects, Consumer<String> called) {
        this.language = language;
        this.selects = selects;
        this.called = called;
        values();
        operators();
        calls();
        SELECTS.forEach(type -> nodes.add(type, selects::apply));
    }

    String of(Expression expression) {
        return nodes.written(expression);
    }

    /** One after the other, with commas. */
    String list(Collection<?> expressions) {
        return expressions.stream().map(nodes::written).collect(Collectors.joining(", "));
    }

    private String words(Object... pieces) {
        return Words.of(Stream.of(pieces).map(piece -> piece instanceof Expression expression ? of(expression) : piece).toArray());
    }

    private void values() {
        nodes.add(LongValue.class, LongValue::getStringValue);
        nodes.add(DoubleValue.class, value -> value.toString());
        nodes.add(HexValue.class, HexValue::getValue);
        nodes.add(StringValue.class, value -> value.getPrefix() == null && "'".equals(value.getQuoteStr()) ? "'" + value.getValue() + "'" : Nodes.UNKNOWN);
        nodes.add(NullValue.class, value -> "NULL");
        nodes.add(BooleanValue.class, value -> value.getValue() ? "TRUE" : "FALSE");
        nodes.add(AllValue.class, value -> "ALL");
        nodes.add(DateUnitExpression.class, unit -> unit.getType().toString()); // a column, where it stands for itself
        nodes.add(DateTimeLiteralExpression.class, value -> value.getType() + " " + value.getValue());
        nodes.add(TimeKeyExpression.class, this::timeKey);
        nodes.add(IntervalExpression.class, value -> words(Words.when(value.isUsingIntervalKeyword(), "INTERVAL"), value.getParameter(), value.getExpression(), qualifier(value.getIntervalQualifier())));
        nodes.add(Column.class, column -> (column.getTable() == null ? "" : Words.named(column.getTable()) + ".") + column.getColumnName() + (column.getArrayConstructor() == null ? "" : of(column.getArrayConstructor())));
        nodes.add(AllColumns.class, all -> "*" + except(all));
        nodes.add(AllTableColumns.class, all -> Words.named(all.getTable()) + ".*" + except(all));
        nodes.add(ArrayConstructor.class, array -> Words.when(array.isArrayKeyword(), "ARRAY") + "[" + list(array.getExpressions()) + "]");
        nodes.add(ExpressionList.class, this::list);
        nodes.add(ParenthesedExpressionList.class, list -> "(" + list(list) + ")");
        nodes.add(RowConstructor.class, row -> words(row.getName()) + "(" + list(row) + ")");
    }

    private String except(AllColumns all) {
        return all.getExceptColumns() == null ? "" : " " + all.getExceptKeyword() + " (" + list(all.getExceptColumns()) + ")";
    }

    private String timeKey(TimeKeyExpression key) {
        called.accept(key.getStringValue().replaceFirst("\\(.*", ""));
        return key.getStringValue();
    }

    private static String qualifier(IntervalQualifier qualifier) {
        return qualifier == null ? "" : qualifier.getLeadingField() + (qualifier.getTrailingField() == null ? "" : " TO " + qualifier.getTrailingField());
    }

    private void operators() {
        OPERATORS.forEach(this::operator);
        nodes.add(SignedExpression.class, signed -> signed.getSign() + of(signed.getExpression()));
        nodes.add(NotExpression.class, not -> words("NOT", not.getExpression()));
        nodes.add(Between.class, between -> words(between.getLeftExpression(), not(between.isNot()), "BETWEEN", between.getBetweenExpressionStart(), "AND", between.getBetweenExpressionEnd()));
        nodes.add(InExpression.class, in -> words(in.getLeftExpression(), not(in.isNot()), "IN", in.getRightExpression()));
        nodes.add(IsNullExpression.class, is -> words(is.getLeftExpression(), "IS", not(is.isNot()), "NULL"));
        nodes.add(IsBooleanExpression.class, is -> words(is.getLeftExpression(), "IS", not(is.isNot()), is.isTrue() ? "TRUE" : "FALSE"));
        nodes.add(IsDistinctExpression.class, is -> words(is.getLeftExpression(), "IS", not(is.isNot()), "DISTINCT FROM", is.getRightExpression()));
        nodes.add(ExistsExpression.class, exists -> words(not(exists.isNot()), "EXISTS", exists.getRightExpression()));
        nodes.add(AnyComparisonExpression.class, any -> words(any.getAnyType(), any.getSelect()));
        nodes.add(LikeExpression.class, like -> words(like.getLeftExpression(), not(like.isNot()), like.getLikeKeyWord().toString().replace('_', ' '), like.getRightExpression(), Words.before("ESCAPE", like.getEscape(), this::of)));
        nodes.add(CollateExpression.class, collate -> words(collate.getLeftExpression(), "COLLATE", collate.getCollate()));
        nodes.add(TimezoneExpression.class, zone -> words(zone.getLeftExpression(), zone.getTimezoneExpressions().stream().map(each -> "AT TIME ZONE " + of(each)).collect(Collectors.joining(" "))));
        nodes.add(JsonExpression.class, json -> of(json.getExpression()) + json.getIdentList().stream().map(ident -> " " + ident.getValue() + " " + of(ident.getKey())).collect(Collectors.joining()));
        nodes.add(CaseExpression.class, choice -> words("CASE", choice.getSwitchExpression(), choice.getWhenClauses().stream().map(this::of).collect(Collectors.joining(" ")), Words.before("ELSE", choice.getElseExpression(), this::of), "END"));
        nodes.add(WhenClause.class, when -> words("WHEN", when.getWhenExpression(), "THEN", when.getThenExpression()));
    }

    private <T extends BinaryExpression> void operator(Class<T> type) {
        nodes.add(type, binary -> words(binary.getLeftExpression(), binary.getStringExpression(), binary.getRightExpression()));
    }

    private static String not(boolean negated) {
        return Words.when(negated, "NOT");
    }

    private void calls() {
        nodes.add(Function.class, this::call);
        nodes.add(AnalyticExpression.class, this::analytic);
        nodes.add(CastExpression.class, cast -> cast.keyword != null ? words(keyword(cast.keyword), "(", cast.getLeftExpression(), "AS", type(cast.getColDataType()), ")") : of(cast.getLeftExpression()) + "::" + type(cast.getColDataType()));
        nodes.add(ExtractExpression.class, extract -> words("EXTRACT (", extract.getName(), "FROM", extract.getExpression(), ")"));
        nodes.add(TrimFunction.class, trim -> words("TRIM (", trim.getTrimSpecification(), trim.getExpression(), Words.before(trim.isUsingFromKeyword() ? "FROM" : ",", trim.getFromExpression(), this::of), ")"));
    }

    private static String keyword(String word) {
        return Set.of("CAST", "TRY_CAST", "SAFE_CAST").contains(String.valueOf(word).toUpperCase(Locale.ROOT)) ? word : Nodes.UNKNOWN;
    }

    private String type(ColDataType type) {
        try {
            List<String> words = Tokens.of(type.toString(), language);
            return words.stream().allMatch(word -> TYPE_WORDS.contains(word) || DIGITS.matcher(word).matches()) ? String.join(" ", words) : Nodes.UNKNOWN;
        } catch (Unchecked unclear) {
            return Nodes.UNKNOWN;
        }
    }

    /** A name with a schema, or in quotes, may be that of somebody's own function, so it is reported whole. */
    private String told(String name) {
        called.accept(name);
        return name;
    }

    private String call(Function call) {
        String arguments = call.getNamedParameters() != null ? named(call.getNamedParameters()) : call.getParameters() == null ? Words.when(call.isAllColumns(), "*") : list(call.getParameters());
        return told(String.join(".", call.getMultipartName())) + "(" + words(Words.when(call.isDistinct(), "DISTINCT"), arguments, orderBy(call.getOrderByElements())) + ")";
    }

    /** {@code a FROM b FOR c}: the words stand before the arguments; the first of them is blank. */
    private String named(NamedExpressionList<?> arguments) {
        return IntStream.range(0, arguments.size()).mapToObj(i -> words(plain(arguments.getNames().get(i)), arguments.get(i))).collect(Collectors.joining(" "));
    }

    private static String plain(String word) {
        return word.isEmpty() || PLAIN_NAME.matcher(word).matches() ? word : Nodes.UNKNOWN;
    }

    private String analytic(AnalyticExpression call) {
        String arguments = Stream.of(call.getExpression(), call.getOffset(), call.getDefaultValue()).filter(each -> each != null).map(this::of).collect(Collectors.joining(", "));
        String inside = words(Words.when(call.isDistinct(), "DISTINCT"), call.isAllColumns() ? "*" : arguments, Words.when(call.isIgnoreNulls() && !call.isIgnoreNullsOutside(), "IGNORE NULLS"), orderBy(call.getFuncOrderBy()));
        String filter = call.getFilterExpression() == null ? "" : words("FILTER (WHERE", call.getFilterExpression(), ")");
        String nulls = Words.when(call.isIgnoreNullsOutside(), "IGNORE NULLS");
        return told(call.getName()) + "(" + inside + ") " + switch (call.getType() == null ? AnalyticType.OVER : call.getType()) {
            case FILTER_ONLY -> words(nulls, filter);
            case WITHIN_GROUP -> words("WITHIN GROUP (", window(call.getWindowDefinition()), ")", filter);
            case WITHIN_GROUP_OVER -> words("WITHIN GROUP (", orderBy(call.getWindowDefinition().getOrderByElements()), ") OVER (", partition(call.getWindowDefinition().getPartitionBy()), ")", filter);
            default -> words(nulls, filter, "OVER", call.getWindowName() == null ? "(" + window(call.getWindowDefinition()) + ")" : call.getWindowName());
        };
    }

    /** What stands in the brackets of a window. */
    String window(WindowDefinition window) {
        return words(partition(window.getPartitionBy()), orderBy(window.getOrderByElements()), frame(window.getWindowElement()));
    }

    private String partition(PartitionByClause by) {
        return by == null || by.isEmpty() ? "" : words("PARTITION BY", list(by));
    }

    String orderBy(List<OrderByElement> elements) {
        return elements == null || elements.isEmpty() ? "" : "ORDER BY " + elements.stream().map(this::ordered).collect(Collectors.joining(", "));
    }

    private String ordered(OrderByElement element) {
        String nulls = element.getNullOrdering() == null ? "" : element.getNullOrdering() == OrderByElement.NullOrdering.NULLS_FIRST ? "NULLS FIRST" : "NULLS LAST";
        return words(element.getExpression(), element.isAsc() ? Words.when(element.isAscDescPresent(), "ASC") : "DESC", nulls);
    }

    private String frame(WindowElement frame) {
        return frame == null ? "" : words(frame.getType(), frame.getOffset() != null ? offset(frame.getOffset()) : words("BETWEEN", offset(frame.getRange().getStart()), "AND", offset(frame.getRange().getEnd())));
    }

    private String offset(WindowOffset offset) {
        return switch (offset.getType()) {
            case CURRENT -> "CURRENT ROW";
            case EXPR -> words(offset.getExpression());
            case PRECEDING, FOLLOWING -> words(offset.getExpression() == null ? "UNBOUNDED" : offset.getExpression(), offset.getType());
        };
    }
}
