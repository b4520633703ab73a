package dev.trellisgorge.cli;

import dev.trellisgorge.brief.Brief;
import dev.trellisgorge.plan.Plan;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.sql.Database;
import dev.trellisgorge.sql.Dialect;
import dev.trellisgorge.sql.Sql;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.ParseResult;

/** {@code gorge sql}: the statements that give a brief's helper series in a database. */
final class SqlCommand implements Command {
    private static final Pattern PREFIX = Pattern.compile("([\\p{L}_][\\p{L}\\p{N}_]*\\.)?[\\p{L}_][\\p{L}\\p{N}_]*");

    private final OptionSpec view = OptionSpec.builder("--view").type(boolean.class).initialValue(false).description("Print statements that make a view for each chart, named as the chart is.").build();
    private final OptionSpec writeView = Command.option(String.class, "PREFIX", "--write-view")
            .description("Make a view for each chart in the database that --on names, or make it anew: called PREFIX and the chart's name, in a schema where it stands before a point in PREFIX. Nothing else is touched.").build();
    private final OptionSpec dryRun = OptionSpec.builder("--dry-run").type(boolean.class).initialValue(false).description("With --write-view: print the statements, and make nothing.").build();
    private final BriefSource source;
    private final Streams streams;

    SqlCommand(Streams streams) {
        this.streams = streams;
        this.source = BriefSource.ofStatements(streams);
    }

    @Override
    public CommandSpec spec() {
        CommandSpec spec = Command.named("sql", "Prints an SQL statement for each chart that gives its categories and helper series, in the order in which they are drawn. Computes nothing.");
        spec.usageMessage().footer("", "The statements read tables that are called as in the brief's data, and hold the settings' values. What a dialect can't say is an error that names the step or the column.");
        source.addTo(spec);
        return spec.addOption(view).addOption(writeView).addOption(dryRun);
    }

    @Override
    public int run(ParseResult given) {
        Optional<Dialect> spoken = source.dialect();
        Brief brief = source.read(writeView.getValue() != null && !dryRun.<Boolean>getValue());
        if (writeView.getValue() != null && view.<Boolean>getValue()) {
            throw new BadInput(Place.of("--view"), ProblemKind.CONFLICT, "prints views, and --write-view makes them; give one of the two, or --dry-run with the latter");
        } else if (writeView.getValue() != null) {
            return written(brief);
        } else if (dryRun.<Boolean>getValue()) {
            throw new BadInput(Place.of("--dry-run"), ProblemKind.CONFLICT, "is about views that are written; give --write-view PREFIX too");
        }
        Problems problems = new Problems();
        List<String> statements = new ArrayList<>();
        for (Plan plan : source.plans(brief)) {
            problems.attempt(() -> statement(brief, plan, spoken)).ifPresent(statements::add);
        }
        problems.throwIfAny();
        statements.forEach(streams.out()::print);
        return Gorge.DONE;
    }

    private String statement(Brief brief, Plan plan, Optional<Dialect> given) {
        try {
            String name = plan.name().replaceAll("\\p{Cntrl}", " ");
            String written = written(brief, plan, given).stripTrailing() + ";\n";
            if (view.<Boolean>getValue()) {
                tell(plan, without(brief, plan, given));
            }
            return "-- the chart " + name + "\n" + (view.<Boolean>getValue() ? "CREATE VIEW " + spoken(brief, given).quoted(name) + " AS\n" : "") + written;
        } catch (BadInput wrong) {
            throw new BadInput(Place.of("chart '" + plan.name() + "'"), ProblemKind.UNSUPPORTED, wrong.getMessage());
        }
    }

    private static Dialect spoken(Brief brief, Optional<Dialect> given) {
        return brief.executor() instanceof Database database ? database.dialect() : given.orElse(Dialect.STANDARD);
    }

    /** Over the tables of the database, where one is asked; else over tables that are called as in the brief. */
    private String written(Brief brief, Plan plan, Optional<Dialect> given) {
        if (brief.executor() instanceof Database database) {
            refuseCopies(database, plan);
            return database.statement(plan);
        }
        return sql(brief, plan).labelled(spoken(brief, given));
    }

    private static void refuseCopies(Database database, Plan plan) {
        database.copies(plan).stream().findFirst().ifPresent(name -> {
            throw new BadInput(Place.of("table '" + name + "'"), ProblemKind.MISSING, "is a file, which the database has no table of; say which with --table " + name + "=TABLE");
        });
    }

    private Sql sql(Brief brief, Plan plan) {
        Sql sql = Sql.of(plan, brief.known()).over(brief.tablesElsewhere());
        return source.rowsBy().map(sql::rowsBy).orElse(sql);
    }

    private Set<String> without(Brief brief, Plan plan, Optional<Dialect> given) {
        return brief.executor() instanceof Database database ? database.withoutLabels(plan) : sql(brief, plan).withoutLabels(spoken(brief, given));
    }

    private void tell(Plan plan, Set<String> without) {
        if (!without.isEmpty()) {
            streams.err().println("gorge: note: chart '" + plan.name() + "': no dialect says how the labels of " + String.join(", ", without) + " are written, so their texts are no columns of the view; give them a plainer format");
        }
    }

    /** Makes the views, or says how. */
    private int written(Brief brief) {
        String prefix = writeView.getValue();
        if (!(brief.executor() instanceof Database database)) {
            throw new BadInput(Place.of("--write-view"), ProblemKind.MISSING, "writes into a database; say which with --on URL");
        } else if (!PREFIX.matcher(prefix).matches()) {
            throw new BadInput(Place.of("--write-view"), ProblemKind.INVALID, "'" + prefix + "' is no prefix; write letters, digits and _, such as gorge_, after a schema and a point where the views are to be in one");
        }
        Map<String, Plan> views = new LinkedHashMap<>();
        source.plans(brief).forEach(plan -> {
            refuseCopies(database, plan);
            views.put(prefix + plan.name(), plan);
        });
        List<String> statements = database.viewStatements(views);
        if (dryRun.<Boolean>getValue()) {
            statements.forEach(statement -> streams.out().print(statement.stripTrailing() + ";\n"));
            return Gorge.DONE;
        }
        database.writeViews(views);
        views.values().forEach(plan -> tell(plan, database.withoutLabels(plan)));
        views.keySet().forEach(name -> streams.err().println("gorge: wrote the view " + name));
        return Gorge.DONE;
    }
}
