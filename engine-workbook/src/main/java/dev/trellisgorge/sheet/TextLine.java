package dev.trellisgorge.sheet;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;

/**
 * A line of words in one or several looks. Immutable.
 *
 * @param at where it stands; empty for as the program has it
 */
public record TextLine(List<Run> runs, Optional<At> at) {

    /** Where a line stands between left and right. */
    public enum At {
        LEFT, CENTRE, RIGHT
    }

    /** Words in one look. */
    public record Run(String words, TextLook look) {
    }

    public TextLine {
        runs = List.copyOf(runs);
    }

    public static TextLine of(String words, TextLook look, Optional<At> at) {
        return new TextLine(List.of(new Run(words, look)), at);
    }

    /** All its words. */
    public String words() {
        return runs.stream().map(Run::words).collect(Collectors.joining());
    }
}
