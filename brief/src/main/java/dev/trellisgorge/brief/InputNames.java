package dev.trellisgorge.brief;

import java.nio.file.Path;

/**
 * How messages name what a caller gives beside the brief, and its files. A program in whose words they are to be implements it;
 * the command-line tool names its options. Implementations must be thread-safe.
 */
public interface InputNames {
    /** What a caller may give. */
    enum Input {
        SETTINGS("Overrides.settings"),
        DATA("Overrides.data"),
        WHERE("Overrides.where"),
        LOCALE("Overrides.locale"),
        DATABASE("Overrides.There.on"),
        TABLES("Overrides.There.tables"),
        ROWS_BY("Overrides.There.rowsBy"),
        ZONE("Overrides.There.zone"),
        EACH("Brief.each");

        private final String call;

        Input(String call) {
            this.call = call;
        }
    }

    /** The library's own calls. Files are named as the brief names them, so that no folder of the machine is in a message. */
    InputNames CALLS = new InputNames() {
        @Override
        public String of(Input input) {
            return input.call;
        }

        @Override
        public String allowing(AccessPolicy.Kind kind, String what) {
            return "AccessPolicy.allowing(" + kind.name() + ", …) allows it";
        }

        @Override
        public String file(Path file, Path folder) {
            Path inside = folder.toAbsolutePath().normalize();
            Path whole = file.toAbsolutePath().normalize();
            return String.valueOf(whole.startsWith(inside) && !whole.equals(inside) ? inside.relativize(whole) : whole.getFileName());
        }
    };

    /** An input, such as {@code Overrides.where}. */
    String of(Input input);

    /**
     * What the person who trusts a brief can do, as the end of "if you trust the brief, …".
     *
     * @param what the folder (absolute), URL, parameter, variable or function that is to be allowed, or empty
     */
    String allowing(AccessPolicy.Kind kind, String what);

    /** A file that is read, relative to the working directory or absolute. @param folder the brief's */
    String file(Path file, Path folder);
}
