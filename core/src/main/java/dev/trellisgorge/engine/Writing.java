package dev.trellisgorge.engine;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;

/** Writes files whole or not at all: to a temporary file beside the target, then moved into place. Thread-safe. */
public final class Writing {
    private Writing() {
    }

    /** What goes into the file. */
    public interface Content {
        void writeTo(OutputStream out) throws IOException;
    }

    /**
     * @return {@code file}
     * @throws BadInput where the folder is missing or can't be written; the target is then as it was
     */
    public static Path to(Path file, Content content) {
        Path folder = file.toAbsolutePath().getParent();
        if (folder == null || Files.isDirectory(file)) {
            throw cannot(file, "it is a folder; name a file");
        }
        if (!Files.isDirectory(folder)) {
            throw cannot(file, "there is no folder '" + folder + "'");
        }
        Path temporary = folder.resolve("." + file.getFileName() + "." + ProcessHandle.current().pid() + ".part");
        try {
            try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(temporary))) {
                content.writeTo(out);
            }
            Files.move(temporary, file, StandardCopyOption.REPLACE_EXISTING);
            return file;
        } catch (IOException e) {
            throw cannot(file, reason(e));
        } finally {
            deleteQuietly(temporary);
        }
    }

    /** The words of an input-output error, without the path that they usually repeat. */
    public static String reason(IOException e) {
        if (e instanceof java.nio.file.AccessDeniedException) {
            return "permission denied";
        }
        if (e instanceof java.nio.file.NoSuchFileException) {
            return "there is no such file";
        }
        return e.getMessage() == null ? e.getClass().getSimpleName() : e.getMessage();
    }

    private static BadInput cannot(Path file, String why) {
        return new BadInput(Place.inFile(file.toString()), "can't write: " + why);
    }

    private static void deleteQuietly(Path file) {
        try {
            Files.deleteIfExists(file);
        } catch (IOException stays) {
            // the write's own error, if any, says more
        }
    }
}
