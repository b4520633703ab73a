package dev.trellisgorge.cluster;

import dev.trellisgorge.sql.Session;
import dev.trellisgorge.sql.SessionProvider;
import dev.trellisgorge.tables.Login;

/** Sessions on a cluster that stands alone, {@code spark://HOST:PORT}. Thread-safe: it holds no state. */
public final class ClusterProvider implements SessionProvider {

    @Override
    public boolean takes(String url) {
        return url.startsWith(ClusterAddress.SCHEME);
    }

    @Override
    public Session open(Login login) {
        Cluster cluster = Cluster.open(login.url());
        return cluster.session(login.zoneName(), cluster::close);
    }
}
