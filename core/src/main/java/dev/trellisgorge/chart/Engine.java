package dev.trellisgorge.chart;

import java.io.IOException;
import java.io.OutputStream;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * Draws plain charts in one or more file formats. Engines are found through {@link java.util.ServiceLoader};
 * an engine's class is loaded to ask for its endings, so it should be small and load the rest when it draws.
 */
public interface Engine {

    /** The file endings that it writes, lower case, without the dot. */
    Set<String> endings();

    /** Whether one file holds any number of charts; where not, {@link #draw} gets exactly one. */
    boolean holdsSeveral();

    /** A sentence that says why the engine can't draw a chart; empty where it can. */
    default Optional<String> refusal(PlainChart chart) {
        return Optional.empty();
    }

    /**
     * Writes the whole file. The stream is not closed.
     *
     * @param ending which of {@link #endings()} is wanted
     * @param size   of each picture
     */
    void draw(List<PlainChart> charts, String ending, Size size, OutputStream out) throws IOException;
}
