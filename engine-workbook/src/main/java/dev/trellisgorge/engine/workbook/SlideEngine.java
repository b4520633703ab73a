package dev.trellisgorge.engine.workbook;

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
 * Writes pages as slides ({@code .pptx}, PresentationML): one each, with native charts. Behind each chart is a workbook with the raw
 * rows and the helper columns as formulas, which a person can edit. Thread-safe.
 */
public final class SlideEngine implements Engine {

    @Override
    public Set<String> endings() {
        return Set.of("pptx");
    }

    @Override
    public boolean holdsSeveral(String ending) {
        return true;
    }

    @Override
    public Set<Ability> abilities() {
        return WorkbookEngine.ofNativeCharts();
    }

    @Override
    public Set<Options.Extra> takes(String ending) {
        return EnumSet.of(Options.Extra.AUTHOR, Options.Extra.DATE);
    }

    @Override
    public void draw(List<Page> pages, String ending, Options options, OutputStream out, Consumer<String> warnings) throws IOException {
        new SlideDeck(pages, options, warnings).writeTo(out);
    }
}
