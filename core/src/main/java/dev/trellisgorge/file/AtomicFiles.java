package dev.trellisgorge.file;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.PosixFileAttributeView;
import java.nio.file.attribute.PosixFileAttributes;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Writes files whole or not at all: each to a temporary file beside the target, which then takes its place in one step, so that
 * whoever reads the target finds the old file or the new one. A symbolic link stays one, and what it points to is replaced; a
 * file that is replaced keeps its owner and permissions. Thread-safe: of several that write one target, the last is what stays.
 */
public final class AtomicFiles {
    private static final int MOST_LINKS = 40;

    private AtomicFiles() {
    }

    /** What goes into the file. */
    public interface Content {
        void writeTo(OutputStream out) throws IOException;
    }

    /**
     * @return {@code file}
     * @throws BadInput where the folder is missing or can't be written, or the content can't be made; the target is then as it was
     */
    public static Path to(Path file, Content content) {
        return all(Map.of(file, content)).get(0);
    }

    /**
     * Writes several files: all of them, or none.
     *
     * @return the files, in the order of the map
     * @throws BadInput as {@link #to} does, and where two of them are one file
     */
    public static List<Path> all(Map<Path, Content> contents) {
        Map<Path, Path> begun = new LinkedHashMap<>();
        Map<Path, Path> namedOf = new LinkedHashMap<>();
        try {
            for (Path file : contents.keySet()) {
                Path before = namedOf.putIfAbsent(target(file), file);
                if (before != null) {
                    throw cannot(file, "it is the same file as '" + before + "', and two results would go to it");
                }
            }
            namedOf.forEach((target, file) -> begun.put(target, begun(target, file, contents.get(file))));
            namedOf.forEach((target, file) -> moved(begun.get(target), target, file));
            return List.copyOf(contents.keySet());
        } finally {
            begun.values().forEach(Temporaries::remove);
        }
    }

    /** The file that is to be replaced: what the name points to, where it is a link. */
    private static Path target(Path file) {
        try {
            Path target = file.toAbsolutePath();
            for (int i = 0; Files.isSymbolicLink(target); i++) {
                if (i == MOST_LINKS) {
                    throw cannot(file, "its symbolic links go round in a circle");
                }
                target = target.resolveSibling(Files.readSymbolicLink(target));
            }
            Path folder = target.getParent();
            if (folder == null || Files.isDirectory(target)) {
                throw cannot(file, "it is a folder; name a file");
            }
            if (!Files.isDirectory(folder)) {
                throw cannot(file, "there is no folder '" + folder + "'");
            }
            refuseUnusable(target);
            if (Files.exists(target) && !Files.isRegularFile(target)) {
                throw cannot(file, "it is a device or a pipe; name a file");
            }
            if (Files.exists(target) && !Files.isWritable(target)) {
                throw cannot(file, "permission denied");
            }
            return folder.toRealPath().resolve(target.getFileName());
        } catch (IOException e) {
            throw cannot(file, reason(e));
        }
    }

    /** A name that the system takes for no file, as it is too long, is found before anything is written. */
    private static void refuseUnusable(Path target) throws IOException {
        try {
            Files.readAttributes(target, BasicFileAttributes.class);
        } catch (NoSuchFileException e) {
            // it is to be made
        }
    }

    private static Path begun(Path target, Path file, Content content) {
        Path temporary = null;
        boolean whole = false;
        try {
            temporary = Temporaries.in(target.getParent());
            keepOwner(target, temporary);
            try (FileChannel channel = FileChannel.open(temporary, StandardOpenOption.WRITE)) {
                lock(channel);
                OutputStream out = new BufferedOutputStream(Channels.newOutputStream(channel));
                content.writeTo(out);
                out.flush();
            }
            whole = true;
            return temporary;
        } catch (IOException e) {
            throw cannot(file, reason(e));
        } finally {
            if (!whole && temporary != null) {
                Temporaries.remove(temporary);
            }
        }
    }

    /** So that whoever clears leftovers sees that the file is in use. */
    private static void lock(FileChannel channel) {
        try {
            channel.tryLock();
        } catch (IOException noLocks) {
            // not every file system has them; the process is known by the file's name too
        }
    }

    /** As far as the system lets this user. */
    private static void keepOwner(Path target, Path temporary) throws IOException {
        PosixFileAttributeView view = Files.getFileAttributeView(temporary, PosixFileAttributeView.class);
        if (view == null || !Files.exists(target)) {
            return;
        }
        PosixFileAttributes kept = Files.readAttributes(target, PosixFileAttributes.class);
        try {
            view.setOwner(kept.owner());
            view.setGroup(kept.group());
        } catch (IOException notAllowed) {
            // the new file is then this user's, as one that is made anew is
        }
        view.setPermissions(kept.permissions());
    }

    private static void moved(Path temporary, Path target, Path file) {
        try {
            Files.move(temporary, target, StandardCopyOption.ATOMIC_MOVE);
        } catch (IOException e) {
            throw cannot(file, reason(e));
        }
    }

    /** The words of an input-output error, or of the one behind it, without the path that they usually repeat. */
    public static String reason(IOException e) {
        if (e instanceof java.nio.file.AccessDeniedException) {
            return "permission denied";
        }
        if (e instanceof NoSuchFileException) {
            return "there is no such file";
        }
        if (e instanceof java.nio.file.FileSystemException system && system.getReason() != null) {
            return system.getReason();
        }
        if (e.getCause() instanceof IOException cause) {
            return reason(cause);
        }
        return e.getMessage() == null ? e.getClass().getSimpleName() : e.getMessage();
    }

    private static BadInput cannot(Path file, String why) {
        return new BadInput(Place.inFile(file.toString()), ProblemKind.NOT_WRITABLE, "can't write: " + why);
    }
}
