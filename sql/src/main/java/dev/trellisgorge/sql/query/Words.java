package dev.trellisgorge.sql.query;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import net.sf.jsqlparser.schema.Table;

/** Pieces of a query put together. */
final class Words {
    private Words() {
    }

    /** Those that are there, with blanks between them. */
    static String of(Object... pieces) {
        return Stream.of(pieces).filter(piece -> piece != null && !piece.toString().isEmpty()).map(Object::toString).collect(Collectors.joining(" "));
    }

    static String when(boolean so, String word) {
        return so ? word : "";
    }

    /** A word and what follows it, where that is there. */
    static <T> String before(String word, T piece, Function<T, String> written) {
        return piece == null ? "" : word + " " + written.apply(piece);
    }

    /** The name of a table, with its schema and database where they are stated. A text in its place would be the name of a file. */
    static String named(Table table) {
        List<String> parts = new ArrayList<>(table.getNameParts());
        Collections.reverse(parts);
        return parts.stream().anyMatch(part -> part == null || part.contains("'") && !part.startsWith("\"") && !part.startsWith("`")) ? Nodes.UNKNOWN : String.join(".", parts);
    }
}
