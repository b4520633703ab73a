package dev.trellisgorge.cluster;

import dev.trellisgorge.cli.Gorge;
import java.io.ByteArrayOutputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/** Commands as a person types them. */
final class Typed {
    private static final Pattern FIGURE = Pattern.compile("-?\\d+\\.\\d+");

    private Typed() {
    }

    /**
     * What came back.
     *
     * @param said on both streams, without the last digits of figures, in which sums may differ, and without what is said of sums and of a figure's rows, which stay there
     */
    record Answer(int code, String said) {
    }

    static Answer type(String... arguments) {
        ByteArrayOutputStream said = new ByteArrayOutputStream();
        PrintStream stream = new PrintStream(said, true, StandardCharsets.UTF_8);
        int code = Gorge.run(stream, stream, arguments);
        return new Answer(code, said.toString(StandardCharsets.UTF_8).lines().filter(line -> !line.contains("each running sum, and each sum of all rows")).map(Typed::rounded).collect(Collectors.joining("\n")));
    }

    private static String rounded(String line) {
        return FIGURE.matcher(line).replaceAll(figure -> String.format(Locale.ROOT, "%.9g", Double.parseDouble(figure.group()))).replaceAll("^figure (\\d+) .*", "figure $1").replaceAll(" +", " ").strip();
    }
}
