package dev.trellisgorge.cli;

import dev.trellisgorge.audit.Audit;
import dev.trellisgorge.brief.Brief;
import dev.trellisgorge.chart.Engines;
import dev.trellisgorge.chart.Page;
import dev.trellisgorge.chart.PlainChart;
import dev.trellisgorge.chart.Size;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.Problems;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.ParseResult;

/** {@code gorge draw}: a brief's charts to a file. */
final class Draw implements Command {
    private static final String STAMP = "NOT PROVED";

    private final BriefSource source = new BriefSource();
    private final OptionSpec output = Command.option(Path.class, "FILE", "-o", "--output").required(true)
            .description("The file to write.").build();
    private final OptionSpec size = Command.option(String.class, "WxH", "--size")
            .initialValue(Size.STANDARD.toString()).description("The size of a picture in pixels (1280x800 where it is not given).").build();
    private final OptionSpec evenIfWrong = OptionSpec.builder("--even-if-wrong").type(boolean.class).initialValue(false)
            .description("Draw although an identity fails; the chart is then stamped.").build();
    private final Streams streams;

    Draw(Streams streams) {
        this.streams = streams;
    }

    @Override
    public CommandSpec spec() {
        CommandSpec spec = Command.named("draw",
                "Draws the charts of a brief; the ending of FILE picks the engine: .png, .svg or .xlsx.");
        spec.usageMessage().footer("", "A workbook holds every chart. A picture holds one, so several charts go to "
                + "FILE-CHART.ending each.", "The names of the written files are printed.");
        source.addTo(spec);
        return spec.addOption(output).addOption(size).addOption(evenIfWrong);
    }

    @Override
    public int run(ParseResult given) {
        Path target = output.getValue();
        Size pictures = size();
        Brief brief = source.read();
        List<PlainChart> charts = brief.compute(source.charts(brief));
        refuseInputs(brief, Engines.files(pages(brief, charts), target));
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
        if (!holds && !evenIfWrong.<Boolean>getValue()) {
            streams.err().println("gorge: nothing was drawn, because an identity fails; --even-if-wrong draws it stamped");
            return Gorge.CHECK_FAILED;
        }
        Engines.draw(pages(brief, proved), target, pictures).forEach(streams.out()::println);
        return Gorge.DONE;
    }

    /** What the brief puts together; charts that are asked for by name come alone. */
    private List<Page> pages(Brief brief, List<PlainChart> charts) {
        return source.isWhole() ? brief.pages(charts) : charts.stream().map(Page::of).toList();
    }

    private static void refuseInputs(Brief brief, List<Path> targets) {
        Problems problems = new Problems();
        for (Path target : targets) {
            if (brief.inputs().stream().anyMatch(input -> same(input, target))) {
                problems.add(Place.inFile(target.toString()), "is read by the brief, so it is not written over; name another file");
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

    private Size size() {
        try {
            return Size.parse(size.getValue());
        } catch (IllegalArgumentException e) {
            throw new BadInput(Place.of("--size"), e.getMessage());
        }
    }
}
