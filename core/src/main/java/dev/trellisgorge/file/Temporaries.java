package dev.trellisgorge.file;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.FileAttribute;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ThreadLocalRandom;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Files and folders that stand for a while only. Each is made new, by one call alone, and is gone when the process ends, also
 * where it is interrupted; what a killed one leaves is cleared away when the next one makes a file in the same place. Thread-safe.
 */
public final class Temporaries {
    /** What messages call the folder. */
    public static final String NAMED = "the folder for temporary files (java.io.tmpdir)";
    private static final Pattern NAME = Pattern.compile("\\.gorge-(\\d{1,18})-[0-9a-f]{16}");
    private static final Set<Path> STANDING = ConcurrentHashMap.newKeySet();
    private static final int MOST_REMEMBERED = 1_000;
    private static final Set<Path> CLEARED = new HashSet<>();

    static {
        Runtime.getRuntime().addShutdownHook(new Thread(Temporaries::clear, "gorge: temporary files"));
    }

    private Temporaries() {
    }

    /** The system's folder for such files. */
    public static Path folder() {
        return Path.of(System.getProperty("java.io.tmpdir"));
    }

    /**
     * A new empty file in the system's folder for them, that other users can't read.
     *
     * @throws IOException where there is no such folder, it can't be written or has no room
     */
    public static Path make() throws IOException {
        boolean posix = folder().getFileSystem().supportedFileAttributeViews().contains("posix");
        return made(folder(), posix ? new FileAttribute<?>[] {PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------"))} : new FileAttribute<?>[0]);
    }

    /**
     * A place in the system's folder for a folder that somebody else makes, with files in it and no folders. Nothing is there yet.
     *
     * @throws IOException where the system's folder is not there
     */
    public static Path placeOfFolder() throws IOException {
        clearLeftovers(folder().toRealPath());
        Path place = named(folder());
        STANDING.add(place);
        return place;
    }

    private static Path named(Path folder) {
        return folder.resolve(".gorge-" + ProcessHandle.current().pid() + "-" + HexFormat.of().toHexDigits(ThreadLocalRandom.current().nextLong()));
    }

    /** A new empty file in a folder, as this user makes files there. */
    static Path in(Path folder) throws IOException {
        return made(folder);
    }

    private static Path made(Path folder, FileAttribute<?>... attributes) throws IOException {
        clearLeftovers(folder.toRealPath());
        while (true) {
            Path file = named(folder);
            STANDING.add(file);
            try {
                return Files.createFile(file, attributes);
            } catch (java.nio.file.FileAlreadyExistsException taken) {
                STANDING.remove(file);
            } catch (IOException e) {
                STANDING.remove(file);
                throw e;
            }
        }
    }

    /** Removes one, where it still stands. */
    public static void remove(Path file) {
        try {
            removeWhole(file);
        } catch (IOException stays) {
            // what made it useless says more
        }
        STANDING.remove(file);
    }

    private static void removeWhole(Path place) throws IOException {
        if (Files.isDirectory(place, LinkOption.NOFOLLOW_LINKS)) {
            try (DirectoryStream<Path> files = Files.newDirectoryStream(place)) {
                for (Path file : files) {
                    Files.deleteIfExists(file);
                }
            }
        }
        Files.deleteIfExists(place);
    }

    /** Removes all that this process has made; for a program that ends without the runtime's own end. */
    public static void clear() {
        STANDING.forEach(Temporaries::remove);
    }

    /** What processes that are no more have left in a folder. Looked at once a folder. */
    private static synchronized void clearLeftovers(Path folder) throws IOException {
        if (!CLEARED.add(folder)) {
            return;
        }
        if (CLEARED.size() > MOST_REMEMBERED) {
            CLEARED.clear();
        }
        try (DirectoryStream<Path> files = Files.newDirectoryStream(folder, file -> NAME.matcher(file.getFileName().toString()).matches())) {
            for (Path file : files) {
                Matcher name = NAME.matcher(file.getFileName().toString());
                boolean left = name.matches() && ProcessHandle.of(Long.parseLong(name.group(1))).isEmpty();
                if (left && Files.isRegularFile(file, LinkOption.NOFOLLOW_LINKS)) {
                    removeUnused(file);
                } else if (left && Files.isDirectory(file, LinkOption.NOFOLLOW_LINKS)) {
                    remove(file);
                }
            }
        } catch (java.nio.file.DirectoryIteratorException | java.nio.file.AccessDeniedException unread) {
            // a folder that may be written to and not read keeps what is in it
        }
    }

    /** A process of that number may live where this one can't see it, as on another machine: it holds the file then. */
    private static void removeUnused(Path file) {
        try (FileChannel channel = FileChannel.open(file, StandardOpenOption.WRITE); FileLock lock = channel.tryLock()) {
            if (lock != null) {
                Files.delete(file);
            }
        } catch (IOException stays) {
            // another process clears it
        }
    }
}
