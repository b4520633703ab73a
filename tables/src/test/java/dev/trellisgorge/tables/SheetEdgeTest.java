package dev.trellisgorge.tables;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Bound;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.test.TestSize;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.zip.Deflater;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/** What a sheet that is read may hold and unpack to: as much as the bound is taken, and one more is refused. */
@Test(groups = TestSize.SLOW)
public class SheetEdgeTest {
    private static final String BEFORE = "<?xml version=\"1.0\" encoding=\"UTF-8\"?><office:document-content xmlns:office=\"urn:oasis:names:tc:opendocument:xmlns:office:1.0\""
            + " xmlns:table=\"urn:oasis:names:tc:opendocument:xmlns:table:1.0\" xmlns:text=\"urn:oasis:names:tc:opendocument:xmlns:text:1.0\"><office:body><office:spreadsheet>";
    private static final String AFTER = "</office:spreadsheet></office:body></office:document-content>";
    private static final String TABLE = "<table:table table:name=\"s\"><table:table-row><table:table-cell office:value-type=\"string\"><text:p>n</text:p></table:table-cell></table:table-row>"
            + "<table:table-row table:number-rows-repeated=\"%d\"><table:table-cell office:value-type=\"float\" office:value=\"3\" table:number-columns-repeated=\"%d\"/></table:table-row></table:table>";
    private static final byte[] SPACES = new byte[1 << 20];

    static {
        Arrays.fill(SPACES, (byte) ' ');
    }

    private Path file;

    @BeforeMethod
    public void make() throws IOException {
        file = Files.createTempFile("edge", ".ods");
    }

    @AfterMethod
    public void clean() throws IOException {
        Files.delete(file);
    }

    /** A sheet of one number repeated, in a file that unpacks to so many bytes, or to what it takes where that is 0. */
    private Table read(long bytes, long rows, int columns, Limits limits) throws IOException {
        byte[] end = (TABLE.formatted(rows, columns) + AFTER).getBytes(StandardCharsets.UTF_8);
        try (OutputStream out = Files.newOutputStream(file); ZipOutputStream zip = new ZipOutputStream(out)) {
            zip.setLevel(Deflater.BEST_SPEED);
            zip.putNextEntry(new ZipEntry("content.xml"));
            zip.write(BEFORE.getBytes(StandardCharsets.UTF_8));
            for (long left = bytes - BEFORE.length() - end.length; left > 0; left -= SPACES.length) {
                zip.write(SPACES, 0, (int) Math.min(left, SPACES.length));
            }
            zip.write(end);
        }
        return TableFile.read("t", file, Layout.FOUND.within(limits));
    }

    @Test(groups = "nightly")
    public void fileThatUnpacksToAsMuchAsIsReadIsTakenAndOneByteMoreIsRefused() throws IOException {
        long most = (long) Bound.UNPACKED_BYTES.most();
        assertThat(read(most, 2, 1, Limits.STANDARD).rowCount()).isEqualTo(2);
        assertThatThrownBy(() -> read(most + 1, 2, 1, Limits.STANDARD)).isInstanceOf(BadInput.class).hasMessageContaining("it unpacks to more than " + most + " bytes");
    }

    /** As many cells as the bound would take gigabytes once they are a table, so the edge itself is that of a lower limit. */
    @Test
    public void sheetOfAsManyCellsAsAreReadIsTakenAndOneMoreIsRefused() throws IOException {
        assertThat(read(0, 9, 1, new Limits(10, 5, 5)).rowCount()).isEqualTo(9);
        assertThatThrownBy(() -> read(0, 10, 1, new Limits(10, 5, 5))).isInstanceOf(BadInput.class).hasMessageContaining("more cells than the 10 that are read");
        assertThatThrownBy(() -> read(0, 10_000, 10_000, Limits.STANDARD)).isInstanceOf(BadInput.class)
                .hasMessageContaining("rows 2 to 10001: the sheet has more cells than the " + Bound.SHEET_CELLS.count() + " that are read");
    }
}
