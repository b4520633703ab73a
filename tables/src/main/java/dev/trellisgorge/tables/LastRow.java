package dev.trellisgorge.tables;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.CompensatedSum;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Numbers;
import dev.trellisgorge.table.Table;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.List;
import java.util.OptionalDouble;
import java.util.regex.Pattern;
import java.util.stream.IntStream;

/**
 * Finds a last row that is the total of the rows above it, so that no figure is counted twice unseen. A printed total may be off
 * by what rounding does: half a unit of the last digit for each row above.
 */
final class LastRow {
    private static final double CLOSE = 1e-9;
    /** What is not even so close is no total for certain, though the sums are not compensated. */
    private static final double WIDE = 1e-8;
    /** Where no word says that it is a total, what rounding makes of it must be small beside it too. */
    private static final double SMALL = 0.005;
    private static final int FEWEST_ROWS = 3;
    private static final int MOST_LINES_BELOW = 3;
    /** What a total is called where people write Latin, Cyrillic or Greek letters, with blanks between words. */
    private static final String WORDS = "(grand |sub|sub-)?(total|sum|all|together|summe|gesamt|gesamtsumme|insgesamt|zusammen|somme|ensemble|total général|totale|totaal|totalt|summa|sammanlagt|i alt|ialt|yhteensä|suma|razem|ogółem"
            + "|łącznie|celkem|spolu|skupaj|ukupno|összesen|toplam|genel toplam|jumlah|tổng|tổng cộng|soma|итого|всего|разом|усього|общо|σύνολο)s?";
    /** The same in scripts that write no blanks, or end no words. */
    private static final String SIGNS = "合計|総計|小計|总计|合计|總計|合計金額|합계|총계|소계|المجموع|الإجمالي|סה\"כ|รวม|รวมทั้งหมด|कुल|योग";
    private static final Pattern NAME = Pattern.compile("(?iuU)\\s*((" + WORDS + ")\\b.*|(" + SIGNS + ").*)");
    private static final Pattern BARE_NAME = Pattern.compile("(?iuU)\\s*(" + WORDS + "|" + SIGNS + ")\\s*[:：]?\\s*");

    private final Table table;
    private final int last;
    private final List<Against> figures = new ArrayList<>();
    private boolean blank;
    private boolean named;
    private boolean calledTotal;

    private LastRow(Table table) {
        this.table = table;
        this.last = lastOfFigures(table);
        for (Column column : table.columns()) {
            if (column.kind() == Kind.NUMBER && column.isPresent(last)) {
                figures.add(Against.of(column, last));
            } else if (column.kind() != Kind.NUMBER && column.isPresent(last)) {
                named |= isNamedTotal(column.written(last));
                calledTotal |= isTotal(column.written(last));
            } else if (column.kind() != Kind.NUMBER) {
                blank = true;
            }
        }
    }

    /** Lines of one text alone, such as one that names a source, may stand below the last row. */
    private static int lastOfFigures(Table table) {
        int last = table.rowCount() - 1;
        for (int row = last; row >= Math.max(0, last - MOST_LINES_BELOW); row--) {
            int at = row;
            List<Column> there = table.columns().stream().filter(column -> column.isPresent(at)).toList();
            if (there.size() > 1 || there.size() == 1 && (there.get(0).kind() != Kind.TEXT || isNamedTotal(there.get(0).written(at)))) {
                return row;
            }
        }
        return last;
    }

    /** A figure of the last row beside the sum of those above. */
    private record Against(String column, double stands, double sum, int decimals, Fit fit) {

        enum Fit {
            EXACT, ROUNDED, OTHER
        }

        static Against of(Column column, int rows) {
            double sum = CompensatedSum.of(IntStream.range(0, rows).filter(column::isPresent).mapToDouble(column::number));
            double stands = column.number(rows);
            double off = Math.abs(sum - stands);
            if (sum != 0 && off <= CLOSE * Math.abs(sum)) {
                return new Against(column.name(), stands, sum, 0, Fit.EXACT);
            }
            if (Double.isNaN(off) || Double.isInfinite(off)) {
                return new Against(column.name(), stands, sum, 0, Fit.OTHER);
            }
            boolean far = sum == 0 || off > 0.5 * rows * (1 + CLOSE);
            int decimals = IntStream.rangeClosed(0, rows).filter(column::isPresent)
                    .map(row -> Math.max(0, BigDecimal.valueOf(column.number(row)).stripTrailingZeros().scale())).max().orElse(0);
            boolean rounded = !far && off <= 0.5 * rows * Math.pow(10, -decimals) * (1 + CLOSE);
            return new Against(column.name(), stands, sum, decimals, rounded ? Fit.ROUNDED : Fit.OTHER);
        }

        boolean isSmall() {
            return Math.abs(sum - stands) <= SMALL * Math.abs(sum);
        }

        @Override
        public String toString() {
            if (!Double.isFinite(sum) || !Double.isFinite(stands)) {
                return "the figures of '" + column + "' are too large to be added";
            }
            BigDecimal whole = BigDecimal.valueOf(sum).setScale(decimals, RoundingMode.HALF_EVEN);
            BigDecimal off = BigDecimal.valueOf(stands).subtract(whole).stripTrailingZeros();
            return "'" + column + "' is " + Numbers.shortest(stands) + " there, and the rows above make " + Numbers.shortest(whole.doubleValue()) + ": "
                    + off.abs().toPlainString() + (off.signum() < 0 ? " less" : " more");
        }
    }

    /** Whether a cell says that its row is a total, and nothing else. */
    static boolean isTotal(String cell) {
        return BARE_NAME.matcher(cell).matches();
    }

    /** Whether a cell says that its row is a total, among other things. */
    static boolean isNamedTotal(String cell) {
        return NAME.matcher(cell).matches();
    }

    /**
     * Whether a last row may be the total of those above, by a word in it or by its figures.
     *
     * @param cells of the row, as they stand
     * @param sums  of each column of numbers over all rows, the last one among them
     */
    static boolean mayBeTotal(List<Field> fields, List<String> cells, double[] sums, long rows) {
        boolean some = false;
        boolean fits = true;
        for (int i = 0; i < fields.size(); i++) {
            if (fields.get(i).kind() != Kind.NUMBER && isNamedTotal(cells.get(i))) {
                return true;
            } else if (fields.get(i).kind() == Kind.NUMBER) {
                OptionalDouble figure = Numbers.parse(cells.get(i));
                some |= figure.isPresent();
                fits &= figure.isEmpty() || Math.abs(sums[i] - 2 * figure.getAsDouble()) <= rows + WIDE * Math.abs(sums[i]);
            }
        }
        return some && fits;
    }

    /** The table as the layout wants it: with a note on a total, without it, or as it is. */
    static Table seenTo(Table table, Layout.TotalRow what) {
        if (what == Layout.TotalRow.KEEP || table.rowCount() == 0) {
            return table;
        }
        LastRow last = new LastRow(table);
        return what == Layout.TotalRow.DROP ? last.dropped() : last.told();
    }

    private Table dropped() {
        if (!isTotal()) {
            String why = last + 1 < FEWEST_ROWS ? "there are too few rows above it" : figures.isEmpty() ? "it holds no figure"
                    : with(Against.Fit.OTHER).isEmpty() ? "no word and no blank cell in it says that it is a total" : String.join("; ", with(Against.Fit.OTHER));
            throw new BadInput(table.place(), ProblemKind.DATA, "the last row is to be dropped as a total, and its figures are not the sums of the rows above: " + why);
        }
        Table above = table.rows(IntStream.range(0, last).toArray());
        List<String> rounded = with(Against.Fit.ROUNDED);
        return rounded.isEmpty() ? above : above.withNotes(new Note("the total row that is dropped is off by rounding", rounded));
    }

    private Table told() {
        String place = table.rowPlace(last).toString();
        if (isTotal()) {
            List<String> listed = new ArrayList<>(with(Against.Fit.ROUNDED));
            String but = listed.isEmpty() ? "" : ", but for rounding";
            listed.add(place);
            return table.withNotes(Note.urgent("the last row is the sum of the rows above" + but + ", and would be counted twice; drop it with 'total-row: drop', or keep it with"
                    + " 'total-row: keep'", listed));
        }
        if (calledTotal && last + 1 >= FEWEST_ROWS && !figures.isEmpty()) {
            List<String> listed = new ArrayList<>(with(Against.Fit.OTHER));
            listed.add(place);
            return table.withNotes(Note.urgent("the last row is called a total and counted as any other row, and not all of its figures are the sums of the rows above; keep it"
                    + " with 'total-row: keep', or take it out of the table", listed));
        }
        return table;
    }

    /** Every figure is the sum above, and a word or a blank says so: a row that is named as all others are may be as large as they are together. */
    private boolean isTotal() {
        boolean fits = last + 1 >= FEWEST_ROWS && figures.stream().allMatch(each -> each.fit() == Against.Fit.EXACT
                || each.fit() == Against.Fit.ROUNDED && (named || each.isSmall()));
        return fits && !figures.isEmpty() && (named || blank);
    }

    private List<String> with(Against.Fit fit) {
        return figures.stream().filter(each -> each.fit() == fit).map(Against::toString).toList();
    }
}
