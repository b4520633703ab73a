package dev.trellisgorge.engine.json;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import dev.trellisgorge.engine.Engines;
import dev.trellisgorge.engine.Options;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.pattern.Gallery;
import dev.trellisgorge.test.Golden;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.testng.annotations.Test;

/** What every chart of the gallery draws, as other programs read it: a value a line, with the way to it. */
public class JsonGoldenTest {
    @Test
    public void galleryIsDescribedAsItWas() throws IOException {
        List<String> lines = new ArrayList<>();
        for (Gallery.Example example : Gallery.all()) {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            Engines.draw(List.of(Page.of(example.plain())), "json", Options.STANDARD, out);
            lines.add("== " + example);
            outline("", new ObjectMapper().readTree(out.toByteArray()).at("/pages/0/tiles/0/chart/drawing"), lines);
        }
        Golden.check("gallery.json.txt", lines, 1e-9);
    }

    /** Objects of values alone take one line. */
    private static void outline(String way, JsonNode node, List<String> lines) {
        if (node.isValueNode() || node.isObject() && node.properties().stream().map(Map.Entry::getValue).allMatch(JsonNode::isValueNode)) {
            lines.add(way + " " + node);
        } else if (node.isArray() && !node.isEmpty() && !node.get(0).isContainerNode() || node.isEmpty()) {
            lines.add(way + " " + node);
        } else if (node.isArray()) {
            for (int i = 0; i < node.size(); i++) {
                outline(way + "/" + i, node.get(i), lines);
            }
        } else {
            node.properties().forEach(field -> outline(way + "/" + field.getKey(), field.getValue(), lines));
        }
    }
}
