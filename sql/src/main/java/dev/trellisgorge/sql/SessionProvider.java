package dev.trellisgorge.sql;

import dev.trellisgorge.tables.Login;
import java.util.ServiceLoader;

/** Opens sessions that no JDBC driver does. Found on the class path as a service, see {@link ServiceLoader}. */
public interface SessionProvider {

    /** Whether it is one for a URL. */
    boolean takes(String url);

    /** @throws dev.trellisgorge.problem.BadInput where nobody answers, or lets the user in */
    Session open(Login login);
}
