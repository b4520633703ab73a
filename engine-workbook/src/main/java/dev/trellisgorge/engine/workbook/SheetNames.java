package dev.trellisgorge.engine.workbook;

import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.apache.poi.ss.util.CellReference;
import org.apache.poi.ss.util.WorkbookUtil;

/** Names that a workbook allows, each given out once: sheets (31 characters, case aside) and defined names. */
final class SheetNames {
    private static final int LONGEST = 31;

    private final Set<String> taken = new HashSet<>();
    private final Set<String> takenDefined = new HashSet<>();
    private final Map<String, String> defined = new HashMap<>();

    /** Takes names that a workbook has already, of sheets and of cells. */
    void taken(Collection<String> sheets, Collection<String> cells) {
        sheets.forEach(name -> taken.add(name.toLowerCase(Locale.ROOT)));
        cells.forEach(name -> takenDefined.add(name.toLowerCase(Locale.ROOT)));
    }

    /** The wanted name, as near as a workbook takes it. */
    String sheet(String wanted) {
        String safe = WorkbookUtil.createSafeSheetName(wanted, '_');
        String name = safe;
        for (int i = 2; !taken.add(name.toLowerCase(Locale.ROOT)); i++) {
            String suffix = " " + i;
            name = safe.substring(0, Math.min(safe.length(), LONGEST - suffix.length())) + suffix;
        }
        return name;
    }

    /** A setting's name, marked with {@code _} where a sheet would take it for a cell ({@code Q1}, {@code R}) or has it. */
    String defined(String setting) {
        return defined.computeIfAbsent(setting, wanted -> {
            String safe = wanted.substring(0, Math.min(wanted.length(), SheetBounds.DEFINED_NAME - 10)) + (isReference(wanted) ? "_" : "");
            String name = safe;
            for (int i = 2; !takenDefined.add(name.toLowerCase(Locale.ROOT)); i++) {
                name = safe + "_" + i;
            }
            return name;
        });
    }

    private static boolean isReference(String name) {
        boolean cell = name.matches("[A-Za-z]{1,3}[0-9]{1,7}")
                && CellReference.convertColStringToIndex(name.replaceAll("[0-9]", "")) < SheetBounds.COLUMNS
                && Integer.parseInt(name.replaceAll("[A-Za-z]", "")) <= SheetBounds.ROWS;
        return cell || name.matches("(?i)[rc][0-9]*|r[0-9]*c[0-9]*|true|false");
    }
}
