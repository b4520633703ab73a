package dev.trellisgorge.table;

import java.time.LocalDate;
import java.util.Arrays;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;

/**
 * A named, immutable run of cells of one {@link Kind}. Rows are 0-based. A cell may be missing, which is
 * not zero and not an empty text.
 *
 * <p>Numbers, dates (days since 1970-01-01) and truths (1 or 0) are stored as doubles, missing as NaN, so
 * that formulas run over primitive arrays; texts are stored as strings. Thread-safe.
 */
public final class Column {
    private final String name;
    private final Kind kind;
    private final FigureChunks figures;
    private final String[] texts;
    private final double[] weights;

    private Column(String name, Kind kind, double[] figures) {
        this(name, kind, FigureChunks.of(figures), null, null);
    }

    private Column(String name, Kind kind, FigureChunks figures, String[] texts, double[] weights) {
        this.name = Characters.shown(Objects.requireNonNull(name, "name"));
        this.kind = Objects.requireNonNull(kind, "kind");
        this.figures = figures;
        this.texts = texts;
        this.weights = weights;
    }

    /** Numbers; NaN is a missing cell, and a negative zero becomes zero. */
    public static Column numbers(String name, double... values) {
        double[] copy = new double[values.length];
        for (int row = 0; row < values.length; row++) {
            copy[row] = values[row] + 0.0;
        }
        return new Column(name, Kind.NUMBER, copy);
    }

    /** Texts, with � for characters that {@linkplain Characters no output can take}; null is a missing cell. */
    public static Column texts(String name, String... values) {
        return owning(name, values.clone());
    }

    /** Dates; null is a missing cell. */
    public static Column dates(String name, LocalDate... values) {
        double[] days = Arrays.stream(values).mapToDouble(d -> d == null ? Double.NaN : d.toEpochDay()).toArray();
        return new Column(name, Kind.DATE, days);
    }

    /** Truths; null is a missing cell. */
    public static Column truths(String name, Boolean... values) {
        double[] marks = Arrays.stream(values).mapToDouble(t -> t == null ? Double.NaN : t ? 1 : 0).toArray();
        return new Column(name, Kind.TRUTH, marks);
    }

    /**
     * A column over an array that the caller hands over and never touches again: no copy is made.
     * Numbers as they are, dates as epoch days, truths as 1 or 0, NaN for missing.
     */
    public static Column owning(String name, Kind kind, double[] figures) {
        return owning(name, kind, FigureChunks.of(figures));
    }

    /** The same over chunks that were filled. */
    public static Column owning(String name, Kind kind, FigureChunks figures) {
        if (kind == Kind.TEXT) {
            throw new IllegalArgumentException("texts are strings, not figures");
        }
        return new Column(name, kind, Objects.requireNonNull(figures, "figures"), null, null);
    }

    /** The same for texts; null for missing. */
    public static Column owning(String name, String[] texts) {
        for (int row = 0; row < texts.length; row++) {
            texts[row] = texts[row] == null ? null : Characters.shown(texts[row]);
        }
        return new Column(name, Kind.TEXT, null, texts, null);
    }

    /**
     * This column of means, each of so many cells: what a mean of several rows has to know.
     *
     * @param counts one a row
     */
    public Column weighted(double[] counts) {
        return new Column(name, kind, figures, texts, counts.clone());
    }

    /** How many cells a mean was made of; 1 where that is not known. */
    public double weight(int row) {
        return weights == null ? 1 : weights[row];
    }

    public String name() {
        return name;
    }

    public Kind kind() {
        return kind;
    }

    public int size() {
        return texts == null ? figures.size() : texts.length;
    }

    public boolean isPresent(int row) {
        return texts == null ? !Double.isNaN(figures.get(row)) : texts[row] != null;
    }

    /**
     * The number, epoch day or truth (1, 0) in a row; NaN where it is missing.
     *
     * @throws IllegalStateException for a text column
     */
    public double number(int row) {
        return figures().get(row);
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
            case NUMBER -> Numbers.shortest(figures.get(row));
            case TEXT -> texts[row];
            case DATE -> LocalDate.ofEpochDay((long) figures.get(row)).toString();
            case TRUTH -> figures.get(row) == 1 ? "true" : "false";
        };
    }

    /** Copies {@code count} cells from row {@code from} on to {@code into}, from index {@code at} on; NaN for missing. */
    public void read(int from, int count, double[] into, int at) {
        figures().read(from, count, into, at);
    }

    public Column named(String newName) {
        return new Column(newName, kind, figures, texts, weights);
    }

    /** The cells at these 0-based rows, in that order; missing at a negative one. */
    public Column at(int[] rows) {
        if (texts != null) {
            return new Column(name, kind, null, Arrays.stream(rows).mapToObj(r -> r < 0 ? null : texts[r]).toArray(String[]::new), null);
        }
        return new Column(name, kind, FigureChunks.of(Arrays.stream(rows).mapToDouble(r -> r < 0 ? Double.NaN : figures.get(r)).toArray()), null,
                weights == null ? null : Arrays.stream(rows).mapToDouble(r -> r < 0 ? 0 : weights[r]).toArray());
    }

    /** One cell more at {@code at}: a text, or a figure as it is stored, or missing where it is null or of another kind; a text in a column of dates makes it one of texts. */
    Column withCell(int at, Object cell) {
        if (kind == Kind.TEXT || cell instanceof String) {
            String[] longer = new String[size() + 1];
            for (int row = 0; row < longer.length; row++) {
                int before = row < at ? row : row - 1;
                longer[row] = row == at ? cell instanceof String text ? Characters.shown(text) : null : isPresent(before) ? written(before) : null;
            }
            return new Column(name, Kind.TEXT, null, longer, null);
        }
        double[] longer = new double[size() + 1];
        figures.read(0, at, longer, 0);
        longer[at] = cell instanceof Double figure ? figure : Double.NaN;
        figures.read(at, size() - at, longer, at + 1);
        return new Column(name, kind, longer);
    }

    /**
     * The numbers, epoch days or truths (1, 0) of all rows; NaN for missing. A copy.
     *
     * @throws IllegalStateException for a text column
     */
    public double[] toNumbers() {
        double[] all = new double[size()];
        read(0, all.length, all, 0);
        return all;
    }

    /** All cells as text, as {@link #written} gives them; null for missing. A copy. */
    public String[] toTexts() {
        String[] all = new String[size()];
        Arrays.setAll(all, row -> isPresent(row) ? written(row) : null);
        return all;
    }

    /** All dates; null for missing. A copy. Errors as for {@link #date}. */
    public LocalDate[] toDates() {
        LocalDate[] all = new LocalDate[size()];
        Arrays.setAll(all, row -> date(row).orElse(null));
        return all;
    }

    private FigureChunks figures() {
        if (figures == null) {
            throw new IllegalStateException("column '" + name + "' holds text");
        }
        return figures;
    }

    @Override
    public String toString() {
        return name + " (" + kind.name().toLowerCase(Locale.ROOT) + ", " + size() + " rows)";
    }
}
