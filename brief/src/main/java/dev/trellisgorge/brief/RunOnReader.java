package dev.trellisgorge.brief;

import dev.trellisgorge.brief.Mapping.Text;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.sql.Dialect;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** Reads where a brief is to be computed. */
final class RunOnReader {
    private static final ZoneId UTC = ZoneOffset.UTC;

    private final Mapping root;
    private final Overrides overrides;
    private final AccessPolicy trust;
    private final Problems problems;

    RunOnReader(Mapping root, Overrides overrides, AccessPolicy trust, Problems problems) {
        this.root = root;
        this.overrides = overrides;
        this.trust = trust;
        this.problems = problems;
    }

    /** The database that the brief names, where whoever runs it allows that. */
    Optional<RunOn> read() {
        if (!root.has("run-on")) {
            return Optional.empty();
        }
        Optional<Mapping> more = root.isMapping("run-on") ? root.mapping("run-on").map(keys -> keys.allowing(SourceSchema.RUN_ON)) : Optional.empty();
        Optional<Text> url = more.isPresent() ? more.flatMap(keys -> keys.text("url")) : root.text("run-on");
        Optional<String> untrusted = url.map(Text::value).filter(each -> !RunOn.isEmptyAtFirst(each)).map(RunOn::jdbc).flatMap(named -> trust.refusal(named, overrides.names()));
        untrusted.ifPresent(why -> problems.add(url.orElseThrow().place(), ProblemKind.NOT_ALLOWED, why));
        Optional<String> password = more.flatMap(keys -> keys.text("password-variable").map(Text::value).flatMap(variable -> variable(variable, keys)));
        Optional<Dialect> dialect = more.flatMap(keys -> keys.choice("dialect", Dialect.class));
        url.filter(each -> RunOn.isCluster(each.value())).flatMap(cluster -> more).ifPresent(keys -> List.of("user", "password-variable").stream().filter(keys::has).forEach(key -> keys.refuse(key, ProblemKind.CONFLICT, "has no effect here: a cluster asks for none")));
        boolean wrong = untrusted.isPresent() || more.isPresent() && more.get().has("password-variable") && password.isEmpty();
        return wrong ? Optional.empty() : url.flatMap(each -> named(each, more.flatMap(keys -> keys.text("user")).map(Text::value), password, dialect));
    }

    /** The time zone whose days those of moments are. */
    ZoneId zone() {
        Optional<Text> given = overrides.there().zone().map(name -> new Text(name, overrides.place(InputNames.Input.ZONE))).or(() -> root.text("zone"));
        return given.flatMap(this::zone).orElse(UTC);
    }

    private Optional<ZoneId> zone(Text name) {
        Set<String> known = ZoneId.getAvailableZoneIds();
        if (known.contains(name.value())) {
            return Optional.of(ZoneId.of(name.value()));
        }
        problems.add(name.place(), ProblemKind.UNKNOWN_NAME, "there is no time zone '" + name.value() + "', such as UTC or Europe/Berlin. " + Nearest.hint(name.value(), known));
        return Optional.empty();
    }

    /** A zone that is given has no effect. @param why as a sentence */
    void refuseZone(String why) {
        overrides.there().zone().map(name -> overrides.place(InputNames.Input.ZONE)).or(() -> root.has("zone") ? Optional.of(root.keyPlace("zone")) : Optional.empty())
                .ifPresent(place -> problems.add(place, ProblemKind.CONFLICT, why));
    }

    private Optional<RunOn> named(Text url, Optional<String> user, Optional<String> password, Optional<Dialect> dialect) {
        try {
            return Optional.of(RunOn.of(url.value(), user, password, dialect));
        } catch (BadInput wrong) {
            problems.addAll(wrong.at(url.place()));
            return Optional.empty();
        }
    }

    /** An environment variable that a password stands in, where whoever runs the brief allows that. */
    Optional<String> variable(String variable, Mapping keys) {
        Optional<String> untrusted = trust.refusalOfVariable(variable, overrides.names());
        Optional<String> value = untrusted.isPresent() ? Optional.empty() : Optional.ofNullable(System.getenv(variable));
        if (value.isEmpty()) {
            keys.refuse("password-variable", ProblemKind.NOT_ALLOWED, untrusted.orElse("there is no environment variable '" + variable + "'"));
        }
        return value;
    }
}
