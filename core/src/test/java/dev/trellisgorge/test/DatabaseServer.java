package dev.trellisgorge.test;

import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.testng.SkipException;

/** A PostgreSQL server of the tests' own, where one is installed: a new cluster in a folder, which goes with it. */
public final class DatabaseServer implements AutoCloseable {
    public static final String USER = "gorge";
    public static final String PASSWORD = "weir";
    /** Who it runs as where the tests run as the superuser, as it refuses to run as one. */
    private static final String UNPRIVILEGED = "postgres";
    private static final Path PACKAGED = Path.of("/usr/lib/postgresql");

    private final Folder folder = new Folder();
    private final Path programs;
    private final int port;
    private boolean running = true;

    private DatabaseServer(Path programs) throws IOException {
        this.programs = programs;
        try (ServerSocket free = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            this.port = free.getLocalPort();
        }
    }

    public static boolean isInstalled() {
        return programs().isPresent();
    }

    /** Skips the test where there is no such server; but a continuous build must have one. */
    public static DatabaseServer start() {
        Optional<Path> programs = programs();
        if (programs.isEmpty() && System.getenv("CI") != null) {
            throw new AssertionError("a continuous build must have a PostgreSQL server (initdb, pg_ctl)");
        }
        try {
            DatabaseServer server = new DatabaseServer(programs.orElseThrow(() -> new SkipException("needs a PostgreSQL server (initdb, pg_ctl)")));
            server.make();
            return server;
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    private static Optional<Path> programs() {
        List<Path> folders = new ArrayList<>();
        Stream.of(System.getenv("PATH").split(java.io.File.pathSeparator)).map(Path::of).forEach(folders::add);
        if (Files.isDirectory(PACKAGED)) {
            try (Stream<Path> versions = Files.list(PACKAGED)) {
                versions.sorted(Comparator.reverseOrder()).map(version -> version.resolve("bin")).forEach(folders::add);
            } catch (IOException e) {
                throw new AssertionError(e);
            }
        }
        return folders.stream().filter(bin -> Files.isExecutable(bin.resolve("initdb")) && Files.isExecutable(bin.resolve("pg_ctl"))).findFirst();
    }

    private void make() throws IOException {
        Path password = folder.file("password", PASSWORD + "\n");
        if (isSuperuser()) {
            run(List.of("chown", "-R", UNPRIVILEGED, folder.path().toString()));
        }
        String data = folder.path("data").toString();
        serving(List.of(programs.resolve("initdb").toString(), "-D", data, "-U", USER, "--pwfile", password.toString(), "-A", "scram-sha-256", "-E", "UTF8",
                "--no-locale", "--no-sync"));
        serving(List.of(programs.resolve("pg_ctl").toString(), "-D", data, "-w", "-l", folder.path("log").toString(), "-o",
                "-p " + port + " -c listen_addresses=127.0.0.1 -c unix_socket_directories='' -c fsync=off", "start"));
    }

    private static boolean isSuperuser() {
        return "root".equals(System.getProperty("user.name"));
    }

    private void serving(List<String> command) throws IOException {
        List<String> whole = new ArrayList<>(isSuperuser() ? List.of("runuser", "-u", UNPRIVILEGED, "--") : List.of());
        whole.addAll(command);
        run(whole);
    }

    private void run(List<String> command) throws IOException {
        Path said = folder.path("said");
        Process process = new ProcessBuilder(command).directory(folder.path().toFile()).redirectErrorStream(true).redirectOutput(said.toFile()).start();
        try {
            if (!process.waitFor(60, TimeUnit.SECONDS) || process.exitValue() != 0) {
                throw new AssertionError(String.join(" ", command) + "\n" + Files.readString(said));
            }
        } catch (InterruptedException e) {
            throw new AssertionError(e);
        }
    }

    public String url() {
        return "jdbc:postgresql://127.0.0.1:" + port + "/postgres";
    }

    /** Ends it at once, as a machine that fails does. */
    public void kill() {
        try {
            serving(List.of(programs.resolve("pg_ctl").toString(), "-D", folder.path("data").toString(), "-m", "immediate", "stop"));
            running = false;
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    @Override
    public void close() {
        try {
            if (running) {
                kill();
            }
        } finally {
            folder.close();
        }
    }
}
