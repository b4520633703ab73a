package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.engine.Temporaries;
import java.io.File;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.apache.poi.util.DefaultTempFileCreationStrategy;
import org.apache.poi.util.TempFileCreationStrategy;

/** The files that rows wait in while a workbook is made: gone when it is, whatever happens. Used by one thread. */
final class RowFiles implements TempFileCreationStrategy, AutoCloseable {
    private final List<Path> made = new ArrayList<>();

    @Override
    public File createTempFile(String prefix, String suffix) throws IOException {
        made.add(Temporaries.make());
        return made.get(made.size() - 1).toFile();
    }

    @Override
    public File createTempDirectory(String prefix) throws IOException {
        return new DefaultTempFileCreationStrategy().createTempDirectory(prefix);
    }

    @Override
    public void close() {
        made.forEach(Temporaries::remove);
    }
}
