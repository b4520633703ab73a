package dev.trellisgorge.sheet;

import dev.trellisgorge.chart.Color;
import java.util.Optional;

/**
 * How words of a drawing look. Immutable.
 *
 * @param size in 1/100 point
 * @param bold empty for as the program has it
 * @param font empty for as the program has it
 */
public record TextLook(int size, Optional<Boolean> bold, Color color, Optional<String> font) {

    public TextLook(int size, Color color) {
        this(size, Optional.empty(), color, Optional.of(CellLook.FONT));
    }

    public TextLook bold(boolean strong) {
        return new TextLook(size, Optional.of(strong), color, font);
    }
}
