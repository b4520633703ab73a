package dev.trellisgorge.engine.json;

import dev.trellisgorge.engine.Ability;
import dev.trellisgorge.engine.Engine;
import dev.trellisgorge.engine.Options;
import dev.trellisgorge.engine.Page;
import java.io.IOException;
import java.io.OutputStream;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;

/**
 * Writes pages as JSON ({@code .json}, UTF-8): everything that an engine is given, and nothing lowered, so that any other
 * engine can be fed. The form is described by the JSON Schema {@code plain-charts.schema.json} beside this class.
 */
public final class JsonEngine implements Engine {

    @Override
    public Set<String> endings() {
        return Set.of("json");
    }

    @Override
    public boolean holdsSeveral(String ending) {
        return true;
    }

    @Override
    public Set<Ability> abilities() {
        return EnumSet.complementOf(EnumSet.of(Ability.BARS_IN_CELLS));
    }

    @Override
    public void draw(List<Page> pages, String ending, Options options, OutputStream out, Consumer<String> warnings) throws IOException {
        new PageWriter(out).write(pages, options.size());
    }
}
