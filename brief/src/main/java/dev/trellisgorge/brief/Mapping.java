package dev.trellisgorge.brief;

import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.table.Numbers;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Stream;
import org.snakeyaml.engine.v2.exceptions.Mark;
import org.snakeyaml.engine.v2.nodes.MappingNode;
import org.snakeyaml.engine.v2.nodes.Node;
import org.snakeyaml.engine.v2.nodes.NodeTuple;
import org.snakeyaml.engine.v2.nodes.ScalarNode;
import org.snakeyaml.engine.v2.nodes.SequenceNode;

/**
 * A mapping of the brief that is read key by key. What is wrong with it (a key unknown, twice or missing; a value of
 * the wrong kind) goes to the problems with its line and column, and the reading goes on.
 */
final class Mapping {
    private static final int MOST_QUOTED = 60;

    private final String file;
    private final Problems problems;
    private final Place place;
    private final Map<String, Node> values = new LinkedHashMap<>();
    private final Map<String, Place> keyPlaces = new LinkedHashMap<>();
    private Set<String> stated = Set.of();

    /** A value and where it stands. */
    record Text(String value, Place place) {
    }

    private Mapping(String file, Place place, Problems problems) {
        this.file = file;
        this.place = place;
        this.problems = problems;
    }

    /** Any keys at all, as {@code data} and {@code settings} have. Empty where the node is no mapping. */
    static Optional<Mapping> open(String file, Node node, String what, Problems problems) {
        if (!(node instanceof MappingNode mapping)) {
            problems.add(placeOf(file, node), ProblemKind.SYNTAX, "'" + what + "' must be a mapping of keys to values, not " + describe(node));
            return Optional.empty();
        }
        Mapping opened = new Mapping(file, placeOf(file, node), problems);
        for (NodeTuple tuple : mapping.getValue()) {
            opened.add(tuple);
        }
        return Optional.of(opened);
    }

    /** Whether a node is a mapping that has one of these keys, or none at all. */
    static boolean hasAnyOf(Node node, List<String> keys) {
        return node instanceof MappingNode mapping && (mapping.getValue().isEmpty() || mapping.getValue().stream().anyMatch(tuple -> tuple.getKeyNode() instanceof ScalarNode key && keys.contains(key.getValue())));
    }

    private void add(NodeTuple tuple) {
        Place keyPlace = placeOf(file, tuple.getKeyNode());
        if (!(tuple.getKeyNode() instanceof ScalarNode key)) {
            problems.add(keyPlace, ProblemKind.SYNTAX, "a key must be a text");
        } else if (values.putIfAbsent(key.getValue(), tuple.getValueNode()) != null) {
            problems.add(keyPlace, ProblemKind.CONFLICT, "the key '" + key.getValue() + "' stands here a second time");
        } else {
            keyPlaces.put(key.getValue(), keyPlace);
        }
    }

    /** Reports the keys that are not stated, and the ones that are missing. */
    Mapping allowing(MappingKeys keys) {
        stated = keys.all().keySet();
        return allowing(List.copyOf(keys.required()), keys.names());
    }

    /** Reports the keys that are not among {@code known}, and the ones of {@code required} that are not here. */
    Mapping allowing(List<String> required, List<String> known) {
        for (String key : values.keySet()) {
            if (!known.contains(key)) {
                problems.add(keyPlaces.get(key), ProblemKind.UNKNOWN_NAME, "unknown key '" + key + "'. " + (cutFromText(key) ? "A text with a comma in it stands in quotes inside { }."
                        : Nearest.hint(key, known)));
            }
        }
        for (String key : required) {
            if (!values.containsKey(key)) {
                problems.add(place, ProblemKind.MISSING, "the key '" + key + "' is missing");
            }
        }
        return this;
    }

    /** YAML ends a text at a comma inside braces, and takes what comes after it as a key without a value. */
    private boolean cutFromText(String key) {
        return key.chars().anyMatch(character -> "()'\"".indexOf(character) >= 0) && values.get(key) instanceof ScalarNode value && value.getValue().isEmpty();
    }

    Iterable<String> keys() {
        return values.keySet();
    }

    List<String> keyList() {
        return List.copyOf(values.keySet());
    }

    static List<String> both(List<String> some, List<String> more) {
        return Stream.concat(some.stream(), more.stream()).toList();
    }

    boolean has(String key) {
        return value(key) != null;
    }

    /** @throws IllegalArgumentException where a reader asks for a key that is not stated, so that no key is read that the schema doesn't have */
    private Node value(String key) {
        if (!stated.isEmpty() && !stated.contains(key)) {
            throw new IllegalArgumentException("the key '" + key + "' is not among those stated: " + stated);
        }
        return values.get(key);
    }

    boolean isMapping(String key) {
        return value(key) instanceof MappingNode;
    }

    /** Whether the key's value is one text, number or truth. */
    boolean isSingle(String key) {
        return value(key) instanceof ScalarNode scalar && !isNull(scalar);
    }

    /** The same, with its mistakes going elsewhere. */
    Mapping heard(Problems elsewhere) {
        Mapping same = new Mapping(file, place, elsewhere);
        same.values.putAll(values);
        same.keyPlaces.putAll(keyPlaces);
        same.stated = stated;
        return same;
    }

    boolean isList(String key) {
        return value(key) instanceof SequenceNode;
    }

    /** Reports what is wrong with a value; at the mapping where the key is not there. */
    void refuse(String key, ProblemKind kind, String message) {
        Place at = has(key) ? placeOf(file, value(key)) : place;
        problems.add(at, kind, "'" + key + "': " + message);
    }

    Place keyPlace(String key) {
        return keyPlaces.get(key);
    }

    Place place() {
        return place;
    }

    Optional<Mapping> mapping(String key) {
        return node(key).flatMap(node -> open(file, node, key, problems));
    }

    /** A text, number or truth, as it is written. */
    Optional<Text> text(String key) {
        Node node = value(key);
        if (node == null) {
            return Optional.empty();
        }
        if (node instanceof ScalarNode scalar && !isNull(scalar)) {
            return Optional.of(new Text(scalar.getValue(), placeOf(file, node)));
        }
        problems.add(placeOf(file, node), ProblemKind.SYNTAX, "'" + key + "' must be one value, not " + describe(node));
        return Optional.empty();
    }

    /** A list of single values; empty where it is not there, or none, which is reported. */
    List<Text> texts(String key) {
        List<Text> texts = new ArrayList<>();
        for (Node node : items(key)) {
            if (node instanceof ScalarNode scalar && !isNull(scalar)) {
                texts.add(new Text(scalar.getValue(), placeOf(file, node)));
            } else {
                problems.add(placeOf(file, node), ProblemKind.INVALID, "'" + key + "' must be a list of single values, and has " + describe(node));
            }
        }
        return texts;
    }

    boolean isEmpty(String key) {
        return items(key).isEmpty();
    }

    /** What is made of each item of a list, a single value or a mapping; other items are reported. */
    <T> List<T> each(String key, Function<Text, Optional<T>> ofText, Function<Mapping, Optional<T>> ofMapping) {
        List<T> made = new ArrayList<>();
        for (Node node : items(key)) {
            if (node instanceof ScalarNode scalar && !isNull(scalar)) {
                ofText.apply(new Text(scalar.getValue(), placeOf(file, node))).ifPresent(made::add);
            } else {
                open(file, node, key, problems).flatMap(ofMapping).ifPresent(made::add);
            }
        }
        return made;
    }

    /** A list of mappings; what is none is reported. */
    List<Mapping> mappings(String key) {
        return items(key).stream().flatMap(node -> open(file, node, "each of " + key, problems).stream()).toList();
    }

    /** A list of numbers; what is none is reported, and then it is as if the list were not complete. */
    List<Double> numbers(String key) {
        List<Double> numbers = new ArrayList<>();
        for (Text text : texts(key)) {
            OptionalDouble number = Numbers.parse(text.value());
            if (number.isEmpty() || Double.isInfinite(number.getAsDouble())) {
                problems.add(text.place(), ProblemKind.WRONG_TYPE, "'" + key + "' must be a list of numbers, and has '" + text.value() + "'");
            } else {
                numbers.add(number.getAsDouble());
            }
        }
        return numbers;
    }

    private List<Node> items(String key) {
        Node node = value(key);
        if (node == null) {
            return List.of();
        }
        if (node instanceof SequenceNode list) {
            return list.getValue();
        }
        problems.add(placeOf(file, node), ProblemKind.SYNTAX, "'" + key + "' must be a list, not " + describe(node));
        return List.of();
    }

    /** True or false; false where it is not there. */
    boolean truth(String key) {
        Optional<Text> text = text(key);
        if (text.isPresent() && !text.get().value().equals("true") && !text.get().value().equals("false")) {
            problems.add(text.get().place(), ProblemKind.WRONG_TYPE, "'" + key + "' must be true or false, not '" + text.get().value() + "'");
        }
        return text.filter(t -> t.value().equals("true")).isPresent();
    }

    OptionalDouble number(String key) {
        Optional<Text> text = text(key);
        OptionalDouble number = text.map(t -> Numbers.parse(t.value())).orElse(OptionalDouble.empty());
        if (text.isPresent() && (number.isEmpty() || Double.isInfinite(number.getAsDouble()))) {
            problems.add(text.get().place(), ProblemKind.WRONG_TYPE, "'" + key + "' must be a number, not '" + text.get().value() + "'");
            return OptionalDouble.empty();
        }
        return number;
    }

    /** A whole number from 1 up. */
    OptionalInt count(String key) {
        return whole(key, 1, Integer.MAX_VALUE, "must be a whole number from 1 up");
    }

    /** @param otherwise what is said of another number */
    OptionalInt whole(String key, int least, int most, String otherwise) {
        OptionalDouble number = number(key);
        boolean whole = number.isPresent() && number.getAsDouble() >= least && number.getAsDouble() <= most && number.getAsDouble() == Math.rint(number.getAsDouble());
        if (number.isPresent() && !whole) {
            refuse(key, ProblemKind.INVALID, otherwise);
        }
        return whole ? OptionalInt.of((int) number.getAsDouble()) : OptionalInt.empty();
    }

    /** One of an enum's constants, in lower case. */
    <E extends Enum<E>> Optional<E> choice(String key, Class<E> choices) {
        return text(key).flatMap(text -> choice(key, text, choices));
    }

    /** One constant or a list of them; those that are none are reported. */
    <E extends Enum<E>> List<E> choices(String key, Class<E> choices) {
        List<Text> texts = isList(key) ? texts(key) : text(key).stream().toList();
        if (isList(key) && isEmpty(key)) {
            refuse(key, ProblemKind.MISSING, "names nothing");
        }
        return texts.stream().flatMap(text -> choice(key, text, choices).stream()).toList();
    }

    private <E extends Enum<E>> Optional<E> choice(String key, Text text, Class<E> choices) {
        List<E> known = List.of(choices.getEnumConstants());
        Optional<E> chosen = known.stream().filter(c -> word(c).equals(text.value())).findFirst();
        if (chosen.isEmpty()) {
            problems.add(text.place(), ProblemKind.INVALID, "'" + key + "' can't be '" + text.value() + "'. "
                    + Nearest.hint(text.value(), known.stream().map(Mapping::word).toList()));
        }
        return chosen;
    }

    private static String word(Enum<?> constant) {
        return constant.name().toLowerCase(Locale.ROOT);
    }

    private Optional<Node> node(String key) {
        return Optional.ofNullable(value(key));
    }

    private static boolean isNull(ScalarNode scalar) {
        return scalar.getTag().getValue().endsWith(":null");
    }

    private static String describe(Node node) {
        if (node instanceof ScalarNode scalar) {
            return isNull(scalar) ? "nothing" : "'" + (scalar.getValue().length() > MOST_QUOTED ? scalar.getValue().substring(0, MOST_QUOTED) + "…" : scalar.getValue()) + "'";
        }
        return node instanceof SequenceNode ? "a list" : "a mapping";
    }

    static Place placeOf(String file, Node node) {
        Optional<Mark> mark = node.getStartMark();
        return mark.map(m -> Place.inFile(file, m.getLine() + 1, m.getColumn() + 1)).orElse(Place.inFile(file));
    }
}
