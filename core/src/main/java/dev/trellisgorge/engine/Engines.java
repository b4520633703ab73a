package dev.trellisgorge.engine;

import dev.trellisgorge.file.AtomicFiles;
import dev.trellisgorge.chart.Size;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Memory;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.problem.Problems;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.ServiceLoader;
import java.util.SortedSet;
import java.util.TreeSet;
import java.util.function.Consumer;

/** The engines on the class path, and the one way to have them write files. Thread-safe. */
public final class Engines {
    /** Takes no notice of what is left out. */
    private static final Consumer<String> UNHEARD = sentence -> { };

    private Engines() {
    }

    /** Draws one chart to a file whose ending picks the engine, 1280×800. Errors as for the longer form. */
    public static void draw(PlainChart chart, Path file) {
        draw(List.of(Page.of(chart)), file, Size.STANDARD);
    }

    /**
     * Draws pages to a file whose ending picks the engine. Where a file of that kind holds one page only and
     * there are several, each goes to a file of its own, {@code NAME-PAGE.ENDING}. Nothing is half-written: each
     * file is complete before it takes its place.
     *
     * @return the files, in the order of the pages
     * @throws BadInput where no engine writes that ending, the engine can't draw a chart, or a file can't be written
     */
    public static List<Path> draw(List<Page> pages, Path file, Size size) {
        return drawAll(Map.of(file, pages), Options.of(size), UNHEARD);
    }

    /**
     * Draws the pages of several files: all of them are written, or none. Errors as for one.
     *
     * @param pagesOf by the file that they go to
     * @param warnings    takes a sentence for each thing that is left out for lack of room, of rows or of a font, with its file
     * @return the files, in the order of the map and of the pages
     * @throws BadInput also where a file of such a kind doesn't take an option
     */
    public static List<Path> drawAll(Map<Path, List<Page>> pagesOf, Options options, Consumer<String> warnings) {
        Map<Path, AtomicFiles.Content> contents = new LinkedHashMap<>();
        pagesOf.forEach((file, pages) -> {
            Engine engine = of(file);
            refuseUntaken(engine, ending(file), options, Place.inFile(file.toString()));
            List<Page> lowered = lowered(pages, engine, options.size(), sentence -> warnings.accept(file + ": " + sentence));
            List<Path> files = files(pages, file);
            for (int i = 0; i < files.size(); i++) {
                List<Page> held = files.size() == 1 ? lowered : lowered.subList(i, i + 1);
                Path written = files.get(i);
                if (contents.put(written, out -> draw(engine, held, file, options, out, sentence -> warnings.accept(written + ": " + sentence))) != null) {
                    throw new BadInput(Place.inFile(files.get(i).toString()), ProblemKind.NOT_WRITABLE, "two results would go to this file; give them other names");
                }
            }
        });
        return AtomicFiles.all(contents);
    }

    private static void refuseUntaken(Engine engine, String ending, Options options, Place place) {
        Problems problems = new Problems();
        options.extras().stream().filter(extra -> !engine.takes(ending).contains(extra)).forEach(extra -> problems.add(place, ProblemKind.UNSUPPORTED, "files of this kind " + extra.lacking()));
        problems.throwIfAny();
    }

    private static void draw(Engine engine, List<Page> pages, Path file, Options options, OutputStream out, Consumer<String> warnings) throws IOException {
        try {
            written(engine, pages, ending(file), options, out, warnings);
        } catch (OutOfMemoryError e) {
            throw Memory.ended(Place.inFile(file.toString()), "the drawing", "draw fewer rows, or a smaller picture");
        }
    }

    /** Writes pages to a stream, as a file of that ending that holds all of them. Errors as for files. */
    public static void draw(List<Page> pages, String ending, Options options, OutputStream out) throws IOException {
        draw(pages, of(Path.of("." + ending)), ending, options, out, UNHEARD);
    }

    /** The same, by a certain engine. {@code warnings} takes what is left out, as for files. */
    public static void draw(List<Page> pages, Engine engine, String ending, Options options, OutputStream out, Consumer<String> warnings) throws IOException {
        refuseUntaken(engine, ending, options, Place.of("." + ending));
        if (pages.size() != 1 && !engine.holdsSeveral(ending)) {
            throw new BadInput(Place.of("." + ending), ProblemKind.UNSUPPORTED, "a file of this kind holds one page, and there are " + pages.size() + "; draw them one by one, or to a kind that holds several");
        }
        written(engine, lowered(pages, engine, options.size(), warnings), ending, options, out, warnings);
    }

    private static void written(Engine engine, List<Page> pages, String ending, Options options, OutputStream out, Consumer<String> warnings) throws IOException {
        try {
            engine.draw(pages, ending, options, out, warnings);
        } catch (UncheckedIOException e) {
            throw e.getCause();
        }
    }

    private static List<Page> lowered(List<Page> pages, Engine engine, Size size, Consumer<String> warnings) {
        Problems problems = new Problems();
        List<Page> lowered = new ArrayList<>();
        for (Page page : pages) {
            List<Tile> tiles = new ArrayList<>();
            for (Tile tile : page.tiles()) {
                tiles.add(tile instanceof Tile.OfChart chart ? new Tile.OfChart(lowered(downsampled(chart.parts(), engine, page, size, warnings), engine, problems)) : tile);
            }
            lowered.add(page.tiles(tiles));
        }
        problems.throwIfAny();
        return lowered;
    }

    private static List<PlainChart> downsampled(List<PlainChart> parts, Engine engine, Page page, Size size, Consumer<String> warnings) {
        List<PlainChart> fewer = new ArrayList<>();
        for (PlainChart part : parts) {
            OptionalInt most = mostRows(part, engine, page, size);
            most.stream().mapToObj(part::thinning).flatMap(Optional::stream).forEach(sentence -> warnings.accept("'" + part.name() + "': " + sentence));
            fewer.add(most.isPresent() ? part.downsampled(most.getAsInt()) : part);
        }
        return fewer;
    }

    private static OptionalInt mostRows(PlainChart chart, Engine engine, Page page, Size size) {
        return engine.mostRows(chart, Math.max(1, size.width() / page.columns()), Math.max(1, size.height() / page.rows()));
    }

    private static List<PlainChart> lowered(List<PlainChart> parts, Engine engine, Problems problems) {
        List<PlainChart> lowered = new ArrayList<>();
        for (PlainChart part : parts) {
            problems.attempt(() -> lowered(part, engine)).ifPresent(lowered::addAll);
        }
        return lowered;
    }

    private static List<PlainChart> lowered(PlainChart chart, Engine engine) {
        engine.refusal(chart).ifPresent(why -> {
            throw new BadInput(Place.of("chart '" + chart.name() + "'"), ProblemKind.UNSUPPORTED, why);
        });
        chart.checkLabels();
        return new Lowering(engine.abilities()).lower(chart);
    }

    /**
     * A sentence that says why a chart can't be drawn to a file of this ending; empty where it can.
     *
     * @throws BadInput where no engine writes that ending
     */
    public static Optional<String> refusal(PlainChart chart, Path file) {
        try {
            lowered(chart, of(file));
            return Optional.empty();
        } catch (BadInput why) {
            return Optional.of(why.getMessage());
        }
    }

    /** Whether a file of this ending takes an option. Errors the same where no engine writes it. */
    public static boolean takes(Path file, Options.Extra extra) {
        return of(file).takes(ending(file)).contains(extra);
    }

    /** Why a file that is there should not be written over; empty where nothing is lost, or nothing is there. Errors the same. */
    public static Optional<String> loss(Path file) {
        return Files.isRegularFile(file) ? of(file).loss(file) : Optional.empty();
    }

    /** The files that {@link #draw} would write. Errors the same where no engine writes that ending. */
    public static List<Path> files(List<Page> pages, Path file) {
        if (pages.size() == 1 || of(file).holdsSeveral(ending(file))) {
            of(file);
            return List.of(file);
        }
        return pages.stream().map(page -> file.resolveSibling(stem(file) + "-" + page.name() + "." + ending(file))).toList();
    }

    private static Engine of(Path file) {
        String ending = ending(file);
        SortedSet<String> known = new TreeSet<>();
        // Also where the thread's own class loader does not see them, as in a server.
        for (ServiceLoader<Engine> loader : List.of(ServiceLoader.load(Engine.class), ServiceLoader.load(Engine.class, Engines.class.getClassLoader()))) {
            for (Engine engine : loader) {
                if (engine.endings().contains(ending)) {
                    return engine;
                }
                engine.endings().forEach(e -> known.add("." + e));
            }
        }
        throw new BadInput(Place.of(file.toString()), ProblemKind.UNKNOWN_NAME, (ending.isEmpty() ? "the file's name has no ending"
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
