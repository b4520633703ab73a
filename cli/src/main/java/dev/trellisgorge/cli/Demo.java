package dev.trellisgorge.cli;

import dev.trellisgorge.audit.Audit;
import dev.trellisgorge.brief.Brief;
import dev.trellisgorge.engine.Engines;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.chart.Size;
import dev.trellisgorge.file.AtomicFiles;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.TableWriter;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.PositionalParamSpec;
import picocli.CommandLine.ParseResult;

/** {@code gorge demo}: every shipped brief, copied with its data to a folder and drawn there. */
final class Demo implements Command {
    private static final List<String> DATA = List.of("generation.csv", "storage.csv", "energy.csv", "fish.csv", "levels.csv", "flow.csv", "flow-before.csv",
            "monthly.csv", "readings.csv", "meters.csv", "tariffs.csv", "accounts.csv");
    private static final List<String> BRIEFS = List.of("generation.yaml", "targets.yaml", "monthly.yaml", "storage.yaml", "energy.yaml",
            "flow.yaml", "levels.yaml", "fish.yaml", "board.yaml", "readings.yaml", "looks.yaml", "accounts.yaml");
    private static final List<String> ENDINGS = List.of("png", "svg", "pdf", "xlsx", "ods", "pptx", "txt", "json");

    private final PositionalParamSpec target = PositionalParamSpec.builder().paramLabel("DIR").type(Path.class).index("0")
            .arity("0..1").initialValue(Path.of("gorge-demo"))
            .description("The folder, made where it is missing (gorge-demo by default).").build();
    private final Streams streams;
    private Path folder;

    Demo(Streams streams) {
        this.streams = streams;
    }

    @Override
    public CommandSpec spec() {
        CommandSpec spec = Command.named("demo",
                "Copies the demo briefs and data to DIR, draws them with every engine, and says where everything is; index.html shows the pictures.");
        spec.usageMessage().footer("", "A brief or data file that you changed in DIR is kept, and drawn as you changed it.");
        return spec.addPositional(target);
    }

    @Override
    public int run(ParseResult given) {
        folder = target.getValue();
        makeFolder();
        DATA.forEach(this::copy);
        BRIEFS.forEach(this::copy);
        boolean holds = true;
        ContactSheet sheet = new ContactSheet("Trellis Gorge: the demo");
        for (String brief : BRIEFS) {
            holds &= draw(brief, sheet);
        }
        streams.out().println(AtomicFiles.to(folder.resolve("index.html"), out -> out.write(sheet.html().getBytes(StandardCharsets.UTF_8))));
        return holds ? Gorge.DONE : Gorge.CHECK_FAILED;
    }

    private void makeFolder() {
        try {
            Files.createDirectories(folder);
        } catch (IOException e) {
            throw new BadInput(Place.inFile(folder.toString()), ProblemKind.NOT_WRITABLE, "can't make the folder: " + AtomicFiles.reason(e));
        }
    }

    private void copy(String name) {
        Path target = folder.resolve(name);
        byte[] shipped = shipped(name);
        try {
            if (Files.exists(target) && !Arrays.equals(Files.readAllBytes(target), shipped)) {
                streams.err().println("gorge: kept " + target + ", which differs from the shipped one");
                return;
            }
        } catch (IOException e) {
            throw new BadInput(Place.inFile(target.toString()), ProblemKind.UNREADABLE, "can't read: " + AtomicFiles.reason(e));
        }
        streams.out().println(AtomicFiles.to(target, out -> out.write(shipped)));
    }

    private static byte[] shipped(String name) {
        try (InputStream in = Demo.class.getResourceAsStream("/demo/" + name)) {
            return in.readAllBytes();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private boolean draw(String name, ContactSheet sheet) {
        Brief brief = Brief.read(folder.resolve(name));
        List<PlainChart> charts = brief.compute(brief.charts());
        boolean holds = true;
        for (PlainChart chart : charts) {
            Audit audit = Audit.of(chart);
            if (!audit.holds()) {
                new AuditText(streams.err()).print(audit);
                holds = false;
            }
        }
        String stem = name.substring(0, name.lastIndexOf('.'));
        if (!holds) {
            return false;
        }
        List<Page> pages = brief.pages(charts);
        List<Path> written = new ArrayList<>();
        for (String ending : ENDINGS) {
            written.addAll(Engines.draw(pages, folder.resolve(stem + "." + ending), Size.STANDARD));
        }
        written.add(series(charts, folder.resolve(stem + "-series.json")));
        written.forEach(streams.out()::println);
        sheet.add(folder.resolve(name), pages, written);
        return true;
    }

    /** The helper series of every chart, drawn or not. */
    private static Path series(List<PlainChart> charts, Path target) {
        Map<String, Table> tables = new LinkedHashMap<>();
        charts.forEach(chart -> tables.put(chart.name(), chart.printed()));
        return AtomicFiles.to(target, out -> TableWriter.json(tables, out));
    }
}
