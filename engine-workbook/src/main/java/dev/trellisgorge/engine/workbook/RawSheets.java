package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.table.Source;
import dev.trellisgorge.table.Table;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.stream.IntStream;

/**
 * Where the cells of raw tables stand: each table on a sheet of its own, once, in the order in which they are first asked for; or on a
 * sheet of the workbook that is drawn into, where they were read there.
 */
final class RawSheets {
    private final SheetNames names;
    private final Optional<Path> host;
    private final Map<Table, Stands> known = new IdentityHashMap<>();
    private final Map<String, Table> inOrder = new LinkedHashMap<>();
    private final List<String> copied = new ArrayList<>();

    /**
     * Where a table's cells stand.
     *
     * @param first   the line of its first row, as a reader counts them
     * @param columns of each of its columns, from 0
     */
    record Stands(String sheet, int first, int[] columns) {
    }

    /** @param host the workbook that is drawn into; empty where there is none */
    RawSheets(SheetNames names, Optional<Path> host) {
        this.names = names;
        this.host = host;
    }

    /**
     * Where the cells of a table stand.
     *
     * @throws dev.trellisgorge.problem.BadInput where it doesn't fit on a sheet
     */
    Stands of(Table table) {
        return known.computeIfAbsent(table, each -> {
            Optional<Source.OfSheet> own = isOfHost(each) ? each.source().sheet() : Optional.empty();
            if (own.isPresent()) {
                Optional<String> why = why(each, own.get());
                if (why.isEmpty()) {
                    return new Stands(own.get().name(), each.source().lines()[0], own.get().columns());
                }
                copied.add("'" + each.name() + "': its cells are copied, as " + why.get() + ", so edits on the sheet '" + own.get().name() + "' are not followed");
            }
            SheetBounds.refuseTooLarge(each);
            String name = names.sheet(each.name());
            inOrder.put(name, each);
            return new Stands(name, Block.RAW_FIRST, IntStream.range(0, each.columns().size()).toArray());
        });
    }

    private boolean isOfHost(Table table) {
        try {
            return host.isPresent() && !table.source().file().isEmpty() && Files.exists(Path.of(table.source().file())) && Files.isSameFile(host.get(), Path.of(table.source().file()));
        } catch (IOException e) {
            return false;
        }
    }

    /** Why formulas can't refer to the cells themselves; empty where they can. */
    private static Optional<String> why(Table table, Source.OfSheet sheet) {
        int[] lines = table.source().lines();
        if (lines.length != table.rowCount() || lines.length == 0 || IntStream.range(1, lines.length).anyMatch(row -> lines[row] != lines[0] + row)) {
            return Optional.of("there are blank rows between them");
        } else if (sheet.columns().length != table.columns().size()) {
            return Optional.of("columns were added to them");
        } else if (!RowFormula.canShift(lines[0] - SheetLayout.FIRST)) {
            return Optional.of("they begin far down on their sheet");
        }
        return IntStream.range(0, sheet.columns().length).filter(at -> sheet.columns()[at] < 0).mapToObj(at -> "not all of '" + table.columns().get(at).name() + "' are " + switch (table.columns().get(at).kind()) {
            case NUMBER -> "figures";
            case DATE -> "dates";
            case TRUTH -> "truths";
            case TEXT -> "texts";
        } + " on the sheet").findFirst();
    }

    /** The tables of the workbook that is drawn into whose cells had to be copied, a sentence each. */
    List<String> copied() {
        return List.copyOf(copied);
    }

    /** Those that have a sheet of their own. */
    void forEach(BiConsumer<Table, String> action) {
        inOrder.forEach((name, table) -> action.accept(table, name));
    }
}
