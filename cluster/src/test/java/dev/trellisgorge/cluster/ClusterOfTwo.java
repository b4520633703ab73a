package dev.trellisgorge.cluster;

import dev.trellisgorge.test.Folder;
import java.io.File;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.testng.SkipException;

/** A master and two workers on this machine, each a process of its own, from the libraries on the class path. */
final class ClusterOfTwo implements AutoCloseable {
    /** From here on a runtime has no more what the libraries ask it for. */
    private static final int TOO_NEW = 24;
    private static final String HERE = "127.0.0.1";
    private static final int PATIENCE = 60_000;
    /** For processes that live shortly: a quick compiler, and one thread to clear up. */
    private static final List<String> SHORT_LIVED = List.of("-XX:TieredStopAtLevel=1", "-XX:+UseSerialGC", "-XX:-UsePerfData");
    private static final String OF_EXECUTORS = "spark.executor.extraJavaOptions";

    private final Folder folder = new Folder();
    private final int port = freePort();
    private final List<Process> processes = new ArrayList<>();

    private ClusterOfTwo() {
    }

    /** Skips the test where the runtime is too new. */
    static ClusterOfTwo start() {
        if (Runtime.version().feature() >= TOO_NEW) {
            throw new SkipException("the cluster's libraries run on Java 17 to " + (TOO_NEW - 1));
        }
        ClusterOfTwo cluster = new ClusterOfTwo();
        System.setProperty(OF_EXECUTORS, String.join(" ", SHORT_LIVED));
        try {
            Files.createDirectory(cluster.folder.path("jars"));
            for (String jar : classPath().split(File.pathSeparator)) {
                if (jar.endsWith(".jar")) {
                    Files.createSymbolicLink(cluster.folder.path("jars").resolve(Path.of(jar).getFileName()), Path.of(jar).toAbsolutePath());
                }
            }
            cluster.run("master", "org.apache.spark.deploy.master.Master", "--host", HERE, "--port", String.valueOf(cluster.port), "--webui-port", String.valueOf(freePort()));
            cluster.awaitMaster();
            for (String worker : List.of("first", "second")) {
                cluster.run(worker, "org.apache.spark.deploy.worker.Worker", "--host", HERE, "--webui-port", String.valueOf(freePort()), "--cores", "1", "--memory", "1g", "-d", cluster.folder.path(worker + " work").toString(), cluster.url(""));
            }
            return cluster;
        } catch (IOException e) {
            cluster.close();
            throw new AssertionError(e);
        }
    }

    private static String classPath() {
        return System.getProperty("surefire.test.class.path", System.getProperty("java.class.path"));
    }

    static int freePort() {
        try (ServerSocket free = new ServerSocket(0, 1, InetAddress.getByName(HERE))) {
            return free.getLocalPort();
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    private void run(String name, String main, String... options) throws IOException {
        List<String> command = new ArrayList<>(List.of(ProcessHandle.current().info().command().orElseThrow(), "-Xmx512m", "-cp", folder.path("jars") + "/*"));
        command.addAll(SHORT_LIVED);
        command.add(main);
        command.addAll(List.of(options));
        ProcessBuilder builder = new ProcessBuilder(command).redirectErrorStream(true).redirectOutput(folder.path(name + ".log").toFile());
        builder.environment().put("SPARK_HOME", folder.path().toString());
        builder.environment().put("SPARK_SCALA_VERSION", "2.13");
        builder.environment().put("SPARK_LOCAL_IP", HERE);
        processes.add(builder.start());
    }

    private void awaitMaster() throws IOException {
        long until = System.currentTimeMillis() + PATIENCE;
        while (true) {
            try (Socket socket = new Socket()) {
                socket.connect(new InetSocketAddress(HERE, port), 1_000);
                return;
            } catch (IOException e) {
                if (System.currentTimeMillis() > until || !processes.get(0).isAlive()) {
                    throw new AssertionError(Files.readString(folder.path("master.log")), e);
                }
            }
            try {
                Thread.sleep(100);
            } catch (InterruptedException e) {
                throw new AssertionError(e);
            }
        }
    }

    /** @param more settings, each behind an ampersand */
    String url(String more) {
        return "spark://" + HERE + ":" + port + (more.isEmpty() ? "" : "?" + more);
    }

    /** As a test asks for it: little memory, and a driver on this machine. */
    String url() {
        return url("spark.executor.memory=512m&spark.driver.host=" + HERE + "&spark.driver.bindAddress=" + HERE + "&spark.sql.shuffle.partitions=2");
    }

    /** Ends master, workers and what runs on them at once, as machines that fail do. */
    void killAll() {
        processes.forEach(ClusterOfTwo::kill);
    }

    private static void kill(Process process) {
        Stream.concat(process.descendants(), Stream.of(process.toHandle())).toList().forEach(ProcessHandle::destroyForcibly);
        try {
            process.waitFor();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    @Override
    public void close() {
        System.clearProperty(OF_EXECUTORS);
        killAll();
        folder.close();
    }
}
