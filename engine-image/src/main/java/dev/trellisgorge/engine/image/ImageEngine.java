package dev.trellisgorge.engine.image;

import dev.trellisgorge.chart.Engine;
import dev.trellisgorge.chart.PlainChart;
import dev.trellisgorge.chart.Size;
import java.io.IOException;
import java.io.OutputStream;
import java.util.List;
import java.util.Set;

/** Draws a plain chart as a picture: {@code .png} (sRGB) or {@code .svg} (text stays text). */
public final class ImageEngine implements Engine {

    @Override
    public Set<String> endings() {
        return Set.of("png", "svg");
    }

    @Override
    public boolean holdsSeveral() {
        return false;
    }

    @Override
    public void draw(List<PlainChart> charts, String ending, Size size, OutputStream out) throws IOException {
        Picture picture = new Picture(charts.get(0), size);
        if (ending.equals("svg")) {
            picture.writeSvg(out);
        } else {
            picture.writePng(out);
        }
    }
}
