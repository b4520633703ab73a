package dev.trellisgorge.tables;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** What a query of a brief may say: it reads tables, and neither files nor other databases. Thread-safe. */
public final class QueryText {
    private static final Pattern START = Pattern.compile("(?is)\\s*(SELECT|WITH|VALUES|TABLE|FROM|\\()\\b?.*");
    /** Functions by which databases read or write files, run programs or reach others. */
    private static final Pattern HARMFUL = Pattern.compile("(?i)\\b(read_[a-z_]+|[a-z_]+_scan|scan_[a-z_]+|glob|sniff_csv|parquet_[a-z_]+|getenv|csvread|csvwrite|file_read|file_write|link_schema"
            + "|pg_read_[a-z_]+|pg_ls_[a-z_]+|pg_stat_file|lo_import|lo_export|lo_get|dblink[a-z_]*|query_to_xml[a-z_]*|database_to_xml[a-z_]*|pg_sleep|pg_terminate_backend|pg_cancel_backend"
            + "|load_file|sys_exec|sys_eval|xp_cmdshell|openrowset|opendatasource|reflect|try_reflect|java_method)\\s*\\(");
    private static final Pattern TEXTS = Pattern.compile("'(?:[^']|'')*'|--[^\\n]*|/\\*.*?\\*/", Pattern.DOTALL);
    private static final Pattern PROGRAM = Pattern.compile("(?i)\\bUSING\\s+['\"]");
    private static final Pattern FILE_NAMED = Pattern.compile("(?i)\\b(FROM|JOIN)\\s+'");

    private QueryText() {
    }

    /**
     * Refuses what is no query, and functions that reach outside of the database.
     *
     * @param place for messages
     */
    public static void refuseHarmful(String query, Place place) {
        Matcher start = START.matcher(query);
        if (!start.matches()) {
            throw new BadInput(place, "a query is needed, one that begins with SELECT, WITH or VALUES");
        }
        String bare = TEXTS.matcher(query).replaceAll(found -> found.group().startsWith("'") ? "'" : " ");
        if (bare.replaceAll(";\\s*$", "").contains(";")) {
            throw new BadInput(place, "one query is needed, and there are several statements");
        }
        Matcher harmful = HARMFUL.matcher(bare.replaceAll("[\"`]", ""));
        if (harmful.find()) {
            throw new BadInput(place, "the function '" + harmful.group(1) + "' reaches outside of the tables, so a query may not use it here");
        }
        if (PROGRAM.matcher(bare).find()) {
            throw new BadInput(place, "a query runs no programs here");
        }
        if (FILE_NAMED.matcher(bare).find()) {
            throw new BadInput(place, "a query reads tables and no files; name the file as a table of its own");
        }
    }
}
