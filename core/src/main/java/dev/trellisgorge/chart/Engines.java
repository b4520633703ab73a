package dev.trellisgorge.chart;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.Problems;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.ServiceLoader;
import java.util.SortedSet;
import java.util.TreeSet;

/** The engines on the class path, and the one way to have them write files. */
public final class Engines {
    private Engines() {
    }

    /** Draws one chart to a file whose ending picks the engine, 1280×800. Errors as for the longer form. */
    public static void draw(PlainChart chart, Path file) {
        draw(List.of(chart), file, Size.STANDARD);
    }

    /**
     * Draws charts to a file whose ending picks the engine. Where a file of that kind holds one chart only and
     * there are several, each goes to a file of its own, {@code NAME-CHART.ENDING}. Nothing is half-written: each
     * file is complete before it takes its place.
     *
     * @return the files, in the order of the charts
     * @throws BadInput where no engine writes that ending, the engine can't draw a chart, or a file can't be written
     */
    public static List<Path> draw(List<PlainChart> charts, Path file, Size size) {
        Engine engine = of(file);
        Problems problems = new Problems();
        charts.forEach(chart -> refusal(chart, file).ifPresent(why -> problems.add(Place.of("chart '" + chart.name() + "'"), why)));
        problems.throwIfAny();
        String ending = ending(file);
        List<Path> files = files(charts, file);
        for (int i = 0; i < files.size(); i++) {
            List<PlainChart> held = files.size() == 1 ? charts : charts.subList(i, i + 1);
            Writing.to(files.get(i), out -> engine.draw(held, ending, size, out));
        }
        return files;
    }

    /**
     * A sentence that says why a chart can't be drawn to a file of this ending; empty where it can.
     *
     * @throws BadInput where no engine writes that ending
     */
    public static Optional<String> refusal(PlainChart chart, Path file) {
        return chart.panels().isEmpty() ? Optional.of("its pattern has helper series and no drawing yet") : of(file).refusal(chart);
    }

    /** The files that {@link #draw} would write. Errors the same where no engine writes that ending. */
    public static List<Path> files(List<PlainChart> charts, Path file) {
        if (of(file).holdsSeveral() || charts.size() == 1) {
            return List.of(file);
        }
        return charts.stream().map(c -> file.resolveSibling(stem(file) + "-" + c.name() + "." + ending(file))).toList();
    }

    private static Engine of(Path file) {
        String ending = ending(file);
        SortedSet<String> known = new TreeSet<>();
        for (Engine engine : ServiceLoader.load(Engine.class)) {
            if (engine.endings().contains(ending)) {
                return engine;
            }
            engine.endings().forEach(e -> known.add("." + e));
        }
        throw new BadInput(Place.of(file.toString()), (ending.isEmpty() ? "the file's name has no ending"
                : "no engine writes '." + ending + "' files") + ", and the ending picks the engine. "
                + Nearest.hint("." + ending, known));
    }

    private static String ending(Path file) {
        String name = name(file);
        int dot = name.lastIndexOf('.');
        return dot < 0 ? "" : name.substring(dot + 1).toLowerCase(Locale.ROOT);
    }

    private static String stem(Path file) {
        String name = name(file);
        return name.substring(0, name.lastIndexOf('.'));
    }

    private static String name(Path file) {
        return file.getFileName() == null ? "" : file.getFileName().toString();
    }
}
