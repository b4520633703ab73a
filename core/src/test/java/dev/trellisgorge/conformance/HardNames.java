package dev.trellisgorge.conformance;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Stream;

/** Names of columns, and texts of cells, that hold what a statement is written in. */
public final class HardNames {
    private static final String RESERVED = "select from where group order by having union all distinct table view create drop alter insert update delete into values set join left right full inner outer cross natural on using as and or not null is in like between exists case when then else end "
            + "cast true false default primary key foreign references check constraint user current_user session_user current_date current_time limit offset fetch first row rows only with recursive lateral window over partition range unbounded preceding following "
            + "desc asc nulls last interval date timestamp year month day integer double precision varchar boolean array unnest sum min max count avg coalesce nullif rank row_number lag lead value values authorization collate column both leading trailing";
    private static final List<String> SIGNS = List.of("a\"b", "\"", "\"\"", "\"a\"", "it's", "'", "''", "'; DROP TABLE rows; --", "x; DROP TABLE rows; --", ";", ";;", "--", "-- no comment", "/* no comment */", "/*", "*/", "#", "# no comment", "//", "`", "a`b", "``", "[a]", "[", "]", "{a}", "${a}", "${env:HOME}", "{{a}}",
            "?", "??", "?1", ":goal", "::text", ":", "@x", "@@version", "$1", "$$", "$tag$", "$a$b$a$", "%", "%_\\", "%s", "_", "\\", "\\\\", "\\n", "\\'", "\\\"", "a\\", "\\u0041", "\\x41", "U&\"a\"", "E'a'", "N'a'", "X'00'", "a.b", ".", "..", "a,b", ",", "(", ")", "()", "a()", "*", "+", "-", "=", "==", "<>", "!=",
            "<", ">", "|", "||", "&", "&&", "^", "~", "!", "a b", "a  b", "a\tb", "a\nb", "1", "1a", "007", "1e5", "-1", "NaN", "Infinity", "NULL", "null", "TRUE", "rowid", "oid", "row", "here", "there", "settings", "columns", "rows of rows", "count 1", "key", "key 0", "number", "value ", "VALUE", "Value");
    private static final List<String> SCRIPTS = List.of("Überlauf Ω 水", "水門", "Плотина", "φράγμα", "سد", "סכר", "ダム", "댐", "बाँध", "เขื่อน", "\uD83D\uDC1F", "\uD83D\uDC1F\uD83C\uDFFD", "e\u0301", "\u00e9", "ﬁsh", "İstanbul", "straße", "STRASSE", "ß", "ſ", "\u00A0a", "a\u200Db", "Ａ", "𝔸", "Ǆ");

    private HardNames() {
    }

    /** At least 200, no two of them alike in lower case, or in their first 60 bytes. */
    public static List<String> all() {
        Map<String, String> all = new LinkedHashMap<>();
        Stream<String> lengths = Stream.of(62, 63, 64, 65, 127, 128, 129, 250).flatMap(length -> Stream.of(length + " " + "n".repeat(length - 3), length + " " + "m".repeat(length - 8) + " end", length + " " + "水".repeat(Math.min(18, length / 3)) + length));
        Stream.of(SIGNS.stream(), Stream.of(RESERVED.split(" ")).limit(90), SCRIPTS.stream(), lengths).flatMap(names -> names).forEach(name -> all.putIfAbsent(name.toLowerCase(Locale.ROOT), name));
        return List.copyOf(all.values());
    }
}
