package dev.trellisgorge.tables;

import dev.trellisgorge.problem.Note;
import dev.trellisgorge.table.Characters;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;

/** Tells of the characters in a table that no output can take. */
final class Replaced {
    private static final int LISTED = 5;

    private Replaced() {
    }

    /** The table with a note on its cells and names in which {@link Characters#REPLACEMENT} stands for a character. */
    static Table told(Table table) {
        List<String> places = new ArrayList<>();
        int count = 0;
        for (Column column : table.columns()) {
            if (holds(column.name())) {
                places.add("the name '" + column.name() + "'");
                count++;
            }
            int[] rows = column.kind() != Kind.TEXT ? new int[0] : IntStream.range(0, column.size()).filter(row -> holds(column.written(row))).toArray();
            IntStream.of(rows).limit(LISTED).forEach(row -> places.add(table.rowPlace(row).within("column '" + column.name() + "'").toString()));
            count += rows.length;
        }
        if (count == 0) {
            return table;
        }
        List<String> shown = new ArrayList<>(places.subList(0, Math.min(LISTED, places.size())));
        if (count > shown.size()) {
            shown.add("and " + (count - shown.size()) + " more");
        }
        return table.withNotes(new Note(count == 1 ? "1 text holds a character that can't be shown; � stands for it"
                : count + " texts hold characters that can't be shown; � stands for each", shown));
    }

    private static boolean holds(String text) {
        return text.indexOf(Characters.REPLACEMENT) >= 0;
    }
}
