package dev.trellisgorge.engine.workbook;

import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Columns;
import dev.trellisgorge.pattern.Labels;
import dev.trellisgorge.engine.Engines;
import dev.trellisgorge.engine.Options;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import java.io.OutputStream;
import java.util.List;
import java.util.stream.IntStream;
import org.testng.annotations.Test;

/** What a sheet of the format takes, and one more. */
public class SheetBoundsTest {

    private static Table rows(int count) {
        return Table.of("t", Column.numbers("v", new double[count]));
    }

    private static Table columns(int count) {
        return Table.of("t", IntStream.range(0, count).mapToObj(i -> Column.numbers("c" + i, 1)).toArray(Column[]::new));
    }

    @Test
    public void rowsAndColumnsOfTheFormatFit() {
        assertThatCode(() -> SheetBounds.refuseTooLarge(rows(1_048_575))).doesNotThrowAnyException();
        assertThatCode(() -> SheetBounds.refuseTooLarge(columns(16_384))).doesNotThrowAnyException();
        assertThatThrownBy(() -> SheetBounds.refuseTooLarge(rows(1_048_576))).isInstanceOf(BadInput.class).hasMessageContaining("1048576 rows and 1 columns don't fit");
        assertThatThrownBy(() -> SheetBounds.refuseTooLarge(columns(16_385))).isInstanceOf(BadInput.class).hasMessageContaining("1 rows and 16385 columns don't fit");
    }

    /** One by one, the widths of so many columns took minutes. */
    @Test(timeOut = 60_000)
    public void wideTableIsWritten() {
        Column[] all = IntStream.range(0, 8_000).mapToObj(i -> i == 0 ? Column.texts("n", "a") : Column.numbers("c" + i, i)).toArray(Column[]::new);
        assertThatCode(() -> Engines.draw(List.of(Page.of(Chart.of("n", Columns.of("c1")).labels(Labels.NONE).over(Table.of("wide", all), Settings.NONE))), "xlsx", Options.STANDARD, OutputStream.nullOutputStream()))
                .doesNotThrowAnyException();
    }

    @Test
    public void longNamesOfSettingsAreShortenedAndStayApart() {
        SheetNames names = new SheetNames();
        String one = names.defined("g".repeat(300));
        String other = names.defined("g".repeat(300) + "x");
        org.assertj.core.api.Assertions.assertThat(one).hasSizeLessThanOrEqualTo(255).isNotEqualToIgnoringCase(other);
        org.assertj.core.api.Assertions.assertThat(names.defined("g".repeat(300))).isEqualTo(one);
    }
}
