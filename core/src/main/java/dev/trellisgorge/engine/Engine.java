package dev.trellisgorge.engine;

import dev.trellisgorge.plan.PlainChart;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.Consumer;

/**
 * Draws plain charts in one or more file formats. Engines are found through {@link java.util.ServiceLoader};
 * an engine's class is loaded to ask for its endings, so it should be small and load the rest when it draws. Implementations are thread-safe.
 */
public interface Engine {

    /** The file endings that it writes, lower case, without the dot. */
    Set<String> endings();

    /** Whether one file of that ending holds any number of pages; where not, {@link #draw} gets exactly one. */
    boolean holdsSeveral(String ending);

    /** What it can draw. It is given charts that need nothing else. */
    Set<Ability> abilities();

    /** A sentence that says why the engine can't draw a chart, though it has the abilities; empty where it can. */
    default Optional<String> refusal(PlainChart chart) {
        return Optional.empty();
    }

    /**
     * How many rows of a chart can be told apart in a place of so many pixels; of a chart with far more than that only the ones that
     * reach farthest are drawn ({@link PlainChart#downsampled}). Empty where each row is written, however many there are.
     */
    default OptionalInt mostRows(PlainChart chart, int width, int height) {
        return OptionalInt.empty();
    }

    /** Which options a file of that ending takes, beside the size; a drawing that asks for another is refused. */
    default Set<Options.Extra> takes(String ending) {
        return Set.of();
    }

    /**
     * Why a file of its kind that is there should not be written over: it holds what no engine wrote, or was changed since. Empty where
     * nothing is lost.
     */
    default Optional<String> loss(Path there) {
        return Optional.empty();
    }

    /**
     * Writes the whole file. The stream is not closed.
     *
     * @param pages  whose charts are lowered to {@link #abilities()}
     * @param ending which of {@link #endings()} is wanted
     * @param options of which it takes the size and {@link #takes}
     * @param warnings   takes a sentence for each thing that is left out of the drawing, or stands there otherwise, with the page's or chart's name
     */
    void draw(List<Page> pages, String ending, Options options, OutputStream out, Consumer<String> warnings) throws IOException;
}
