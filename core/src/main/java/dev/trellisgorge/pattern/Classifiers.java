package dev.trellisgorge.pattern;

import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.pattern.Highlight.End;
import dev.trellisgorge.pattern.Highlight.Tied;
import dev.trellisgorge.pattern.Key.Takes;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.Stream;

/** Reads a rule from the keys of a brief. */
final class Classifiers {
    private static final Key TIES = Key.optional("ties", Takes.CHOICE, "above", "which class a value equal to a limit is in").among(Ties.class);
    private static final List<Key> WAYS = List.of(Key.optional("largest", Takes.COUNT, "", "so many of the largest values"),
            Key.optional("smallest", Takes.COUNT, "", "so many of the smallest values"),
            Key.optional("first", Takes.COUNT, "", "so many of the first rows"),
            Key.optional("last", Takes.COUNT, "", "so many of the last rows"),
            Key.optional("names", Takes.NAMES, "", "these categories"),
            Key.optional("where", Takes.EXPRESSION, "", "the rows on which this is true"));
    private static final List<Key> RULES = List.of(
            Key.optional("split", Takes.MAPPING, "", "classes below and above a limit").of(Key.required("at", Takes.EXPRESSION, "the limit"), TIES),
            Key.optional("bands", Takes.MAPPING, "", "one class more than there are limits").of(Key.required("limits", Takes.FIGURES, "the limits, lowest first"),
                    Key.optional("of", Takes.EXPRESSION, "the value itself", "the value divided by this is compared"),
                    Key.optional("names", Takes.NAMES, "", "what the classes are called, lowest first"), TIES),
            Key.optional("highlight", Takes.MAPPING, "", "classes rest and highlighted, by one of largest, smallest, first, last, names and where").of(Stream.concat(WAYS.stream(),
                    Stream.of(Key.optional("ties", Takes.CHOICE, "all", "whether all that equal the last of the largest or smallest are highlighted, or just as many as asked for").among(Tied.class))).toArray(Key[]::new)),
            Key.optional("sign", Takes.MAPPING, "", "classes negative and positive"));
    /** The rule of a chart. */
    static final Key KEY = Key.optional("classify", Takes.MAPPING, "", "one rule: split {at, ties}; bands {limits, of, names, ties}; highlight {largest | smallest | first | last | names | where, ties}; sign {}")
            .of(RULES.toArray(Key[]::new));
    private static final List<String> NAMES = RULES.stream().map(Key::name).toList();
    private static final List<String> CHOICES = WAYS.stream().map(Key::name).toList();

    private Classifiers() {
    }

    /** The rule under {@code classify}; empty where there is none, or it is wrong, which is reported. */
    static Optional<Classifier> given(Given given) {
        Optional<Given> classify = given.mapping(KEY.name());
        List<String> rules = classify.map(Given::keys).orElse(List.of()).stream().filter(NAMES::contains).toList();
        if (classify.isPresent() && rules.size() != 1) {
            given.refuse("classify", ProblemKind.CONFLICT, "takes one rule (split, bands, highlight or sign), not " + rules.size());
            return Optional.empty();
        }
        return classify.flatMap(c -> switch (rules.get(0)) {
            case "split" -> split(c);
            case "bands" -> bands(c);
            case "highlight" -> highlight(c);
            default -> c.mapping("sign").map(sign -> new Sign());
        });
    }

    private static Optional<Classifier> split(Given rules) {
        return rules.mapping("split")
                .map(split -> new Split(split.figure("at"), split.choice("ties", Ties.class).orElse(Ties.ABOVE)));
    }

    private static Optional<Classifier> bands(Given rules) {
        return rules.mapping("bands").flatMap(bands -> {
            List<Formula> limits = bands.figures("limits");
            Optional<Formula> of = bands.has("of") ? Optional.of(bands.figure("of")) : Optional.empty();
            try {
                return Optional.of(new Bands(limits, of, bands.names("names"), bands.choice("ties", Ties.class).orElse(Ties.ABOVE)));
            } catch (IllegalArgumentException e) {
                rules.refuse("bands", ProblemKind.INVALID, e.getMessage());
                return Optional.empty();
            }
        });
    }

    private static Optional<Classifier> highlight(Given rules) {
        return rules.mapping("highlight").flatMap(chosen -> {
            List<String> ways = chosen.keys().stream().filter(CHOICES::contains).toList();
            if (ways.size() != 1) {
                rules.refuse("highlight", ProblemKind.CONFLICT, "takes exactly one of largest, smallest, first, last, names and where, not " + ways.size());
                return Optional.empty();
            }
            String way = ways.get(0);
            if (chosen.has("ties") && !way.equals("largest") && !way.equals("smallest")) {
                chosen.refuse("ties", ProblemKind.CONFLICT, "goes with largest or smallest");
            }
            return way(chosen, way);
        });
    }

    private static Optional<Classifier> way(Given chosen, String way) {
        if (way.equals("names")) {
            List<String> names = chosen.names("names");
            return names.isEmpty() ? Optional.empty() : Optional.of(Highlight.names(names.toArray(String[]::new)));
        }
        if (way.equals("where")) {
            return chosen.expression("where").map(Highlight::where);
        }
        OptionalInt count = chosen.count(way);
        if (count.isEmpty()) {
            return Optional.empty();
        }
        int k = count.getAsInt();
        Tied tied = chosen.choice("ties", Tied.class).orElse(Tied.ALL);
        return Optional.of(switch (way) {
            case "largest" -> new Highlight(new Highlight.Extreme(End.LARGEST, k, tied));
            case "smallest" -> new Highlight(new Highlight.Extreme(End.SMALLEST, k, tied));
            case "first" -> Highlight.first(k);
            default -> Highlight.last(k);
        });
    }
}
