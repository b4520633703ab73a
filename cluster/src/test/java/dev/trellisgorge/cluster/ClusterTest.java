package dev.trellisgorge.cluster;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.conformance.RandomPlan;
import dev.trellisgorge.conformance.RandomPlan.Within;
import dev.trellisgorge.conformance.SameCharts;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.sql.Database;
import dev.trellisgorge.sql.DatabaseTable;
import java.util.Optional;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;

/** Plans on a cluster of a master and two workers, held to the oracle. */
public class ClusterTest {
    private static final int PLANS = 100;

    private ClusterOfTwo machines;
    private Cluster cluster;

    @BeforeClass
    void start() {
        machines = ClusterOfTwo.start();
        cluster = Cluster.open(machines.url());
    }

    @AfterClass(alwaysRun = true)
    void stop() {
        if (cluster != null) {
            cluster.close();
        }
        if (machines != null) {
            machines.close();
        }
    }

    @Test
    public void chartsAreThoseOfTablesAtHand() {
        int compared = 0;
        int refused = 0;
        for (long seed = 300_000; compared < PLANS; seed++) {
            RandomPlan random = RandomPlan.of(seed, Within.SHEET);
            Optional<PlainChart> here = over(random);
            try (Database database = Database.open(cluster.session(), random.tables().values().stream().map(DatabaseTable::of).toList(), random.settings(), true)) {
                PlainChart there = random.plan().over(database);
                assertThat(here).as("%s: what can't be drawn here", random.plan().name()).isPresent();
                SameCharts.check(random.plan().name(), here.get(), there);
                compared++;
            } catch (BadInput unsaid) {
                boolean said = !unsaid.getMessage().contains("can't be said in the dialect spark");
                assertThat(said && here.isPresent()).as("%s: %s", random.plan().name(), unsaid.getMessage()).isFalse();
                refused += said ? 0 : 1;
            }
        }
        assertThat(refused).isLessThan(compared / 2);
    }

    private static Optional<PlainChart> over(RandomPlan random) {
        try {
            return Optional.of(random.plan().over(random.executor()));
        } catch (BadInput noChart) {
            return Optional.empty();
        }
    }
}
