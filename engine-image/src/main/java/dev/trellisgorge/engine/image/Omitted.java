package dev.trellisgorge.engine.image;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;

/** Gathers what found no room in a picture, to be told in one sentence for each chart and kind. Not thread-safe. */
final class Omitted {
    private static final int LISTED = 5;
    private final Map<String, List<String>> labels = new LinkedHashMap<>();
    private final Map<String, Integer> drawn = new LinkedHashMap<>();
    private final List<String> sentences = new ArrayList<>();

    /** That a label found no place. */
    void label(String chart, String words) {
        labels.computeIfAbsent(chart, name -> new ArrayList<>()).add(words);
    }

    /** That a label is drawn. */
    void drawnLabel(String chart) {
        drawn.merge(chart, 1, Integer::sum);
    }

    /** That of the names along the base only every so many is written. */
    void names(String chart, int every) {
        add(chart, "only every " + ordinal(every) + " name along the base is written; the others found no room");
    }

    /** That the name of a reference line found no place. */
    void line(String chart, String name) {
        add(chart, "the name of the line '" + name + "' found no room, so it is left out");
    }

    /** That columns of figures beside the names found no place. */
    void columns(String chart, List<String> names) {
        add(chart, "found no room beside the names, so left out: " + String.join(", ", names));
    }

    private void add(String chart, String what) {
        String sentence = "'" + chart + "': " + what;
        if (!sentences.contains(sentence)) {
            sentences.add(sentence);
        }
    }

    private static String ordinal(int count) {
        String ending = count / 10 % 10 == 1 ? "th" : switch (count % 10) {
            case 1 -> "st";
            case 2 -> "nd";
            case 3 -> "rd";
            default -> "th";
        };
        return count + ending;
    }

    void tell(Consumer<String> warnings) {
        sentences.forEach(warnings);
        labels.forEach((chart, words) -> {
            int all = words.size() + drawn.getOrDefault(chart, 0);
            warnings.accept("'" + chart + "': " + words.size() + " of " + all + (all == 1 ? " label" : " labels") + " found no room and " + (words.size() == 1 ? "is" : "are") + " left out: "
                    + String.join(", ", words.subList(0, Math.min(LISTED, words.size()))) + (words.size() > LISTED ? ", \u2026" : ""));
        });
    }
}
