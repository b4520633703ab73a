package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.engine.Options;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
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
import java.util.Set;
import java.util.function.BiConsumer;
import java.util.stream.IntStream;
import org.apache.poi.ss.util.CellRangeAddress;

/**
 * Where the cells of raw tables stand: each table on a sheet of its own, once, in the order in which they are first asked for; or on a
 * sheet of the workbook that is drawn into, where they were read there.
 */
final class RawSheets {
    private final SheetNames names;
    private final Optional<HostWorkbook> host;
    private final Options options;
    private final Map<Table, Stands> known = new IdentityHashMap<>();
    private final Map<String, Table> inOrder = new LinkedHashMap<>();
    private final List<String> copied = new ArrayList<>();

    /**
     * Where a table's cells stand.
     *
     * @param first   the line of its first row, as a reader counts them
     * @param columns of each of its columns, from 0
     * @param isOwn   whether the sheet was made for it, and nothing else stands there
     */
    record Stands(String sheet, int first, int[] columns, boolean isOwn) {
    }

    /**
     * What formulas count on, as they say nothing of cells that are missing: that a table has a cell wherever it had one.
     *
     * @param table     its name
     * @param condition a formula that holds where it has
     */
    record Filled(String table, String condition) {
    }

    /**
     * @param host    the workbook that is drawn into; empty where there is none
     * @param options of which its file and the room for rows to come are read
     */
    RawSheets(SheetNames names, Optional<HostWorkbook> host, Options options) {
        this.names = names;
        this.host = host;
        this.options = options;
    }

    /**
     * Where the cells of a table stand.
     *
     * @throws BadInput where it doesn't fit on a sheet, or rows are to come where other cells stand
     */
    Stands of(Table table) {
        return known.computeIfAbsent(table, each -> {
            Optional<Source.OfSheet> own = isOfHost(each) ? each.source().sheet() : Optional.empty();
            if (own.isPresent()) {
                Optional<String> why = why(each, own.get());
                if (why.isEmpty()) {
                    return checked(each, new Stands(own.get().name(), each.source().lines()[0], own.get().columns(), false));
                }
                copied.add("'" + each.name() + "': its cells are copied, as " + why.get() + ", so edits on the sheet '" + own.get().name() + "' are not followed");
            }
            SheetBounds.refuseTooLarge(each);
            String name = names.sheet(each.name());
            inOrder.put(name, each);
            return new Stands(name, Block.RAW_FIRST, IntStream.range(0, each.columns().size()).toArray(), true);
        });
    }

    /**
     * What formulas count on of a table.
     *
     * @param read the columns that they read
     * @return empty where each of those lacks a cell already, or there are no rows
     */
    Optional<Filled> filled(Table table, Set<String> read) {
        Stands stands = of(table);
        List<String> conditions = new ArrayList<>();
        for (int at = 0; at < table.columns().size(); at++) {
            Column column = table.columns().get(at);
            if (table.rowCount() > 0 && read.contains(column.name()) && IntStream.range(0, table.rowCount()).allMatch(column::isPresent)) {
                String cells = new CellRangeAddress(stands.first() - 1, stands.first() + table.rowCount() - 2, stands.columns()[at], stands.columns()[at]).formatAsString(stands.sheet(), true);
                String count = column.kind() == Kind.NUMBER || column.kind() == Kind.DATE ? "COUNT" : "COUNTA";
                conditions.add(count + "(" + cells + ")=" + table.rowCount());
            }
        }
        return conditions.isEmpty() ? Optional.empty() : Optional.of(new Filled(table.name(), SheetHead.all(conditions)));
    }

    /** The lines below a table of somebody else's sheet are free, where rows are to come. */
    private Stands checked(Table table, Stands stands) {
        int below = stands.first() + table.rowCount();
        if (options.spareRows() > 0) {
            host.orElseThrow().firstFilled(stands.sheet(), below, below + options.spareRows(), IntStream.of(stands.columns()).min().orElseThrow(), IntStream.of(stands.columns()).max().orElseThrow()).ifPresent(line -> {
                throw new BadInput(table.place(), ProblemKind.UNSUPPORTED, "row " + line + " of the sheet '" + stands.sheet() + "' holds something where rows are to come below '" + table.name() + "'; free it, or leave room for fewer rows");
            });
        }
        return stands;
    }

    private boolean isOfHost(Table table) {
        try {
            Optional<Path> book = table.source().sheet().map(Source.OfSheet::book).filter(Files::exists);
            return host.isPresent() && book.isPresent() && Files.isSameFile(options.into().orElseThrow(), book.get());
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
