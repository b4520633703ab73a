package dev.trellisgorge.pattern;

import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.pattern.Highlight.End;
import dev.trellisgorge.pattern.Highlight.Tied;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;

/** Reads a rule from the keys of a brief. */
final class Classifiers {
    private static final List<String> RULES = List.of("split", "bands", "highlight", "sign");
    private static final List<String> CHOICES = List.of("largest", "smallest", "first", "last", "names", "where");
    private static final int MOST_ROWS = 1_000_000_000;

    private Classifiers() {
    }

    /** The rule under {@code classify}; empty where there is none, or it is wrong, which is reported. */
    static Optional<Classifier> given(Given given) {
        Optional<Given> classify = given.mapping("classify", List.of(), RULES);
        List<String> rules = classify.map(Given::keys).orElse(List.of()).stream().filter(RULES::contains).toList();
        if (classify.isPresent() && rules.size() != 1) {
            given.refuse("classify", ProblemKind.CONFLICT, "takes one rule (split, bands, highlight or sign), not " + rules.size());
            return Optional.empty();
        }
        return classify.flatMap(c -> switch (rules.get(0)) {
            case "split" -> split(c);
            case "bands" -> bands(c);
            case "highlight" -> highlight(c);
            default -> c.mapping("sign", List.of(), List.of()).map(sign -> new Sign());
        });
    }

    private static Optional<Classifier> split(Given rules) {
        return rules.mapping("split", List.of("at"), List.of("ties"))
                .map(split -> new Split(split.figure("at"), split.choice("ties", Ties.class).orElse(Ties.ABOVE)));
    }

    private static Optional<Classifier> bands(Given rules) {
        return rules.mapping("bands", List.of("limits"), List.of("of", "names", "ties")).flatMap(bands -> {
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
        return rules.mapping("highlight", List.of(), List.of("largest", "smallest", "first", "last", "names", "where", "ties")).flatMap(chosen -> {
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
        OptionalDouble count = chosen.number(way);
        if (count.isEmpty()) {
            return Optional.empty();
        }
        double k = count.getAsDouble();
        if (k < 1 || k != Math.rint(k) || k > MOST_ROWS) {
            chosen.refuse(way, ProblemKind.INVALID, "must be a whole number from 1 up");
            return Optional.empty();
        }
        Tied tied = chosen.choice("ties", Tied.class).orElse(Tied.ALL);
        return Optional.of(switch (way) {
            case "largest" -> new Highlight(new Highlight.Extreme(End.LARGEST, (int) k, tied));
            case "smallest" -> new Highlight(new Highlight.Extreme(End.SMALLEST, (int) k, tied));
            case "first" -> Highlight.first((int) k);
            default -> Highlight.last((int) k);
        });
    }
}
