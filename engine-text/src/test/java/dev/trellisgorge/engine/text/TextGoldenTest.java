package dev.trellisgorge.engine.text;

import dev.trellisgorge.engine.Engines;
import dev.trellisgorge.engine.Options;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.pattern.Gallery;
import dev.trellisgorge.test.Golden;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import org.testng.annotations.Test;

/** Every chart of the gallery as text. */
public class TextGoldenTest {
    @Test
    public void galleryLooksAsItDid() throws IOException {
        List<String> lines = new ArrayList<>();
        for (Gallery.Example example : Gallery.all()) {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            Engines.draw(List.of(Page.of(example.plain())), "txt", Options.STANDARD, out);
            lines.add("== " + example);
            lines.addAll(out.toString(StandardCharsets.UTF_8).lines().toList());
        }
        Golden.check("gallery.txt", lines, 0);
    }
}
