package dev.trellisgorge.cli;

import dev.trellisgorge.brief.InputNames;
import dev.trellisgorge.brief.AccessPolicy;
import java.nio.file.Path;

/** Messages of the library in the words of the command: options by their names, files as they were typed. Thread-safe. */
enum OptionNames implements InputNames {
    OPTIONS;

    @Override
    public String of(Input input) {
        return switch (input) {
            case SETTINGS -> "--set";
            case DATA -> "--data";
            case WHERE -> "--where";
            case LOCALE -> "--locale";
            case DATABASE -> "--on URL";
            case TABLES -> "--table";
            case ROWS_BY -> "--rows-by";
            case ZONE -> "--zone";
            case EACH -> "--each";
        };
    }

    @Override
    public String allowing(AccessPolicy.Kind kind, String what) {
        return "add --allow " + kind + (what.isEmpty() ? "" : "=" + what) + (kind == AccessPolicy.Kind.INPUT ? ", or name it: --data TABLE=-" : "");
    }

    @Override
    public String file(Path file, Path folder) {
        return file.toString();
    }
}
