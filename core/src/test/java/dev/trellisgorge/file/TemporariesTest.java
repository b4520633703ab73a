package dev.trellisgorge.file;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.testng.annotations.Test;

public class TemporariesTest {

    @Test
    public void folderIsGoneWithWhatIsInIt() throws IOException {
        Path folder = Temporaries.placeOfFolder();
        assertThat(folder).doesNotExist();
        assertThat(folder.getParent()).isEqualTo(Temporaries.folder());
        Temporaries.remove(folder);
        Files.writeString(Files.createDirectory(folder).resolve("spilled"), "rows");
        Temporaries.remove(folder);
        assertThat(folder).doesNotExist();
    }

    @Test
    public void whatIsInALinkedFolderStays() throws IOException {
        Path kept = Files.createTempDirectory("kept");
        Files.writeString(kept.resolve("own"), "stays");
        Path link = Files.createSymbolicLink(Temporaries.placeOfFolder(), kept);
        Temporaries.remove(link);
        assertThat(link).doesNotExist();
        assertThat(kept.resolve("own")).hasContent("stays");
        Temporaries.remove(kept);
    }
}
