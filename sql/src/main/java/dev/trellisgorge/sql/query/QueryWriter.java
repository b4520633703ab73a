package dev.trellisgorge.sql.query;

import java.util.Collection;
import java.util.List;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import net.sf.jsqlparser.expression.Alias;
import net.sf.jsqlparser.expression.Expression;
import net.sf.jsqlparser.expression.WindowDefinition;
import net.sf.jsqlparser.schema.Table;
import net.sf.jsqlparser.statement.select.Distinct;
import net.sf.jsqlparser.statement.select.Fetch;
import net.sf.jsqlparser.statement.select.FromItem;
import net.sf.jsqlparser.statement.select.GroupByElement;
import net.sf.jsqlparser.statement.select.Join;
import net.sf.jsqlparser.statement.select.LateralSubSelect;
import net.sf.jsqlparser.statement.select.Limit;
import net.sf.jsqlparser.statement.select.Offset;
import net.sf.jsqlparser.statement.select.ParenthesedFromItem;
import net.sf.jsqlparser.statement.select.ParenthesedSelect;
import net.sf.jsqlparser.statement.select.PlainSelect;
import net.sf.jsqlparser.statement.select.Select;
import net.sf.jsqlparser.statement.select.SelectItem;
import net.sf.jsqlparser.statement.select.SetOperationList;
import net.sf.jsqlparser.statement.select.TableFunction;
import net.sf.jsqlparser.statement.select.TableStatement;
import net.sf.jsqlparser.statement.select.Values;
import net.sf.jsqlparser.statement.select.WithItem;

/**
 * Writes a parsed query anew, from the parts that are known to read tables and do nothing else. What it doesn't know it leaves out, so a query that
 * writes, locks or makes something comes out otherwise than the parser has it.
 */
final class QueryWriter {
    private final Nodes selects = new Nodes();
    private final Nodes sources = new Nodes();
    private final ExpressionWriter expressions;

    /** @param called is told of each function that is called */
    QueryWriter(QueryLanguage language, Consumer<String> called) {
        this.expressions = new ExpressionWriter(language, this::select, called);
        selects.add(PlainSelect.class, this::plain);
        selects.add(SetOperationList.class, this::combined);
        selects.add(Values.class, values -> Words.of("VALUES", expressions.of(values.getExpressions()), alias(values.getAlias())));
        selects.add(TableStatement.class, table -> "TABLE " + Words.named(table.getTable()));
        selects.add(ParenthesedSelect.class, this::bracketed);
        selects.add(LateralSubSelect.class, lateral -> lateral.getPrefix() + " " + bracketed(lateral));
        sources.add(Table.class, table -> Words.of(Words.named(table), alias(table.getAlias())));
        sources.add(ParenthesedSelect.class, this::select);
        sources.add(LateralSubSelect.class, this::select);
        sources.add(Values.class, this::select);
        sources.add(TableFunction.class, this::function);
        sources.add(ParenthesedFromItem.class, item -> Words.of("(", source(item.getFromItem()), joins(item.getJoins()), ")", alias(item.getAlias())));
    }

    String select(Select select) {
        return Words.of(with(select.getWithItemsList()), selects.written(select), expressions.orderBy(select.getOrderByElements()), Words.before("LIMIT", select.getLimit(), this::limit),
                Words.before("OFFSET", select.getOffset(), this::offset), Words.before("FETCH", select.getFetch(), this::fetch));
    }

    /** The alias of a query in brackets stands behind all else. */
    private String bracketed(ParenthesedSelect brackets) {
        return Words.of("(", select(brackets.getSelect()), ")", alias(brackets.getAlias()));
    }

    private String with(List<WithItem<?>> items) {
        if (items == null || items.isEmpty()) {
            return "";
        }
        return Words.of("WITH", Words.when(items.get(0).isRecursive(), "RECURSIVE"), items.stream().map(this::with).collect(Collectors.joining(", ")));
    }

    private String with(WithItem<?> item) {
        String columns = item.getWithItemList() == null || item.getWithItemList().isEmpty() ? "" : "(" + items(item.getWithItemList()) + ")";
        String body = item.getParenthesedStatement() instanceof ParenthesedSelect select ? select(select) : Nodes.UNKNOWN;
        return Words.of(item.getUnquotedAliasName() == null ? Nodes.UNKNOWN : item.getAliasName(), columns, "AS", Words.when(item.isUsingNot(), "NOT"), Words.when(item.isMaterialized(), "MATERIALIZED"), body);
    }

    private String plain(PlainSelect select) {
        return Words.of("SELECT", distinct(select.getDistinct()), items(select.getSelectItems()), Words.before("FROM", select.getFromItem(), this::source), joins(select.getJoins()),
                Words.before("WHERE", select.getWhere(), expressions::of), Words.before("GROUP BY", select.getGroupBy(), this::groups), Words.before("HAVING", select.getHaving(), expressions::of),
                Words.before("QUALIFY", select.getQualify(), expressions::of), windows(select.getWindowDefinitions()));
    }

    private String distinct(Distinct distinct) {
        return distinct == null ? "" : distinct.getOnSelectItems() == null ? "DISTINCT" : "DISTINCT ON (" + items(distinct.getOnSelectItems()) + ")";
    }

    private String items(Collection<? extends SelectItem<?>> items) {
        return items.stream().map(item -> Words.of(expressions.of(item.getExpression()), alias(item.getAlias()))).collect(Collectors.joining(", "));
    }

    private static String alias(Alias alias) {
        if (alias == null) {
            return "";
        }
        String columns = alias.getAliasColumns() == null ? "" : "(" + alias.getAliasColumns().stream().map(column -> column.name + (column.colDataType == null ? "" : Nodes.UNKNOWN)).collect(Collectors.joining(", ")) + ")";
        return Words.of(Words.when(alias.isUseAs(), "AS"), alias.getName() == null ? Nodes.UNKNOWN : alias.getName(), columns);
    }

    private String source(FromItem item) {
        return sources.written(item);
    }

    private String function(TableFunction call) {
        return call.isRowsFrom() ? Nodes.UNKNOWN : Words.of(call.getPrefix(), expressions.of(call.getFunction()), "ORDINALITY".equalsIgnoreCase(call.getWithClause()) ? "WITH ORDINALITY" : "", alias(call.getAlias()));
    }

    private String joins(List<Join> joins) {
        return joins == null ? "" : joins.stream().map(this::join).collect(Collectors.joining(" "));
    }

    private String join(Join join) {
        String kind = Words.of(Words.when(join.isNatural(), "NATURAL"), Words.when(join.isLeft(), "LEFT"), Words.when(join.isRight(), "RIGHT"), Words.when(join.isFull(), "FULL"), Words.when(join.isCross(), "CROSS"),
                Words.when(join.isOuter(), "OUTER"), Words.when(join.isInner(), "INNER"), Words.when(join.isSemi(), "SEMI"));
        String on = join.getOnExpressions().stream().map(each -> "ON " + expressions.of(each)).collect(Collectors.joining(" "));
        String using = join.getUsingColumns().isEmpty() ? "" : "USING (" + expressions.list(join.getUsingColumns()) + ")";
        return join.isSimple() ? ", " + source(join.getFromItem()) : Words.of(kind, "JOIN", source(join.getFromItem()), on, using);
    }

    private String groups(GroupByElement groups) {
        String sets = groups.getGroupingSets() == null || groups.getGroupingSets().isEmpty() ? ""
                : "GROUPING SETS (" + groups.getGroupingSets().stream().map(expressions::of).collect(Collectors.joining(", ")) + ")";
        Collection<? extends Expression> by = groups.getGroupByExpressionList();
        return Words.of(by == null || by.isEmpty() ? "" : groups.isUsingBrackets() ? "(" + expressions.list(by) + ")" : expressions.list(by), sets);
    }

    private String windows(List<WindowDefinition> windows) {
        return windows == null || windows.isEmpty() ? "" : "WINDOW " + windows.stream().map(window -> window.getWindowName() + " AS (" + expressions.window(window) + ")").collect(Collectors.joining(", "));
    }

    private String combined(SetOperationList list) {
        return IntStream.range(0, list.getSelects().size()).mapToObj(i -> Words.of(i == 0 ? "" : operation(list, i - 1), select(list.getSelects().get(i)))).collect(Collectors.joining(" "));
    }

    private static String operation(SetOperationList list, int at) {
        String written = list.getOperations().get(at).toString();
        return Stream.of("UNION", "UNION ALL", "UNION DISTINCT", "INTERSECT", "INTERSECT ALL", "INTERSECT DISTINCT", "EXCEPT", "EXCEPT ALL", "EXCEPT DISTINCT", "MINUS").filter(known -> known.equals(written.strip())).findFirst().orElse(Nodes.UNKNOWN);
    }

    private String limit(Limit limit) {
        return Words.of(Words.before("", limit.getOffset(), offset -> expressions.of(offset) + ","), limit.getRowCount() == null ? "" : expressions.of(limit.getRowCount()));
    }

    private String offset(Offset offset) {
        return Words.of(expressions.of(offset.getOffset()), offset.getOffsetParam());
    }

    private String fetch(Fetch fetch) {
        return Words.of(fetch.isFetchParamFirst() ? "FIRST" : "NEXT", fetch.getExpression() == null ? "" : expressions.of(fetch.getExpression()), String.join(" ", fetch.getFetchParameters()));
    }
}
