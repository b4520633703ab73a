package dev.trellisgorge.test;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.IntStream;

/**
 * What a drawing looked like when somebody last looked at it, as text in {@code src/test/golden} of a module. With {@code -Dgolden.write=true} the
 * files are written instead of compared.
 */
public final class Golden {
    private static final boolean WRITES = Boolean.getBoolean("golden.write");
    private static final Path FOLDER = Path.of("src", "test", "golden");
    private static final Pattern NUMBER = Pattern.compile("-?[0-9]+(\\.[0-9]+)?");
    private static final String MEANT = "; if that is meant, look at it, and run the test with -Dgolden.write=true";

    private Golden() {
    }

    /** @param near by how much numbers may differ, as runtimes measure texts differently */
    public static void check(String name, List<String> lines, double near) {
        Path file = FOLDER.resolve(name);
        try {
            if (WRITES) {
                Files.createDirectories(FOLDER);
                Files.write(file, lines);
                return;
            }
            List<String> before = Files.readAllLines(file);
            for (int i = 0; i < Math.min(before.size(), lines.size()); i++) {
                assertThat(isNear(before.get(i), lines.get(i), near)).as("%s:%d was%n%s%nand is%n%s%n%s", file, i + 1, before.get(i), lines.get(i), MEANT).isTrue();
            }
            assertThat(lines).as("%s has other lines at its end%s", file, MEANT).hasSameSizeAs(before);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Numbers may differ in words that state nothing by '=' and stand before any text in quotes. */
    private static boolean isNear(String before, String now, double near) {
        int a = before.indexOf('\'') < 0 ? before.length() : before.indexOf('\'');
        int b = now.indexOf('\'') < 0 ? now.length() : now.indexOf('\'');
        String[] words = before.substring(0, a).split(" ");
        String[] others = now.substring(0, b).split(" ");
        return before.substring(a).equals(now.substring(b)) && words.length == others.length && IntStream.range(0, words.length).allMatch(i -> words[i].equals(others[i]) || !words[i].contains("=") && areNear(words[i], others[i], near));
    }

    private static boolean areNear(String before, String now, double near) {
        Matcher a = NUMBER.matcher(before);
        Matcher b = NUMBER.matcher(now);
        while (a.find()) {
            if (!b.find() || Math.abs(Double.parseDouble(a.group()) - Double.parseDouble(b.group())) > near) {
                return false;
            }
        }
        return NUMBER.matcher(before).replaceAll("0").equals(NUMBER.matcher(now).replaceAll("0"));
    }
}
