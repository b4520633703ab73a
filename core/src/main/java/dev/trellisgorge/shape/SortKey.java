package dev.trellisgorge.shape;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.ColumnReferences;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;

/**
 * What rows are sorted by; missing keys come last. Immutable.
 *
 * @param by         the key
 * @param descending whether the largest comes first
 */
public record SortKey(Formula by, boolean descending) {

    public SortKey {
        Objects.requireNonNull(by, "by");
    }

    /** A key that comes before others, which break its ties. */
    static List<SortKey> before(SortKey first, List<SortKey> others) {
        List<SortKey> keys = new ArrayList<>(List.of(first));
        keys.addAll(others);
        return keys;
    }

    /** The keys that can still be read once some columns are gone. */
    static List<SortKey> within(List<String> gone, List<SortKey> keys) {
        Set<String> missing = new HashSet<>(gone);
        return keys.stream().filter(key -> ColumnReferences.columns(key.by()).stream().noneMatch(missing::contains)).toList();
    }

    @Override
    public String toString() {
        return by + (descending ? " DESC" : "");
    }
}
