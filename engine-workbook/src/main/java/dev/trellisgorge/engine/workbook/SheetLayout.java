package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.HelperTable;
import dev.trellisgorge.formula.SheetFormula;
import dev.trellisgorge.table.Kind;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.apache.poi.ss.util.CellReference;

/** Which column of a helper sheet holds what, and so what the names in formulas are called there. Columns count from 0. */
final class SheetLayout {
    private final HelperTable data;
    private final String raw;
    private final SheetNames names;
    private final Map<String, Integer> helperAt = new LinkedHashMap<>();
    private final Map<Formula, Integer> besideAt = new LinkedHashMap<>();
    private final Map<String, Integer> addedAt = new LinkedHashMap<>();

    SheetLayout(HelperTable data, String raw, SheetNames names) {
        this.data = data;
        this.raw = raw;
        this.names = names;
    }

    void helpers(List<String> columns, int from) {
        columns.forEach(column -> helperAt.put(column, from + helperAt.size()));
    }

    void beside(Collection<Formula> formulas, int from) {
        formulas.forEach(formula -> besideAt.put(formula, from + besideAt.size()));
    }

    void added(String input, int at) {
        addedAt.put(input, at);
    }

    int helperAt(String helper) {
        return helperAt.get(helper);
    }

    /** Whether a row is on no raw sheet. */
    boolean isAdded(int row) {
        return data.inputs().wholeRow(row) < 0;
    }

    /** The line of the raw sheet that a row stands on, 2 for the first. */
    int rawLine(int row) {
        return data.inputs().wholeRow(row) + 2;
    }

    /** A cell of the raw sheet, with its line marked. */
    String rawCell(String column) {
        int at = data.inputs().whole().columnNames().indexOf(column);
        String first = new CellReference(raw, 0, at, false, false).formatAsString();
        return first.substring(0, first.length() - 1) + RowFormula.RAW;
    }

    /** A helper cell of the same row, with its line marked. */
    String helper(String helper) {
        return letters(helperAt.get(helper)) + RowFormula.HERE;
    }

    private static String letters(int at) {
        return CellReference.convertNumToColString(at);
    }

    /** How a formula is written, by a writer for one kind of row. */
    interface Writing {
        String with(SheetFormula writer);
    }

    /** A formula as it is on the first row and on the others, and there on rows that were added. */
    final class RowFormulas {
        private final Writing writing;
        private final RowFormula[] written = new RowFormula[4];

        private RowFormulas(Writing writing) {
            this.writing = writing;
        }

        String at(int row) {
            boolean added = isAdded(row);
            int kind = (row == 0 ? 1 : 0) + (added ? 2 : 0);
            if (written[kind] == null) {
                written[kind] = new RowFormula(writing.with(new SheetFormula(cells(row == 0, added))));
            }
            return written[kind].at(row + 2, added ? 0 : rawLine(row));
        }
    }

    RowFormulas formulas(Writing writing) {
        return new RowFormulas(writing);
    }

    private SheetFormula.CellNames cells(boolean first, boolean added) {
        return new SheetFormula.CellNames() {
            @Override
            public String input(String input) {
                return added ? letters(addedAt.get(input)) + RowFormula.HERE : rawCell(input);
            }

            @Override
            public Kind inputKind(String input) {
                return data.inputs().column(input).kind();
            }

            @Override
            public Kind helperKind(String helper) {
                return data.column(helper).cells().kind();
            }

            @Override
            public String helper(String helper) {
                return SheetLayout.this.helper(helper);
            }

            @Override
            public String setting(String setting) {
                return names.defined(setting);
            }

            @Override
            public String here(Formula formula) {
                return letters(besideAt.get(formula)) + RowFormula.HERE;
            }

            @Override
            public Optional<String> above(Formula formula) {
                return first ? Optional.empty() : Optional.of(letters(besideAt.get(formula)) + RowFormula.ABOVE);
            }

            @Override
            public String range(Formula formula) {
                String column = "$" + letters(besideAt.get(formula)) + "$";
                return column + 2 + ":" + column + (Math.max(1, data.rowCount()) + 1);
            }

            @Override
            public Optional<String> rangeAbove(Formula formula) {
                String column = "$" + letters(besideAt.get(formula));
                return first ? Optional.empty() : Optional.of(column + "$2:" + column + RowFormula.ABOVE);
            }
        };
    }
}
