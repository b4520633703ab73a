package dev.trellisgorge.tables;

import java.util.Objects;
import java.util.Optional;

/**
 * How a database is reached.
 *
 * @param url      {@code jdbc:…}
 * @param user     where the database asks for one
 * @param password the same
 */
public record Login(String url, Optional<String> user, Optional<String> password) {
    public Login {
        Objects.requireNonNull(url, "url");
        Objects.requireNonNull(user, "user");
        Objects.requireNonNull(password, "password");
    }

    public static Login to(String url) {
        return new Login(url, Optional.empty(), Optional.empty());
    }

    /** The URL without its parameters and what stands before a host, any of which may hold a password. */
    @Override
    public String toString() {
        return url.replaceFirst("[?;].*", "").replaceFirst("//[^/@]*@", "//");
    }
}
