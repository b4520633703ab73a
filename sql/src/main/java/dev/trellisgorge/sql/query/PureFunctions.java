package dev.trellisgorge.sql.query;

import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * Functions that compute from what they are given: they read no file, no setting and no other database, write nothing, and don't wait. Names in
 * lower case. Those of a single database come on top of the common ones.
 */
public final class PureFunctions {
    /** What looks like a call and is part of the language. */
    private static final String CONSTRUCTS = "all any array coalesce cube exists extract grouping if nullif rollup row some values";
    private static final String AGGREGATES = "any_value array_agg avg bit_and bit_or bool_and bool_or corr count covar_pop covar_samp every listagg max median min mode percentile_cont percentile_disc"
            + " regr_avgx regr_avgy regr_count regr_intercept regr_r2 regr_slope regr_sxx regr_sxy regr_syy stddev stddev_pop stddev_samp string_agg sum var_pop var_samp variance";
    private static final String WINDOWS = "cume_dist dense_rank first_value lag last_value lead nth_value ntile percent_rank rank row_number";
    private static final String NUMBERS = "abs acos asin atan atan2 ceil ceiling cos cosh cot degrees exp floor greatest least ln log log10 mod pi power radians round sign sin sinh sqrt tan tanh trunc truncate";
    private static final String TEXTS = "ascii bit_length btrim char_length character_length chr concat concat_ws initcap left length lower lpad ltrim octet_length overlay position regexp_like regexp_replace regexp_substr"
            + " repeat replace reverse right rpad rtrim split_part strpos substr substring translate trim upper";
    private static final String DATES = "age current_date current_timestamp date date_part date_trunc day dayofmonth dayofweek dayofyear hour last_day localtimestamp make_date minute month now quarter second to_char to_date"
            + " to_number to_timestamp week year";
    private static final String ROWS = "generate_series unnest";

    /** Those that several databases have, with one meaning. */
    public static final Set<String> COMMON = set(CONSTRUCTS, AGGREGATES, WINDOWS, NUMBERS, TEXTS, DATES, ROWS);

    public static final Set<String> DUCKDB = more("approx_count_distinct arg_max arg_min array_length bit_count cardinality century contains count_if countif date_add date_diff date_sub datediff datepart dayname decade ends_with"
            + " entropy epoch epoch_ms era even factorial favg first format fsum gamma gcd geometric_mean geomean histogram ifnull instr isfinite isinf isnan iso_year isodow isoyear json_array_length json_extract json_extract_string"
            + " json_type json_valid kahan_sum kurtosis last lcm len levenshtein lgamma list list_aggregate list_contains list_distinct list_element list_extract list_max list_min list_slice list_sort list_sum list_unique list_value log2"
            + " mad make_time make_timestamp max_by md5 min_by monthname nextafter nvl prefix product quantile quantile_cont quantile_disc range regexp_extract regexp_extract_all regexp_full_match regexp_matches replace_regexp"
            + " round_even sem skewness starts_with str_split str_split_regex strftime string_split string_split_regex string_to_array strip_accents strlen strptime struct_extract suffix sumkahan time_bucket to_days to_hours"
            + " to_minutes to_months to_seconds to_weeks to_years try_strptime typeof unicode weekday weekofyear yearweek");

    public static final Set<String> POSTGRESQL = more("array_append array_cat array_length array_position array_remove array_replace array_to_string cardinality cbrt clock_timestamp date_bin decode div encode erf erfc factorial format"
            + " gcd isfinite json_agg json_array_elements json_array_elements_text json_array_length json_build_array json_build_object json_each json_each_text json_extract_path json_extract_path_text json_object_keys json_typeof"
            + " jsonb_agg jsonb_array_elements jsonb_array_elements_text jsonb_array_length jsonb_build_array jsonb_build_object jsonb_each jsonb_each_text jsonb_extract_path jsonb_extract_path_text jsonb_object_keys"
            + " jsonb_typeof justify_days justify_hours justify_interval lcm make_interval make_time make_timestamp make_timestamptz md5 min_scale normalize quote_ident quote_literal quote_nullable regexp_count regexp_instr"
            + " regexp_match regexp_matches regexp_split_to_array regexp_split_to_table scale starts_with statement_timestamp string_to_array string_to_table timezone to_hex transaction_timestamp trim_scale width_bucket");

    public static final Set<String> H2 = more("array_contains array_get array_slice bit_count bitand bitnot bitor bitxor cardinality casewhen char dateadd datediff day_of_month day_of_week day_of_year dayname decode difference"
            + " formatdatetime group_concat ifnull insert instr iso_day_of_week iso_week iso_year json_array json_object lcase locate lshift monthname nvl nvl2 parsedatetime quote_ident rshift soundex space stringdecode stringencode"
            + " stringtoutf8 system_range timestampadd timestampdiff to_base64 trim_array ucase utf8tostring width_bucket xmlattr");

    public static final Set<String> SPARK = more("add_months approx_count_distinct approx_percentile array array_contains array_distinct array_join array_max array_min array_size array_sort base64 bin bround cardinality cbrt"
            + " collect_list collect_set contains count_if date_add date_diff date_format date_sub datediff dayname element_at endswith equal_null explode explode_outer expm1 factorial filter find_in_set first flatten format_number"
            + " from_json from_unixtime from_utc_timestamp get get_json_object hex ifnull inline instr int isnan isnotnull isnull json_array_length json_tuple kurtosis last levenshtein locate log1p log2 lcase make_interval"
            + " make_timestamp map_keys map_values max_by md5 mean min_by monthname months_between named_struct nanvl negative next_day nvl nvl2 percentile percentile_approx pmod posexplode positive printf pow range regexp_count"
            + " regexp_extract regexp_extract_all regexp_instr rint sequence sha2 size skewness slice sort_array soundex split startswith std struct substring_index timestamp_micros timestamp_millis timestamp_seconds to_json"
            + " to_unix_timestamp to_utc_timestamp transform trunc try_add try_avg try_divide try_multiply try_subtract try_sum try_to_number try_to_timestamp typeof ucase unbase64 unhex unix_date unix_timestamp weekday weekofyear width_bucket");

    private PureFunctions() {
    }

    private static Set<String> set(String... names) {
        return Stream.of(names).flatMap(each -> Stream.of(each.split(" "))).collect(Collectors.toUnmodifiableSet());
    }

    private static Set<String> more(String names) {
        return Stream.concat(COMMON.stream(), set(names).stream()).collect(Collectors.toUnmodifiableSet());
    }
}
