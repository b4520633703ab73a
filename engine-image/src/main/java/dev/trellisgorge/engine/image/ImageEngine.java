package dev.trellisgorge.engine.image;

import dev.trellisgorge.engine.Ability;
import dev.trellisgorge.engine.Engine;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.chart.Size;
import java.io.IOException;
import java.io.OutputStream;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;

/** Draws pages as pictures: {@code .png} (sRGB), {@code .svg} and {@code .pdf} (text stays text; a page each). */
public final class ImageEngine implements Engine {

    @Override
    public Set<String> endings() {
        return Set.of("png", "svg", "pdf");
    }

    @Override
    public boolean holdsSeveral(String ending) {
        return ending.equals("pdf");
    }

    @Override
    public Set<Ability> abilities() {
        return EnumSet.allOf(Ability.class);
    }

    @Override
    public void draw(List<Page> pages, String ending, Size size, OutputStream out) throws IOException {
        switch (ending) {
            case "svg" -> new Picture(pages.get(0), size).writeSvg(out);
            case "pdf" -> new Document(pages, size).writeTo(out);
            default -> new Picture(pages.get(0), size).writePng(out);
        }
    }
}
