package dev.trellisgorge.table;

import java.time.LocalDate;
import java.util.Arrays;
import java.util.Optional;

/**
 * A named, immutable run of cells of one {@link Kind}. Rows are 0-based. A cell may be missing, which is
 * not zero and not an empty text.
 *
 * <p>Numbers, dates (days since 1970-01-01) and truths (1 or 0) are stored as doubles, missing as NaN, so
 * that formulas run over primitive arrays; texts are stored as strings.
 */
public final class Column {
    private final String name;
    private final Kind kind;
    private final double[] figures;
    private final String[] texts;

    private Column(String name, Kind kind, double[] figures, String[] texts) {
        this.name = name;
        this.kind = kind;
        this.figures = figures;
        this.texts = texts;
    }

    /** Numbers; NaN is a missing cell, and a negative zero becomes zero. */
    public static Column numbers(String name, double... values) {
        double[] copy = new double[values.length];
        for (int row = 0; row < values.length; row++) {
            copy[row] = values[row] + 0.0;
        }
        return new Column(name, Kind.NUMBER, copy, null);
    }

    /** Texts; null is a missing cell. */
    public static Column texts(String name, String... values) {
        return new Column(name, Kind.TEXT, null, values.clone());
    }

    /** Dates; null is a missing cell. */
    public static Column dates(String name, LocalDate... values) {
        double[] days = Arrays.stream(values).mapToDouble(d -> d == null ? Double.NaN : d.toEpochDay()).toArray();
        return new Column(name, Kind.DATE, days, null);
    }

    /** Truths; null is a missing cell. */
    public static Column truths(String name, Boolean... values) {
        double[] marks = Arrays.stream(values).mapToDouble(t -> t == null ? Double.NaN : t ? 1 : 0).toArray();
        return new Column(name, Kind.TRUTH, marks, null);
    }

    /**
     * A column over an array that the caller hands over and never touches again: no copy is made.
     * Numbers as they are, dates as epoch days, truths as 1 or 0, NaN for missing.
     */
    public static Column owning(String name, Kind kind, double[] figures) {
        if (kind == Kind.TEXT) {
            throw new IllegalArgumentException("texts are strings, not figures");
        }
        return new Column(name, kind, figures, null);
    }

    public String name() {
        return name;
    }

    public Kind kind() {
        return kind;
    }

    public int size() {
        return texts == null ? figures.length : texts.length;
    }

    public boolean isPresent(int row) {
        return texts == null ? !Double.isNaN(figures[row]) : texts[row] != null;
    }

    /**
     * The number, epoch day or truth (1, 0) in a row; NaN where it is missing.
     *
     * @throws IllegalStateException for a text column
     */
    public double number(int row) {
        return figures()[row];
    }

    /** The date in a row, empty where it is missing. */
    public Optional<LocalDate> date(int row) {
        return isPresent(row) ? Optional.of(LocalDate.ofEpochDay((long) number(row))) : Optional.empty();
    }

    /**
     * The cell as text: a text as it is, a number in its shortest form, an ISO date, {@code true} or
     * {@code false}; empty where it is missing.
     */
    public String written(int row) {
        if (!isPresent(row)) {
            return "";
        }
        return switch (kind) {
            case NUMBER -> Numbers.shortest(figures[row]);
            case TEXT -> texts[row];
            case DATE -> LocalDate.ofEpochDay((long) figures[row]).toString();
            case TRUTH -> figures[row] == 1 ? "true" : "false";
        };
    }

    /** Copies {@code count} cells from row {@code from} on to {@code into}, from index {@code at} on; NaN for missing. */
    public void read(int from, int count, double[] into, int at) {
        System.arraycopy(figures(), from, into, at, count);
    }

    public Column named(String newName) {
        return new Column(newName, kind, figures, texts);
    }

    /** The cells at these 0-based rows, in that order; missing at a negative one. */
    public Column at(int[] rows) {
        if (texts != null) {
            return new Column(name, kind, null, Arrays.stream(rows).mapToObj(r -> r < 0 ? null : texts[r]).toArray(String[]::new));
        }
        return new Column(name, kind, Arrays.stream(rows).mapToDouble(r -> r < 0 ? Double.NaN : figures[r]).toArray(), null);
    }

    /** One cell more at {@code at}, holding a text; a column of another kind becomes one of texts. */
    Column withText(int at, String text) {
        String[] longer = new String[size() + 1];
        for (int row = 0; row < longer.length; row++) {
            int before = row < at ? row : row - 1;
            longer[row] = row == at ? text : isPresent(before) ? written(before) : null;
        }
        return new Column(name, Kind.TEXT, null, longer);
    }

    /** One cell more at {@code at}, holding a figure, or missing (NaN); missing whatever it is where the column holds texts. */
    Column withFigure(int at, double figure) {
        if (texts != null) {
            return withText(at, null);
        }
        double[] longer = new double[figures.length + 1];
        System.arraycopy(figures, 0, longer, 0, at);
        longer[at] = figure;
        System.arraycopy(figures, at, longer, at + 1, figures.length - at);
        return new Column(name, kind, longer, null);
    }

    private double[] figures() {
        if (figures == null) {
            throw new IllegalStateException("column '" + name + "' holds text");
        }
        return figures;
    }

    @Override
    public String toString() {
        return name + " (" + kind.name().toLowerCase(java.util.Locale.ROOT) + ", " + size() + " rows)";
    }
}
