package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.table.Table;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.BiConsumer;

/** The tables whose cells stand on sheets of their own, each once, in the order in which they are first asked for. */
final class RawSheets {
    private final SheetNames names;
    private final Map<Table, String> known = new IdentityHashMap<>();
    private final Map<String, Table> inOrder = new LinkedHashMap<>();

    RawSheets(SheetNames names) {
        this.names = names;
    }

    /**
     * The sheet of a table.
     *
     * @throws dev.trellisgorge.problem.BadInput where it doesn't fit on one
     */
    String of(Table table) {
        return known.computeIfAbsent(table, each -> {
            SheetBounds.refuseTooLarge(each);
            String name = names.sheet(each.name());
            inOrder.put(name, each);
            return name;
        });
    }

    void forEach(BiConsumer<Table, String> action) {
        inOrder.forEach((name, table) -> action.accept(table, name));
    }
}
