package dev.trellisgorge.sql;

import java.util.List;
import java.util.Random;

/** Makes queries up that try to write, to run programs or to read files: what does harm, what hides it, and damage on top. */
final class HostileQueries {
    private static final List<String> H2_STATEMENTS = List.of("CREATE ALIAS EVIL AS 'String f() throws Exception { new java.io.File(\"MARK/alias\").createNewFile(); return \"x\"; }'", "CALL CSVWRITE('MARK/csv', 'SELECT 1')",
            "CALL FILE_WRITE('a', 'MARK/file')", "SCRIPT TO 'MARK/script'", "RUNSCRIPT FROM 'MARK/none'", "BACKUP TO 'MARK/backup.zip'", "DELETE FROM t", "CREATE TABLE u (a INT)", "INSERT INTO t VALUES (3, 'c')", "UPDATE t SET a = 9",
            "DROP TABLE t", "TRUNCATE TABLE t", "CREATE USER x PASSWORD 'x' ADMIN", "SET DB_CLOSE_DELAY 7", "MERGE INTO t KEY (a) VALUES (1, 'z')", "CREATE VIEW v AS SELECT 1 AS a", "COMMIT", "CREATE TRIGGER x BEFORE INSERT ON t CALL 'x'");
    private static final List<String> H2_CALLS = List.of("FILE_READ('SECRET', 'UTF-8')", "CSVREAD('SECRET')", "CSVWRITE('MARK/call', 'SELECT 1')", "FILE_WRITE('x', 'MARK/call2')", "LINK_SCHEMA('x', '', 'jdbc:h2:mem:y', '', '', 'PUBLIC')", "SESSION_ID()",
            "NEXTVAL('s')", "ABORT_SESSION(1)", "MEMORY_FREE()", "CURRVAL('s')", "DATABASE_PATH()", "SET(@x, 1)", "RANDOM_UUID()", "NEXT VALUE FOR s");
    private static final List<String> POSTGRESQL_STATEMENTS = List.of("COPY (SELECT 1) TO PROGRAM 'touch MARK/program'", "COPY t TO 'MARK/copy'", "COPY t FROM 'SECRET'", "DELETE FROM t", "CREATE TABLE u (a INT)", "INSERT INTO t VALUES (3, 'c')",
            "UPDATE t SET a = 9", "DROP TABLE t", "TRUNCATE t", "COMMIT; DELETE FROM t", "COMMIT; CREATE TABLE u (a INT)", "SET SESSION CHARACTERISTICS AS TRANSACTION READ WRITE", "ROLLBACK; SET default_transaction_read_only = off; DELETE FROM t",
            "DO $$ BEGIN DELETE FROM t; END $$", "SELECT 1 AS a INTO u", "CREATE FUNCTION f() RETURNS INT LANGUAGE sql AS 'SELECT 1'", "ALTER SYSTEM SET work_mem = '1MB'", "MERGE INTO t USING (SELECT 1 AS a) s ON t.a = s.a WHEN MATCHED THEN DELETE",
            "LOCK TABLE t", "VACUUM t", "NOTIFY x", "PREPARE p AS DELETE FROM t; EXECUTE p", "SELECT a FROM t FOR UPDATE", "CREATE ROLE x SUPERUSER", "COMMENT ON TABLE t IS 'x'", "TABLE t; DELETE FROM t");
    private static final List<String> POSTGRESQL_CALLS = List.of("pg_read_file('SECRET')", "pg_read_binary_file('SECRET')", "lo_import('SECRET')", "lo_export(1, 'MARK/lo')", "pg_ls_dir('MARK')", "query_to_xml('DELETE FROM t RETURNING a', true, true, '')",
            "set_config('transaction_read_only', 'off', false)", "nextval('s')", "setval('s', 99)", "pg_stat_file('SECRET')", "dblink('', 'DELETE FROM t')", "pg_terminate_backend(1)", "pg_sleep(9)", "pg_notify('a', 'b')", "current_setting('data_directory')",
            "lo_from_bytea(0, 'x')", "pg_advisory_lock(1)", "pg_reload_conf()", "xmlparse(document 'x')", "table_to_xml('t', true, true, '')", "pg_switch_wal()", "convert_from(pg_read_binary_file('SECRET'), 'UTF8')", "cursor_to_xml('c', 1, true, true, '')");
    private static final List<String> DUCKDB_STATEMENTS = List.of("COPY t TO 'MARK/copy.csv'", "COPY (SELECT 1) TO 'MARK/copy2.csv'", "DELETE FROM t", "CREATE TABLE u (a INT)", "INSERT INTO t VALUES (3, 'c')", "UPDATE t SET a = 9", "DROP TABLE t",
            "ATTACH 'MARK/attached.db'", "EXPORT DATABASE 'MARK/export'", "INSTALL httpfs", "LOAD httpfs", "SET enable_external_access = true", "PRAGMA database_list", "CREATE MACRO f() AS 1", "CHECKPOINT", "USE memory", "COMMIT; DELETE FROM t",
            "CREATE SECRET x (TYPE S3)", "TRUNCATE t", "CALL pragma_version()", "FROM t", "SUMMARIZE t");
    private static final List<String> DUCKDB_CALLS = List.of("read_text('SECRET')", "read_csv('SECRET')", "read_blob('SECRET')", "read_json('SECRET')", "read_csv_auto('SECRET')", "glob('MARK/*')", "query('DELETE FROM t')", "query_table('t')", "getenv('HOME')",
            "nextval('s')", "sniff_csv('SECRET')", "parquet_scan('SECRET')", "duckdb_secrets()", "sqlite_scan('SECRET', 't')", "current_setting('temp_directory')", "getvariable('x')", "write_log('x')", "which_secret('x', 'y')", "read_ndjson_objects('SECRET')");
    /** What a statement hides in. */
    private static final List<String> AROUND_STATEMENTS = List.of("P", "SELECT 1 AS a; P", "SELECT 'n' AS name, 2 AS \"'\", 1 AS v; P; --'", "SELECT $$'$$ AS a; P; --'", "SELECT $t$ ' $t$ AS a; P; --'", "SELECT 1 AS a /* ' */; P; /* ' */",
            "SELECT 1 AS a) AS asked; P; SELECT * FROM (SELECT 1 AS a", "SELECT 1 AS a\n); P; --", "SELECT E'\\'; P; --'", "SELECT '\\'; P; --'", "WITH x AS (P RETURNING *) SELECT * FROM x", "WITH x AS (P) SELECT * FROM x", "SELECT U&'\\0027; P; --' AS a",
            "SELECT `'` AS a; P; --'", "SELECT * FROM (P) AS y", "EXPLAIN ANALYZE P", "SELECT /* /* */ 1 AS a; P; -- */", "SELECT ['] AS a; P; --']", "SELECT * FROM FINAL TABLE (P)", "SELECT 1 AS a -- '\n; P; -- '", "SELECT 1 AS \"a;\"; P",
            "(P)", "SELECT 1 AS a UNION ALL P", "SELECT \"\"\"\" AS a; P; --\"", "SELECT 'a' 'b; P; --'", "SELECT N'a'; P", "BEGIN; P; COMMIT", "SELECT ''''';' AS a; P", "SELECT 1 AS a\u0000; P", "SELECT 1 AS a\u2028; P", "SELECT # ' \n 1 AS a; P -- '",
            "SELECT 1 AS a WHERE EXISTS (P RETURNING 1)", "VALUES (1); P", "TABLE t; P", "SELECT 1 AS a;\n\nP", "SELECT {d '2031-01-01'} AS a; P", "SELECT q'[']' AS a; P; --']'", "SELECT B'1' AS a; P", "SELECT $1$'$1$; P; --'", "SELECT 1 AS a FROM t; P LIMIT 1");
    /** What a call hides in. */
    private static final List<String> AROUND_CALLS = List.of("SELECT F AS a", "SELECT * FROM F", "SELECT * FROM F AS x", "SELECT (SELECT F) AS a", "SELECT CASE WHEN 1 = 1 THEN F END AS a", "SELECT a FROM t ORDER BY F", "SELECT COUNT(*) FILTER (WHERE F IS NULL) AS a FROM t",
            "SELECT a FROM t WHERE F IS NOT NULL", "SELECT a FROM t GROUP BY a, F", "SELECT a FROM t LIMIT LENGTH(F)", "SELECT x.* FROM t, LATERAL F AS x", "VALUES (F)", "SELECT t.a FROM t JOIN t AS o ON F IS NULL", "SELECT CAST(F AS VARCHAR) AS a",
            "SELECT a FROM t WHERE b IN (F)", "SELECT COALESCE(NULL, F) AS a", "SELECT SUM(a) OVER (PARTITION BY F) AS a FROM t", "WITH x AS (SELECT F AS a) SELECT * FROM x", "SELECT a FROM t WHERE EXISTS (SELECT F)", "SELECT 'x' || F AS a",
            "SELECT a FROM t WHERE a BETWEEN 1 AND LENGTH(F)", "SELECT a FROM t HAVING F IS NULL", "SELECT {fn F} AS a", "SELECT ROW(F) AS a", "SELECT ARRAY[F] AS a", "SELECT EXTRACT(YEAR FROM F) AS a", "SELECT TRIM(F) AS a", "SELECT SUBSTRING(F FROM 1) AS a",
            "SELECT STRING_AGG(b, F) AS a FROM t", "SELECT * FROM UNNEST(ARRAY[F]) AS x", "SELECT SUM(a) OVER (ORDER BY a ROWS LENGTH(F) PRECEDING) AS a FROM t", "SELECT LAG(a, 1, F) OVER (ORDER BY a) AS a FROM t", "SELECT a FROM t UNION SELECT F",
            "SELECT * FROM (VALUES (F)) AS v(a)", "SELECT a FROM t WHERE b LIKE F ESCAPE '!'", "SELECT a FROM t WHERE a = ANY (SELECT F)", "SELECT INTERVAL (F) DAY AS a", "SELECT (F)::varchar AS a", "SELECT a FROM t FETCH FIRST LENGTH(F) ROWS ONLY",
            "SELECT MAX(a) WITHIN GROUP (ORDER BY F) AS a FROM t", "SELECT a FROM t WINDOW w AS (ORDER BY F)", "SELECT b -> F AS a FROM t", "SELECT a FROM t OFFSET LENGTH(F)", "SELECT DISTINCT ON (F) a FROM t", "SELECT -F AS a", "SELECT NOT F AS a",
            "SELECT a FROM t QUALIFY F IS NULL", "SELECT F.x AS a", "SELECT (F).x AS a", "SELECT b.F AS a FROM t", "SELECT 1 AS a FROM t TABLESAMPLE BERNOULLI (LENGTH(F))", "SELECT * FROM ROWS FROM (F) AS x", "SELECT F OVER () AS a", "SELECT a AT TIME ZONE F AS a FROM t",
            "SELECT * FROM 'SECRET'", "SELECT * FROM \"SECRET\"", "SELECT * FROM t AS F", "SELECT MODE() WITHIN GROUP (ORDER BY F) AS a FROM t", "SELECT LIST_TRANSFORM([1], x -> F) AS a", "SELECT [F for x in [1]] AS a", "SELECT CAST(X'aced0005' AS JAVA_OBJECT) AS a");

    private final Dialect dialect;
    private final String mark;
    private final String secret;
    private final Random random;

    /**
     * @param mark   a folder that is to stay empty
     * @param secret a file that is not to be read
     */
    HostileQueries(Dialect dialect, String mark, String secret, long seed) {
        this.dialect = dialect;
        this.mark = mark;
        this.secret = secret;
        this.random = new Random(seed);
    }

    private <T> T of(List<T> list) {
        return list.get(random.nextInt(list.size()));
    }

    String next() {
        List<String> statements = dialect == Dialect.H2 ? H2_STATEMENTS : dialect == Dialect.POSTGRESQL ? POSTGRESQL_STATEMENTS : DUCKDB_STATEMENTS;
        List<String> calls = dialect == Dialect.H2 ? H2_CALLS : dialect == Dialect.POSTGRESQL ? POSTGRESQL_CALLS : DUCKDB_CALLS;
        String query = random.nextInt(2) == 0 ? of(AROUND_STATEMENTS).replace("P", of(statements)) : of(AROUND_CALLS).replace("F", disguised(of(calls)));
        if (random.nextInt(4) == 0) {
            query = of(AROUND_STATEMENTS).replace("P", query);
        }
        for (int damage = random.nextInt(5) - 2; damage > 0; damage--) {
            query = damaged(query);
        }
        return query.replace("MARK", mark).replace("SECRET", secret);
    }

    /** The same call as another name is read. */
    private String disguised(String call) {
        int at = call.indexOf('(');
        if (at < 0) {
            return call;
        }
        String name = call.substring(0, at);
        String arguments = call.substring(at);
        return switch (random.nextInt(14)) {
            case 0 -> "\"" + name + "\"" + arguments;
            case 1 -> "\"" + name.toUpperCase(java.util.Locale.ROOT) + "\"" + arguments;
            case 2 -> "U&\"\\00" + Integer.toHexString(name.charAt(0)) + name.substring(1) + "\"" + arguments;
            case 3 -> name + " /* ' */ " + arguments;
            case 4 -> name + "\n--x\n" + arguments;
            case 5 -> (dialect == Dialect.POSTGRESQL ? "pg_catalog." : dialect == Dialect.H2 ? "PUBLIC." : "main.") + name + arguments;
            case 6 -> mixed(name) + arguments;
            case 7 -> name + "\u00a0" + arguments;
            case 8 -> name + arguments.replace("'", "$$");
            case 9 -> name + arguments.replaceFirst("'", "E'");
            default -> call;
        };
    }

    private String mixed(String name) {
        StringBuilder mixed = new StringBuilder();
        name.chars().forEach(character -> mixed.appendCodePoint(random.nextBoolean() ? Character.toUpperCase(character) : Character.toLowerCase(character)));
        return mixed.toString();
    }

    private String damaged(String query) {
        int at = random.nextInt(query.length() + 1);
        int other = random.nextInt(query.length() + 1);
        return switch (random.nextInt(5)) {
            case 0 -> query.substring(0, at) + of(List.of("'", "\"", "$$", ";", "--", "/*", "*/", "\\", "(", ")", "`", "#", "\n", "E'", "U&'", "$a$", "{", "}", "?", ":x", "@", "[", "]", "\u0000", "\ufeff", "\u00a0", ",", "=>", "::", "//")) + query.substring(at);
            case 1 -> query.substring(0, Math.min(at, other)) + query.substring(Math.max(at, other));
            case 2 -> query.substring(0, at) + query.substring(Math.min(at, other), Math.max(at, other)) + query.substring(at);
            case 3 -> mixed(query.substring(0, at)) + query.substring(at);
            default -> query.replaceFirst("'", of(List.of("\"", "''", "`", "$$", "\\'")).replace("$", "\\$").replace("\\'", "\\\\'"));
        };
    }
}
