package dev.trellisgorge.table;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.problem.BadInput;
import java.time.LocalDate;
import org.testng.annotations.Test;

public class TableTest {
    private static final LocalDate MARCH = LocalDate.of(2031, 3, 1);
    private static final Table READINGS = Table.of("readings",
            Column.texts("station", "Mill Race", null, "Fern Pool"),
            Column.numbers("level", 1.5, Double.NaN, -0.0),
            Column.dates("day", MARCH, MARCH.plusDays(1), null),
            Column.truths("open", true, null, false));

    @Test
    public void cellsOfEveryKindMayBeMissing() {
        for (Column column : READINGS.columns()) {
            int missing = column.name().equals("day") ? 2 : 1;
            assertThat(column.isPresent(missing)).as(column.name()).isFalse();
            assertThat(column.written(missing)).as(column.name()).isEmpty();
        }
        assertThat(READINGS.column("day").date(0)).contains(MARCH);
        assertThat(READINGS.column("open").written(2)).isEqualTo("false");
        assertThat(READINGS.column("level").written(2)).isEqualTo("0");
    }

    @Test
    public void arraysThatWereHandedInCanBeChangedWithoutHarm() {
        double[] values = {1, 2};
        Column column = Column.numbers("level", values);
        values[0] = 9;
        assertThat(column.number(0)).isEqualTo(1);
    }

    @Test
    public void sliceRemembersWhereItsRowsStand() {
        Table slice = READINGS.slice("level", "0.00");
        assertThat(slice.rowCount()).isEqualTo(1);
        assertThat(slice.column("station").written(0)).isEqualTo("Fern Pool");
        assertThat(slice.whole()).isSameAs(READINGS);
        assertThat(slice.wholeRow(0)).isEqualTo(2);
        assertThat(slice.slice("station", "Fern Pool").wholeRow(0)).isEqualTo(2);
        assertThat(slice.rowPlace(0)).hasToString("table 'readings', row 3");
    }

    @Test
    public void sliceWithNoRowNamesTheNearestValue() {
        assertThatThrownBy(() -> READINGS.slice("station", "Fern Pol")).isInstanceOf(BadInput.class)
                .hasMessage("table 'readings', column 'station': no row holds 'Fern Pol'. Did you mean 'Fern Pool'?");
    }

    @Test
    public void unknownColumnNamesTheNearest() {
        assertThatThrownBy(() -> READINGS.column("levle")).isInstanceOf(BadInput.class)
                .hasMessage("table 'readings': table 'readings' has no column 'levle'. Did you mean 'level'?");
    }

    @Test
    public void twoColumnsOfOneNameAreRefused() {
        assertThatThrownBy(() -> Table.of("t", Column.numbers("a", 1), Column.numbers("a", 2)))
                .isInstanceOf(BadInput.class).hasMessageContaining("two columns are named 'a'");
    }

    @Test
    public void columnsOfUnequalLengthAreRefused() {
        assertThatThrownBy(() -> Table.of("t", Column.numbers("a", 1), Column.numbers("b", 2, 3)))
                .isInstanceOf(IllegalArgumentException.class).hasMessageContaining("'b' has 2 rows");
    }
}
