package dev.trellisgorge.brief;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.tables.Limits;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;

/** What a person has settled for all briefs that are run: a YAML file of one's own. Thread-safe: it holds no state. */
public final class UserSettings {
    private UserSettings() {
    }

    /** Where it stands, by the XDG base directory specification: {@code gorge/settings.yaml} in the configuration folder. */
    public static Optional<Path> file(Map<String, String> environment) {
        Optional<Path> folder = Optional.ofNullable(environment.get("XDG_CONFIG_HOME")).filter(path -> Path.of(path).isAbsolute()).map(Path::of)
                .or(() -> Optional.ofNullable(environment.get("HOME")).filter(home -> !home.isEmpty()).map(home -> Path.of(home, ".config")));
        return folder.map(path -> path.resolve("gorge").resolve("settings.yaml"));
    }

    /**
     * What the file allows, and its bounds: {@code allow: [folder=/data/flows, …]}, {@code limits: {cells: …, columns: …, characters: …}}.
     *
     * @throws BadInput where there is something else in it, with the place
     */
    public static AccessPolicy read(Path file) {
        if (!Files.exists(file)) {
            return AccessPolicy.OWN_FOLDER;
        }
        Problems problems = new Problems();
        AccessPolicy[] trust = {AccessPolicy.OWN_FOLDER};
        Mapping.open(file.toString(), BriefText.read(file, file.toString()), "the settings", problems).map(keys -> keys.allowing(List.of(), List.of("allow", "limits"))).ifPresent(keys -> {
            if (keys.has("allow")) {
                keys.texts("allow").forEach(text -> problems.attempt(() -> trust[0].allowing(text.value(), file.toAbsolutePath().getParent(), text.place()))
                        .ifPresent(more -> trust[0] = more));
            }
            keys.mapping("limits").map(limits -> limits.allowing(List.of(), List.of("cells", "columns", "characters"))).ifPresent(limits -> {
                double cells = whole(limits, "cells", Limits.STANDARD.cells(), Long.MAX_VALUE);
                double columns = whole(limits, "columns", Limits.STANDARD.columns(), Limits.MOST_COLUMNS);
                double characters = whole(limits, "characters", Limits.STANDARD.characters(), Limits.MOST_CHARACTERS);
                trust[0] = trust[0].limits(new Limits((long) cells, (int) columns, (int) characters));
            });
        });
        problems.throwIfAny();
        return trust[0];
    }

    private static double whole(Mapping limits, String key, double otherwise, double most) {
        OptionalDouble given = limits.number(key);
        if (given.isPresent() && !(given.getAsDouble() >= 1 && given.getAsDouble() <= most && given.getAsDouble() == Math.rint(given.getAsDouble()))) {
            limits.refuse(key, ProblemKind.INVALID, "must be a whole number from 1 to " + String.format(Locale.ROOT, "%.0f", most));
            return otherwise;
        }
        return given.orElse(otherwise);
    }
}
