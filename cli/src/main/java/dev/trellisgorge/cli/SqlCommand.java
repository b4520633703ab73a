package dev.trellisgorge.cli;

import dev.trellisgorge.brief.Brief;
import dev.trellisgorge.plan.Plan;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.sql.Dialect;
import dev.trellisgorge.sql.Sql;
import java.util.ArrayList;
import java.util.List;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.ParseResult;

/** {@code gorge sql}: the statements that give a brief's helper series in a database. */
final class SqlCommand implements Command {

    private final OptionSpec dialect = Command.option(String.class, "NAME", "--dialect").initialValue(Dialect.STANDARD.toString())
            .description("What the database speaks: " + String.join(", ", Dialect.names()) + "; " + Dialect.STANDARD + " where it is not given.").build();
    private final OptionSpec rowsBy = Command.option(String.class, "COLUMN", "--rows-by")
            .description("The column of each raw table that numbers its rows; without it they are in the order of all their cells, from the left.").build();
    private final OptionSpec view = OptionSpec.builder("--view").type(boolean.class).initialValue(false).description("Print statements that make a view for each chart, named as the chart is.").build();
    private final BriefSource source;
    private final Streams streams;

    SqlCommand(Streams streams) {
        this.streams = streams;
        this.source = new BriefSource(streams);
    }

    @Override
    public CommandSpec spec() {
        CommandSpec spec = Command.named("sql", "Prints an SQL statement for each chart that gives its categories and helper series, in the order in which they are drawn. Computes nothing.");
        spec.usageMessage().footer("", "The statements read tables that are called as in the brief's data, and hold the settings' values. What a dialect can't say is an error that names the step or the column.");
        source.addTo(spec);
        return spec.addOption(dialect).addOption(rowsBy).addOption(view);
    }

    @Override
    public int run(ParseResult given) {
        Dialect spoken = spoken();
        Brief brief = source.read();
        Problems problems = new Problems();
        List<String> statements = new ArrayList<>();
        for (Plan plan : source.plans(brief)) {
            problems.attempt(() -> statement(brief, plan, spoken)).ifPresent(statements::add);
        }
        problems.throwIfAny();
        statements.forEach(streams.out()::print);
        return Gorge.DONE;
    }

    private Dialect spoken() {
        try {
            return Dialect.named(dialect.getValue());
        } catch (BadInput wrong) {
            throw new BadInput(Place.of("--dialect"), wrong.getMessage());
        }
    }

    private String statement(Brief brief, Plan plan, Dialect spoken) {
        try {
            Sql sql = Sql.of(plan, brief.known());
            String name = plan.name().replaceAll("\\p{Cntrl}", " ");
            String written = (rowsBy.getValue() == null ? sql : sql.rowsBy(rowsBy.getValue())).withValues(spoken).stripTrailing() + ";\n";
            return "-- the chart " + name + "\n" + (view.<Boolean>getValue() ? "CREATE VIEW \"" + name.replace("\"", "\"\"") + "\" AS\n" : "") + written;
        } catch (BadInput wrong) {
            throw new BadInput(Place.of("chart '" + plan.name() + "'"), wrong.getMessage());
        }
    }
}
