package dev.trellisgorge.sql.query;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Bound;
import dev.trellisgorge.problem.Place;
import java.util.Locale;
import java.util.Set;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class CheckedQueryTest {
    private static final QueryLanguage LANGUAGE = new QueryLanguage('"', false, true, PureFunctions.POSTGRESQL);

    private static String checked(String query, QueryRights rights) {
        return CheckedQuery.of(query, LANGUAGE, rights, Place.of("table 'q'"));
    }

    private static String bare(String query) {
        return query.replaceAll("\\s+", "").toLowerCase(Locale.ROOT);
    }

    @DataProvider
    Object[][] readings() {
        return new Object[][] {{"SELECT station, SUM(mwh) AS mwh FROM plant.generation AS g WHERE month >= DATE '2031-01-01' AND station <> 'o''clock; DROP TABLE x; --' GROUP BY station HAVING SUM(mwh) > 5 ORDER BY 2 DESC NULLS LAST LIMIT 5 OFFSET 1"},
            {"WITH RECURSIVE days(d, n) AS (SELECT 1, 2 UNION ALL SELECT d + 1, n FROM days WHERE d < 9), more AS MATERIALIZED (SELECT * FROM days) SELECT DISTINCT d AS \"a; \"\"b\" FROM more"},
            {"SELECT CASE WHEN a > 1 THEN 'x' WHEN a IS NULL THEN 'y' ELSE 'z' END AS c, CASE a WHEN 1 THEN 2 END, COALESCE(a, 0), NULLIF(a, 0), -a, NOT b, a % 2, a || b FROM t"},
            {"SELECT COUNT(*) FILTER (WHERE a > 1), COUNT(DISTINCT a), SUM(a) OVER (PARTITION BY b, c ORDER BY d DESC NULLS LAST ROWS BETWEEN 2 PRECEDING AND CURRENT ROW), ROW_NUMBER() OVER w, LAG(a, 1, 0) OVER (ORDER BY b) FROM t WINDOW w AS (ORDER BY a)"},
            {"SELECT PERCENTILE_CONT(0.5) WITHIN GROUP (ORDER BY a), STRING_AGG(a, ',' ORDER BY b), EXTRACT(YEAR FROM d), DATE_TRUNC('month', d)::date, CAST(a AS DECIMAL (10, 2)), INTERVAL '1' DAY, CURRENT_DATE, d AT TIME ZONE 'UTC' FROM t"},
            {"SELECT a FROM t1 INNER JOIN t2 ON t1.a = t2.a LEFT JOIN t3 USING (a, b) CROSS JOIN LATERAL (SELECT 1 AS x) AS s, LATERAL generate_series(1, t1.a) AS g(n)".replace("LATERAL (", "LATERAL(")},
            {"SELECT a FROM t WHERE a IN (1, 2) AND b NOT IN (SELECT b FROM u) AND c BETWEEN 1 AND 2 AND d LIKE 'x%' ESCAPE '!' AND e ~ 'y' AND f IS DISTINCT FROM g AND hour > 3 AND month = 2 AND EXISTS (SELECT 1) AND h = ANY(SELECT 2) AND (i, j) = (1, 2)"},
            {"SELECT a FROM t GROUP BY GROUPING SETS ((a), (b), ())"}, {"SELECT a FROM t GROUP BY ROLLUP(a, b)"}, {"(SELECT 1 AS a) UNION ALL (SELECT 2) EXCEPT SELECT 3 ORDER BY 1"}, {"VALUES (1, 'a'), (2, 'b')"}, {"TABLE generation"},
            {"SELECT * FROM (VALUES (1, 'a')) AS t(a, b)"}, {"SELECT t.*, a[1], ARRAY[1, 2], m ->> 'a' FROM t ORDER BY a OFFSET 2 ROWS FETCH FIRST 3 ROWS ONLY"}, {"SELECT DISTINCT ON (a) a FROM t"}, {"SELECT 'x\\' AS a, 1.5e3, .5, X'aa', NULL, true FROM t"}};
    }

    @Test(dataProvider = "readings")
    public void queryThatReadsTablesIsSentInItsOwnWords(String query) {
        assertThat(bare(checked(query, QueryRights.NONE))).isEqualTo(bare(query));
        assertThat(checked(query + " ;\n", QueryRights.NONE)).isEqualTo(checked(query, QueryRights.NONE));
        assertThat(checked(checked(query, QueryRights.NONE), QueryRights.NONE)).as("checked again").isEqualTo(checked(query, QueryRights.NONE));
    }

    @DataProvider
    Object[][] refusals() {
        return new Object[][] {{"SELECT 'n' AS name, 2 AS \"'\", 1 AS v; CREATE ALIAS x AS 'y'; CALL x(); --'", "can't tell what the query does"}, {"SELECT 1; DELETE FROM t", "one query is expected here, and there are 2 statements"},
            {"DELETE FROM t", "a query is expected here, one that begins with SELECT, WITH or VALUES"}, {"EXPLAIN ANALYZE DELETE FROM t", "a query is expected here"}, {"COPY t TO PROGRAM 'x'", "can't tell what the query does"},
            {"WITH x AS (DELETE FROM t RETURNING *) SELECT * FROM x", "can't tell what the query does"}, {"SELECT 1 INTO u FROM t", "'INTO' is not expected behind '1'"}, {"SELECT a FROM t FOR UPDATE", "'FOR' is not expected behind 'T'"},
            {"SELECT a FROM t TABLESAMPLE BERNOULLI (10)", "'TABLESAMPLE' is not expected"}, {"SELECT a FROM 'f.csv'", "is not expected behind 'FROM'"}, {"SELECT $$a$$ FROM t", "databases differ in how they read '$'"},
            {"SELECT E'\\'; DROP TABLE t; --'", "one query is expected here"}, {"TABLE plant.generation", "'GENERATION' is not expected behind 'TABLE'"}, {"SELECT {fn now()}", "databases differ in how they read '{'"}, {"SELECT ?", "databases differ in how they read '?'"}, {"SELECT :a", "databases differ in how they read ':'"},
            {"SELECT `a` FROM t", "databases differ in how they read '`'"}, {"SELECT CAST(X'aced' AS JAVA_OBJECT)", "'JAVA_OBJECT' is not expected behind 'AS'"}, {"SELECT NEXT VALUE FOR s", "can't tell what the query does"}, {"", "can't tell what the query does"},
            {"SELECT pg_read_file('x')", "the query calls pg_read_file, which may do more than compute; QueryRights.functions allows it"}, {"SELECT PG_Read_File /* ' */ ('x')", "the query calls PG_Read_File"},
            {"SELECT * FROM pg_ls_dir('x') AS f", "the query calls pg_ls_dir"}, {"SELECT \"pg_read_file\"('x')", "the query calls \"pg_read_file\""}, {"SELECT pg_catalog.pg_read_file('x')", "the query calls pg_catalog.pg_read_file"},
            {"SELECT U&\"pg\\005fread_file\"('x')", "the query calls"}, {"SELECT a FROM t ORDER BY nextval('s')", "the query calls nextval"}, {"SELECT SUM(a) OVER (PARTITION BY set_config('a', 'b', false)) FROM t", "the query calls set_config"},
            {"SELECT COUNT(*) FILTER (WHERE pg_sleep(1) IS NULL) FROM t", "the query calls pg_sleep"}, {"SELECT a FROM t LIMIT lo_import('x')", "the query calls lo_import"}, {"SELECT output FROM t WHERE", "is not expected on line 1"},
            {"SELECT " + "(".repeat(3_000) + "1" + ")".repeat(3_000), "more than 100 brackets stand within each other"}, {"SELECT '" + "x".repeat(Bound.QUERY_CHARACTERS.count()) + "'", "the query has 100009 characters, and may have 100000"}};
    }

    @Test(dataProvider = "refusals")
    public void whatMayDoMoreIsRefused(String query, String message) {
        assertThatThrownBy(() -> checked(query, QueryRights.NONE)).isInstanceOf(BadInput.class).hasMessageStartingWith("table 'q': ").hasMessageContaining(message);
    }

    @Test
    public void functionIsLetThroughByItsNameAlone() {
        QueryRights rights = new QueryRights(Set.of("NextVal", "pg_catalog.lower"), false);
        assertThat(checked("SELECT nextval('s'), pg_catalog.lower('A')", rights)).isEqualTo("SELECT nextval('s'), pg_catalog.lower('A')");
        assertThatThrownBy(() -> checked("SELECT \"nextval\"('s')", rights)).isInstanceOf(BadInput.class);
        assertThatThrownBy(() -> checked("SELECT setval('s', 1)", rights)).isInstanceOf(BadInput.class);
        assertThatThrownBy(() -> checked("SELECT nextval('s') FROM t FOR UPDATE", rights)).isInstanceOf(BadInput.class);
    }

    @Test
    public void whatCantBeCheckedIsSentAsItIsWhereThatIsAllowed() {
        QueryRights rights = new QueryRights(Set.of(), true);
        assertThat(checked("  SELECT a FROM t TABLESAMPLE BERNOULLI (10); ", rights)).isEqualTo("SELECT a FROM t TABLESAMPLE BERNOULLI (10)");
        assertThatThrownBy(() -> checked("SELECT pg_read_file('x')", rights)).as("what can be checked is checked all the same").isInstanceOf(BadInput.class);
        assertThatThrownBy(() -> checked("DELETE FROM t", rights)).isInstanceOf(BadInput.class);
    }

    @Test
    public void backslashesAndQuotesAreReadAsTheDatabaseReadsThem() {
        QueryLanguage escaping = new QueryLanguage('`', true, true, PureFunctions.SPARK);
        assertThatThrownBy(() -> CheckedQuery.of("SELECT 'a\\' AS a", escaping, QueryRights.NONE, Place.of(""))).hasMessageContaining("databases differ in how they read a backslash within quotes");
        assertThatThrownBy(() -> CheckedQuery.of("SELECT \"a\" FROM t", escaping, QueryRights.NONE, Place.of(""))).hasMessageContaining("databases differ in how they read '\"'");
        assertThat(CheckedQuery.of("SELECT `a b` FROM t", escaping, QueryRights.NONE, Place.of(""))).isEqualTo("SELECT `a b` FROM t");
    }
}
