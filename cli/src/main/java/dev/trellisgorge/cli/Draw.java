package dev.trellisgorge.cli;

import dev.trellisgorge.audit.Audit;
import dev.trellisgorge.brief.Brief;
import dev.trellisgorge.engine.Engines;
import dev.trellisgorge.engine.Options;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.chart.Size;
import dev.trellisgorge.engine.text.Palette;
import dev.trellisgorge.engine.text.TextEngine;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.problem.Problems;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.Collectors;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.ParseResult;

/** {@code gorge draw}: a brief's charts to a file. */
final class Draw implements Command {
    private static final String STAMP = "NOT PROVED";

    /** Of the characters of a value in a file's name: file systems take 255 bytes. */
    private static final int MOST_OF_A_VALUE = 40;

    private final BriefSource source;
    private final OptionSpec output = Command.option(Path.class, "FILE", "-o", "--output")
            .description("The file to write. Without one the charts are printed as text.").build();
    private final OptionSpec size = Command.option(String.class, "WxH", "--size")
            .initialValue(Size.STANDARD.toString()).description("The size of a picture in pixels (1280x800 by default).").build();
    private final OptionSpec each = Command.option(List.class, "COLUMN", "--each").auxiliaryTypes(String.class).initialValue(List.of())
            .description("Draw once for each value of a column, with its rows alone, to FILE-VALUE.ending. The column is one of the charted table, or of the raw table before"
                    + " all steps. Given more than once, once for each combination.").build();
    private final OptionSpec spare = Command.option(String.class, "ROWS", "--spare")
            .description("Leave room for so many rows more in each raw table of a workbook or spreadsheet; formulas, lists and charts take them in.").build();
    private final OptionSpec spareBars = Command.option(String.class, "BARS", "--spare-bars")
            .description("With --spare: leave room for so many bars more where the rows are totals (a quarter of those that there are, and one at least, by default).").build();
    private final OptionSpec into = Command.option(Path.class, "FILE", "--into")
            .description("Draw into a workbook (.xlsx or .xlsm) that holds other sheets too, which stay as they are. A chart goes where its 'at' says, or to a sheet of its own. Without -o the file itself is replaced; drawing again replaces what was drawn.").build();
    private final OptionSpec replace = OptionSpec.builder("--replace").type(boolean.class).initialValue(false)
            .description("Write over a workbook or spreadsheet that another program has written since.").build();
    private final OptionSpec author = Command.option(String.class, "NAME", "--author").description("Who made it, in the properties of a .xlsx, .ods, .pptx or .pdf file.").build();
    private final OptionSpec date = Command.option(String.class, "DATE", "--date")
            .description("The day on which it was made, such as 2026-06-30, in the properties of a .xlsx, .ods, .pptx or .pdf file. Without it they hold none, and the same input gives the same file.").build();
    private final OptionSpec evenIfWrong = OptionSpec.builder("--even-if-wrong").type(boolean.class).initialValue(false)
            .description("Draw although an identity fails; the chart is then stamped.").build();
    private final Streams streams;

    Draw(Streams streams) {
        this.streams = streams;
        this.source = new BriefSource(streams);
    }

    @Override
    public CommandSpec spec() {
        CommandSpec spec = Command.named("draw",
                "Draws the charts of a brief; the ending of FILE picks the engine: .png, .svg, .pdf, .xlsx, .ods, .pptx, .txt or .json.");
        spec.usageMessage().footer("", "A .pdf, .xlsx, .ods, .pptx, .txt or .json file holds every chart. A picture holds one, so "
                + "several charts go to FILE-CHART.ending each. Charts on the brief's board share one picture or page.",
                "The names of the written files are printed.");
        source.addTo(spec);
        return spec.addOption(output).addOption(size).addOption(each).addOption(spare).addOption(spareBars).addOption(into).addOption(replace).addOption(author).addOption(date).addOption(evenIfWrong);
    }

    /** Whether a file is named, so that nothing is printed. */
    boolean writesFiles() {
        return output.getValue() != null || into.getValue() != null;
    }

    /** Whether a file is a workbook that it draws into, and so changes itself. */
    boolean drawsInto(Path file) {
        return into.getValue() != null && same(file, into.getValue()) && (output.getValue() == null || same(file, output.getValue()));
    }

    /** What it reads. */
    List<Path> inputs() {
        return source.inputs();
    }

    @Override
    public int run(ParseResult given) throws IOException {
        Optional<Path> host = Optional.ofNullable(into.getValue());
        Optional<Path> target = Optional.<Path>ofNullable(output.getValue()).or(() -> host);
        Options options = options(target);
        Map<Drawing, List<Page>> drawings = new LinkedHashMap<>();
        List<PlainChart> computed = new ArrayList<>();
        boolean holds = true;
        for (Map.Entry<Drawing, Brief> part : parts(target).entrySet()) { // all are proved before anything is written
            List<PlainChart> charts = part.getValue().compute(source.charts(part.getValue()));
            computed.addAll(charts);
            computed.addAll(source.isWhole() ? part.getValue().figures() : List.of());
            holds &= prove(charts, part.getValue(), part.getKey(), drawings);
        }
        source.warn(computed);
        if (!holds && !evenIfWrong.<Boolean>getValue()) {
            streams.err().println("gorge: nothing was drawn, because an identity fails; --even-if-wrong draws it stamped");
            return Gorge.CHECK_FAILED;
        }
        if (target.isPresent()) {
            Map<Path, List<Page>> files = new LinkedHashMap<>();
            drawings.forEach((drawing, pages) -> files.put(drawing.target().orElseThrow(), pages));
            refuseLosses(files);
            Engines.drawAll(files, options, this::tell).forEach(streams.out()::println);
            return Gorge.DONE;
        }
        for (Map.Entry<Drawing, List<Page>> drawing : drawings.entrySet()) {
            streams.out().print(drawing.getKey().heading().isEmpty() ? "" : "== " + drawing.getKey().heading() + "\n");
            print(drawing.getValue(), options);
        }
        return Gorge.DONE;
    }

    /** The whole brief, or a part for each value of a column. */
    private Map<Drawing, Brief> parts(Optional<Path> target) {
        Brief whole = source.read();
        List<String> columns = each.getValue();
        if (columns.isEmpty()) {
            return Map.of(new Drawing("", target), whole);
        }
        Map<Drawing, Brief> parts = new LinkedHashMap<>();
        Set<String> taken = new HashSet<>();
        whole.each(columns, source.given()).forEach((values, part) -> parts.put(new Drawing(String.join(", ", values), target.map(path -> beside(path, values, taken))), part));
        parts.values().stream().flatMap(part -> part.notes().stream()).distinct().filter(note -> !whole.notes().contains(note)).forEach(note -> streams.err().println("gorge: note: " + note));
        if (parts.isEmpty()) {
            throw new BadInput(Place.of("--each"), ProblemKind.NO_ROWS, "no row has a value in " + (columns.size() == 1 ? "the column '" + columns.get(0) + "'" : "each of the columns " + String.join(", ", columns)));
        }
        return parts;
    }

    /** One value of a column, or the whole, and the file that it goes to, or none where it is printed. */
    private record Drawing(String heading, Optional<Path> target) {
    }

    private boolean prove(List<PlainChart> charts, Brief brief, Drawing drawing, Map<Drawing, List<Page>> drawings) {
        drawing.target().ifPresent(file -> refuseInputs(brief, Engines.files(pages(brief, charts), file).stream().filter(written -> into.getValue() == null || !same(written, into.getValue())).toList()));
        List<PlainChart> proved = new ArrayList<>();
        boolean holds = true;
        for (PlainChart chart : charts) {
            Audit audit = Audit.of(chart);
            holds &= audit.holds();
            proved.add(audit.holds() ? chart : chart.stamped(STAMP));
            if (!audit.holds()) {
                new AuditText(streams.err()).print(audit);
            }
        }
        drawings.put(drawing, pages(brief, proved));
        return holds;
    }

    /** The file with the values in its name, in characters that every file system takes, and each name once. */
    private static Path beside(Path target, List<String> values, Set<String> taken) {
        String name = target.getFileName().toString();
        int dot = name.lastIndexOf('.') < 0 ? name.length() : name.lastIndexOf('.');
        String stem = name.substring(0, dot) + "-" + values.stream().map(Draw::safe).collect(Collectors.joining("-"));
        String unique = stem;
        for (int i = 2; !taken.add(unique.toLowerCase(Locale.ROOT)); i++) {
            unique = stem + "-" + i;
        }
        return target.resolveSibling(unique + name.substring(dot));
    }

    private static String safe(String value) {
        String safe = value.strip().replaceAll("[^\\p{L}\\p{M}\\p{N} ._-]", "_");
        return safe.isEmpty() ? "_" : safe.substring(0, safe.offsetByCodePoints(0, Math.min(MOST_OF_A_VALUE, safe.codePointCount(0, safe.length()))));
    }

    /** What the brief puts together; charts that are asked for by name come alone. */
    private List<Page> pages(Brief brief, List<PlainChart> charts) {
        return source.isWhole() ? brief.pages(charts) : brief.alone(charts);
    }

    /** On a terminal as wide as that is, in its colours; else as a text file. */
    private void print(List<Page> pages, Options options) throws IOException {
        Map<String, String> environment = streams.terminal().environment();
        OptionalInt columns = streams.terminal().columns();
        TextEngine engine = columns.isEmpty() ? new TextEngine() : TextEngine.forTerminal(columns.getAsInt(),
                Palette.of(environment.get("NO_COLOR"), environment.get("TERM"), environment.get("COLORTERM")));
        Engines.draw(pages, engine, "txt", options, streams.out(), this::tell);
    }

    private void tell(String sentence) {
        streams.err().println("gorge: " + sentence);
    }

    private static void refuseInputs(Brief brief, List<Path> targets) {
        Problems problems = new Problems();
        for (Path target : targets) {
            if (brief.inputs().stream().anyMatch(input -> same(input, target))) {
                problems.add(Place.inFile(target.toString()), ProblemKind.NOT_WRITABLE, "is read by the brief, so it is not written over; name another file");
            }
        }
        problems.throwIfAny();
    }

    /** What a person made of a workbook is not written over unasked. */
    private void refuseLosses(Map<Path, List<Page>> files) {
        Problems problems = new Problems();
        for (Map.Entry<Path, List<Page>> file : files.entrySet()) {
            for (Path written : Engines.files(file.getValue(), file.getKey())) {
                if (!replace.<Boolean>getValue() && (into.getValue() == null || !same(written, into.getValue()))) {
                    Engines.loss(written).ifPresent(why -> problems.add(Place.inFile(written.toString()), ProblemKind.NOT_WRITABLE, why + (Engines.takes(written, Options.Extra.INTO) ? "; --into draws into it, and --replace writes over it" : "; --replace writes over it")));
                }
            }
        }
        problems.throwIfAny();
    }

    private static boolean same(Path a, Path b) {
        try {
            return Files.exists(a) && Files.exists(b) && Files.isSameFile(a, b);
        } catch (IOException e) {
            return a.toAbsolutePath().normalize().equals(b.toAbsolutePath().normalize());
        }
    }

    private Options options(Optional<Path> target) {
        Options options = Options.of(size());
        int rows = count(spare).orElse(0);
        OptionalInt bars = count(spareBars);
        if (bars.isPresent() && rows == 0) {
            throw new BadInput(Place.of("--spare-bars"), ProblemKind.CONFLICT, "requires --spare");
        } else if (rows > 0 && target.isEmpty()) {
            throw new BadInput(Place.of("--spare"), ProblemKind.CONFLICT, "what is printed has no room for rows to come; draw to a workbook with -o FILE.xlsx");
        }
        options = options.spare(rows, bars);
        options = author.getValue() == null ? options : options.author(author.getValue());
        options = into.getValue() == null ? options : options.into(into.getValue());
        return date.getValue() == null ? options : options.date(day(date.getValue()));
    }

    private static OptionalInt count(OptionSpec option) {
        String written = option.getValue();
        if (written != null && !written.matches("[0-9]{1,7}")) {
            throw new BadInput(Place.of(option.longestName()), ProblemKind.INVALID, "'" + written + "' is no number of rows; write 0 or more, such as 12");
        }
        return written == null ? OptionalInt.empty() : OptionalInt.of(Integer.parseInt(written));
    }

    private static LocalDate day(String written) {
        try {
            return LocalDate.parse(written);
        } catch (DateTimeParseException e) {
            throw new BadInput(Place.of("--date"), ProblemKind.INVALID, "'" + written + "' is no date; write YEAR-MONTH-DAY, such as 2026-06-30");
        }
    }

    private Size size() {
        try {
            return Size.parse(size.getValue());
        } catch (IllegalArgumentException e) {
            throw new BadInput(Place.of("--size"), ProblemKind.INVALID, e.getMessage());
        }
    }
}
