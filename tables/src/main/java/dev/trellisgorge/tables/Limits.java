package dev.trellisgorge.tables;

/**
 * What a file may hold at most; one that holds more is refused, so that a file made to fill the memory can't.
 *
 * @param cells      rows times columns
 * @param columns    of a row
 * @param characters of a cell
 */
public record Limits(long cells, int columns, int characters) {
    public static final Limits STANDARD = new Limits(1_000_000_000, 16_384, 1_000_000);

    public Limits {
        if (cells < 1 || columns < 1 || characters < 1) {
            throw new IllegalArgumentException("each limit is 1 or more");
        }
    }
}
