package dev.trellisgorge.cluster;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Where a cluster's master listens, and what is asked of it. Immutable and thread-safe.
 *
 * @param host     of the master
 * @param port     of the master
 * @param settings of the cluster, by their names there
 */
record ClusterAddress(String host, int port, Map<String, String> settings) {
    static final String SCHEME = "spark://";
    static final String CATALOGUE = "spark.sql.catalogImplementation";
    static final String METASTORE = "spark.hadoop.hive.metastore.uris";
    /** What a URL may say: nothing that loads or runs code, or reads files. */
    static final List<String> SETTINGS = List.of("spark.executor.memory", "spark.executor.cores", "spark.cores.max", "spark.driver.host", "spark.driver.bindAddress", "spark.sql.shuffle.partitions", "spark.sql.files.maxPartitionBytes", CATALOGUE, METASTORE);
    /** What a program may have set in its place. */
    private static final String OWN_METASTORE = "spark.hadoop.javax.jdo.option.ConnectionURL";
    private static final Pattern URL = Pattern.compile("spark://([^/:?]+|\\[[0-9a-fA-F:]+\\]):(\\d{1,5})(?:\\?(.*))?");
    /** Milliseconds. */
    private static final int PATIENCE = 5_000;

    /** @throws BadInput where it is no such URL, or asks for a setting that a URL may not have */
    static ClusterAddress of(String url) {
        Matcher parts = URL.matcher(url);
        if (!parts.matches() || Integer.parseInt(parts.group(2)) > 0xffff) {
            throw new BadInput(Place.of(""), ProblemKind.INVALID, "'" + url.replaceFirst("[?].*", "") + "' names no cluster; write spark://HOST:PORT");
        }
        Map<String, String> settings = new LinkedHashMap<>();
        for (String setting : parts.group(3) == null ? new String[0] : parts.group(3).split("&")) {
            String[] sides = setting.split("=", 2);
            if (!SETTINGS.contains(sides[0]) || sides.length < 2) {
                throw new BadInput(Place.of(""), ProblemKind.UNKNOWN_NAME, "the URL of a cluster has no setting '" + sides[0] + "'. " + Nearest.hint(sides[0], SETTINGS));
            }
            settings.put(sides[0], sides[1]);
        }
        refuseNewCatalogue(settings);
        return new ClusterAddress(parts.group(1), Integer.parseInt(parts.group(2)), settings);
    }

    /** The libraries would make a new one in the folder where the user stands. */
    private static void refuseNewCatalogue(Map<String, String> settings) {
        if ("hive".equals(settings.get(CATALOGUE)) && !settings.containsKey(METASTORE) && System.getProperty(OWN_METASTORE) == null) {
            throw new BadInput(Place.of(""), ProblemKind.MISSING, "the URL of a cluster asks for a catalogue that lasts, and does not say where it is; add '&" + METASTORE + "=thrift://HOST:PORT'");
        }
    }

    /** The libraries would ask for a minute. @throws BadInput where nobody listens */
    void refuseSilent() {
        try (Socket socket = new Socket()) {
            socket.connect(new InetSocketAddress(host, port), PATIENCE);
        } catch (IOException | IllegalArgumentException e) {
            throw new BadInput(Place.of(""), ProblemKind.CONNECTION, "the connection to '" + this + "' failed: nobody answers there");
        }
    }

    @Override
    public String toString() {
        return SCHEME + host + ":" + port;
    }
}
