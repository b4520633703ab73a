package dev.trellisgorge.brief;

import dev.trellisgorge.brief.Mapping.Text;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.sql.Dialect;
import java.util.List;
import java.util.Optional;

/** Reads where a brief is to be computed. */
final class RunOnReader {
    private final Mapping root;
    private final Trust trust;
    private final Problems problems;

    RunOnReader(Mapping root, Trust trust, Problems problems) {
        this.root = root;
        this.trust = trust;
        this.problems = problems;
    }

    /** The database that the brief names, where whoever runs it allows that. */
    Optional<RunOn> read() {
        if (!root.has("run-on")) {
            return Optional.empty();
        }
        Optional<Mapping> more = root.isMapping("run-on") ? root.mapping("run-on").map(keys -> keys.allowing(List.of("url"), List.of("url", "user", "password-variable", "dialect"))) : Optional.empty();
        Optional<Text> url = more.isPresent() ? more.flatMap(keys -> keys.text("url")) : root.text("run-on");
        Optional<String> untrusted = url.map(Text::value).filter(each -> !RunOn.isEmptyAtFirst(each)).map(RunOn::jdbc).flatMap(trust::refusal);
        untrusted.ifPresent(why -> problems.add(url.orElseThrow().place(), why));
        Optional<String> password = more.flatMap(keys -> keys.text("password-variable").map(Text::value).flatMap(variable -> variable(variable, keys)));
        Optional<Dialect> dialect = more.flatMap(keys -> keys.choice("dialect", Dialect.class));
        url.filter(each -> RunOn.isCluster(each.value())).flatMap(cluster -> more).ifPresent(keys -> List.of("user", "password-variable").stream().filter(keys::has).forEach(key -> keys.refuse(key, "has no use here: a cluster asks for none")));
        boolean wrong = untrusted.isPresent() || more.isPresent() && more.get().has("password-variable") && password.isEmpty();
        return wrong ? Optional.empty() : url.flatMap(each -> named(each, more.flatMap(keys -> keys.text("user")).map(Text::value), password, dialect));
    }

    private Optional<RunOn> named(Text url, Optional<String> user, Optional<String> password, Optional<Dialect> dialect) {
        try {
            return Optional.of(RunOn.of(url.value(), user, password, dialect));
        } catch (BadInput wrong) {
            problems.add(url.place(), wrong.getMessage());
            return Optional.empty();
        }
    }

    /** An environment variable that a password stands in, where whoever runs the brief allows that. */
    Optional<String> variable(String variable, Mapping keys) {
        Optional<String> untrusted = trust.refusalOfVariable(variable);
        Optional<String> value = untrusted.isPresent() ? Optional.empty() : Optional.ofNullable(System.getenv(variable));
        if (value.isEmpty()) {
            keys.refuse("password-variable", untrusted.orElse("there is no environment variable '" + variable + "'"));
        }
        return value;
    }
}
