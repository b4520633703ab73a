package dev.trellisgorge.cluster;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.sql.Session;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import org.apache.logging.log4j.Level;
import org.apache.logging.log4j.core.config.Configurator;
import org.apache.spark.SparkConf;
import org.apache.spark.sql.SparkSession;

/**
 * A cluster that stands alone, with its driver in this process. A process has one at a time: who opens the same one again shares it, and it is left with the last of
 * them. Several sessions may be open on it, for {@code Database.open(cluster.session(), …)}. Thread-safe.
 */
public final class Cluster implements AutoCloseable {
    static final String ZONE = "spark.sql.session.timeZone";
    private static final long PATIENCE = TimeUnit.SECONDS.toNanos(60);
    /** Milliseconds. */
    private static final long PAUSE = 50;

    /** The one that is open. Guarded by the class. */
    private static Optional<ClusterAddress> open = Optional.empty();
    private static int shared;

    private final SparkSession spark;
    private final String shown;
    private boolean closed;

    private Cluster(SparkSession spark, String shown) {
        this.spark = spark;
        this.shown = shown;
    }

    /**
     * By a URL, {@code spark://HOST:PORT}; behind a question mark it may hold settings of the cluster, such as {@code spark.executor.memory=512m}.
     *
     * @throws BadInput where nobody answers, no worker takes work, a setting is none that a URL may have, or another cluster is open
     */
    public static Cluster open(String url) {
        ClusterAddress address = ClusterAddress.of(url);
        address.refuseSilent();
        synchronized (Cluster.class) {
            if (open.filter(other -> !other.equals(address)).isPresent()) {
                throw new BadInput(Place.of(""), ProblemKind.CONFLICT, "the cluster '" + open.get() + "' is open" + (open.get().toString().equals(address.toString()) ? " with other settings" : "") + ", and a program has one at a time; close it before");
            }
            Cluster cluster = reach(address);
            open = Optional.of(address);
            shared++;
            cluster.awaitWorkers();
            return cluster;
        }
    }

    private static Cluster reach(ClusterAddress address) {
        Configurator.setRootLevel(Level.OFF); // what goes wrong is told by errors
        SparkConf asked = new SparkConf().setMaster(address.toString()).setAppName("gorge")
                .set("spark.ui.enabled", "false")
                .set("spark.sql.datetime.java8API.enabled", "true")
                .set("spark.sql.ansi.enabled", "true")
                .set("spark.sql.caseSensitive", "true")
                .set("spark.sql.variable.substitute", "false")
                .set("spark.sql.runSQLOnFiles", "false");
        address.settings().forEach(asked::set);
        try {
            return new Cluster(SparkSession.builder().config(asked).getOrCreate(), address.toString());
        } catch (RuntimeException e) {
            throw new BadInput(Place.of(""), ProblemKind.CONNECTION, "the connection to '" + address + "' failed: " + Said.of(e), e);
        }
    }

    /** A cluster without a worker that is free would be waited for for ever. */
    private void awaitWorkers() {
        long until = System.nanoTime() + PATIENCE;
        while (!WorkersWatch.areThere(spark.sparkContext())) {
            if (System.nanoTime() > until) {
                close();
                throw new BadInput(Place.of(""), ProblemKind.CONNECTION, "the cluster '" + shown + "' has no worker that takes the work; all may be busy, or have less memory than is asked for, which spark.executor.memory in the URL says");
            }
            try {
                Thread.sleep(PAUSE);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                close();
                throw new BadInput(Place.of(""), ProblemKind.CANCELLED, "the statement was cancelled");
            }
        }
    }

    /** Tables and statements of their own. */
    public Session session() {
        return session("UTC", () -> {
        });
    }

    /**
     * @param zone    whose days those of moments are
     * @param closing done when the session is closed
     */
    Session session(String zone, Runnable closing) {
        SparkSession own = spark.newSession();
        own.conf().set(ZONE, zone);
        return new ClusterSession(own, shown, closing);
    }

    /** Ends all that runs, where nobody else has it open. */
    @Override
    public void close() {
        synchronized (Cluster.class) {
            if (!closed && --shared == 0) {
                open = Optional.empty();
                spark.stop();
            }
            closed = true;
        }
    }
}
