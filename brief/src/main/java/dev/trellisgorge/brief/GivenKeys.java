package dev.trellisgorge.brief;

import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.brief.Mapping.Text;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.pattern.Given;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;

/**
 * The keys of a pattern as they stand in a mapping of the brief.
 *
 * @param given       the mapping
 * @param expressions what reads its expressions
 */
record GivenKeys(Mapping given, Expressions expressions) implements Given {

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
    public Optional<Given> mapping(String key, List<String> required, List<String> optional) {
        return given.mapping(key).map(mapping -> new GivenKeys(mapping.allowing(required, Mapping.both(required, optional)), expressions));
    }

    @Override
    public List<Given> mappings(String key, List<String> required, List<String> optional) {
        return given.mappings(key).stream()
                .<Given>map(mapping -> new GivenKeys(mapping.allowing(required, Mapping.both(required, optional)), expressions)).toList();
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
