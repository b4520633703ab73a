package dev.trellisgorge.tables;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** The names that a workbook has for ranges of cells, list objects among them. Not thread-safe. */
final class NamedRanges {
    private static final Pattern CELLS = Pattern.compile("\\$?[A-Za-z]{1,3}(\\$?\\d{1,7})?(:\\$?[A-Za-z]{1,3}(\\$?\\d{1,7})?)?");
    /** As both formats write a range of one sheet, {@code 'The sheet'!$A$1:$C$5} and {@code $'The sheet'.$A$1:.$C$5}. */
    private static final Pattern WRITTEN = Pattern.compile("\\$?(?:'((?:[^']|'')+)'|([^'!.:()$]+))[!.](\\$?[A-Z]{1,3}\\$?\\d{1,7})(?::(?:\\$?(?:'(?:[^']|'')+'|[^'!.:()$]*))?[.!]?(\\$?[A-Z]{1,3}\\$?\\d{1,7}))?");

    /** What a program keeps for itself, such as what is printed. */
    private static final String BUILT_IN = "_xlnm.";

    private final Map<String, At> ranges = new LinkedHashMap<>();
    private final Map<String, String> names = new LinkedHashMap<>();

    /** Where a range is. @param cells such as {@code A1:C5}; empty where it is none of cells alone */
    private record At(String sheet, String cells) {
    }

    /** A name, and what it stands for as the file writes it. */
    void add(String name, String written) {
        if (name.startsWith(BUILT_IN)) {
            return;
        }
        Matcher range = WRITTEN.matcher(written.strip());
        boolean plain = range.matches();
        String sheet = !plain ? "" : range.group(1) != null ? range.group(1).replace("''", "'") : range.group(2);
        add(name, sheet, plain ? (range.group(3) + (range.group(4) == null ? "" : ":" + range.group(4))).replace("$", "") : "");
    }

    /** The same of a list object on a sheet. */
    void add(String name, String sheet, String cells) {
        names.putIfAbsent(name.toLowerCase(Locale.ROOT), name);
        ranges.putIfAbsent(name.toLowerCase(Locale.ROOT), new At(sheet, cells));
    }

    static boolean isName(Layout layout) {
        return layout.range().filter(range -> !CELLS.matcher(range).matches()).isPresent();
    }

    /** The layout with the cells for which its range's name stands. @throws BadInput where there is no such name, or it stands for something else */
    Layout located(Layout layout, Place place) {
        if (!isName(layout)) {
            return layout;
        }
        String name = layout.range().orElseThrow();
        At at = ranges.get(name.toLowerCase(Locale.ROOT));
        if (at == null) {
            throw new BadInput(place, ProblemKind.UNKNOWN_NAME, "there is no range '" + name + "'; write cells such as B3:F40, whole columns such as B:F, or a name that the workbook has. " + Nearest.hint(name, List.copyOf(names.values())));
        } else if (at.cells().isEmpty()) {
            throw new BadInput(place, ProblemKind.UNKNOWN_NAME, "the name '" + name + "' stands for no range of cells on one sheet");
        } else if (layout.sheet().filter(sheet -> !sheet.equals(at.sheet())).isPresent()) {
            throw new BadInput(place, ProblemKind.CONFLICT, "the range '" + name + "' is on the sheet '" + at.sheet() + "', not on '" + layout.sheet().get() + "'");
        }
        return layout.range(at.cells()).sheet(at.sheet());
    }
}
