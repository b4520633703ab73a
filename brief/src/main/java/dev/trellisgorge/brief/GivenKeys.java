package dev.trellisgorge.brief;

import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.brief.Mapping.Text;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.pattern.Given;
import dev.trellisgorge.pattern.Key;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;

/**
 * The keys of a pattern as they stand in a mapping of the brief.
 *
 * @param given       the mapping
 * @param stated      the keys that it may have, with those of the mappings in it
 * @param expressions what reads its expressions
 */
record GivenKeys(Mapping given, List<Key> stated, Expressions expressions) implements Given {

    @Override
    public boolean has(String key) {
        return given.has(key);
    }

    @Override
    public boolean isMapping(String key) {
        return given.isMapping(key);
    }

    @Override
    public Formula figure(String key) {
        return expression(key).orElse(Formulas.absent());
    }

    @Override
    public Optional<Formula> expression(String key) {
        return given.text(key).flatMap(expressions::read);
    }

    @Override
    public OptionalDouble number(String key) {
        return given.number(key);
    }

    @Override
    public OptionalInt count(String key) {
        return given.count(key);
    }

    @Override
    public Optional<String> text(String key) {
        return given.text(key).map(Text::value);
    }

    @Override
    public Optional<String> column(String key) {
        return given.text(key).flatMap(expressions::column);
    }

    @Override
    public <E extends Enum<E>> Optional<E> choice(String key, Class<E> choices) {
        return given.choice(key, choices);
    }

    @Override
    public <E extends Enum<E>> List<E> choices(String key, Class<E> choices) {
        return given.choices(key, choices);
    }

    @Override
    public boolean truth(String key) {
        return given.truth(key);
    }

    @Override
    public List<String> names(String key) {
        return given.texts(key).stream().map(Text::value).toList();
    }

    @Override
    public List<Double> numbers(String key) {
        return given.numbers(key);
    }

    @Override
    public List<Formula> figures(String key) {
        return given.texts(key).stream().flatMap(text -> expressions.read(text).stream()).toList();
    }

    @Override
    public Optional<Given> mapping(String key) {
        return given.mapping(key).map(mapping -> inside(key, mapping));
    }

    @Override
    public List<Given> mappings(String key) {
        return given.mappings(key).stream().map(mapping -> inside(key, mapping)).toList();
    }

    private Given inside(String key, Mapping mapping) {
        List<Key> inside = stated.stream().filter(each -> each.name().equals(key)).findFirst().orElseThrow(() -> new IllegalArgumentException("the key '" + key + "' is not stated")).keys();
        return new GivenKeys(mapping.allowing(ChartSchema.keys(inside)), inside, expressions);
    }

    @Override
    public List<String> keys() {
        return given.keyList();
    }

    @Override
    public void refuse(String key, ProblemKind kind, String message) {
        given.refuse(key, kind, message);
    }
}
