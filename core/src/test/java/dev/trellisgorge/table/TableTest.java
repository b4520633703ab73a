package dev.trellisgorge.table;

import static dev.trellisgorge.test.Steps.taken;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.shape.Slice;
import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
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
        Table slice = taken(new Slice("level", "0.00"), READINGS);
        assertThat(slice.rowCount()).isEqualTo(1);
        assertThat(slice.column("station").written(0)).isEqualTo("Fern Pool");
        assertThat(slice.whole()).isSameAs(READINGS);
        assertThat(slice.wholeRow(0)).isEqualTo(2);
        assertThat(taken(new Slice("station", "Fern Pool"), slice).wholeRow(0)).isEqualTo(2);
        assertThat(slice.rowPlace(0)).hasToString("table 'readings', row 3");
    }

    @Test
    public void sliceWithNoRowNamesTheNearestValue() {
        assertThatThrownBy(() -> taken(new Slice("station", "Fern Pol"), READINGS)).isInstanceOf(BadInput.class)
                .hasMessage("table 'readings', column 'station': no row holds 'Fern Pol'. Did you mean 'Fern Pool'?");
    }

    @Test
    public void unknownColumnNamesTheNearest() {
        assertThatThrownBy(() -> READINGS.column("levle")).isInstanceOf(BadInput.class)
                .hasMessage("table 'readings': there is no column 'levle'. Did you mean 'level'?");
    }

    @Test
    public void rowsAndRecordsMakeTheSameTableAndComeBackAsArrays() {
        record Reading(String station, Double level, LocalDate day) {
        }
        List<Reading> readings = List.of(new Reading("Weir", 1.5, MARCH), new Reading(null, null, null));
        Map<Field, Function<? super Reading, ?>> fields = new LinkedHashMap<>();
        fields.put(Field.of("station", Kind.TEXT), Reading::station);
        fields.put(Field.of("level", Kind.NUMBER), Reading::level);
        fields.put(Field.of("day", Kind.DATE), Reading::day);
        Table records = Table.of("readings", readings, fields);
        Table rows = Table.named("readings").column("station", Kind.TEXT).column("level", Kind.NUMBER).column("day", Kind.DATE)
                .row("Weir", 1.5, MARCH).row(null, null, null).build();
        for (Table table : List.of(records, rows)) {
            assertThat(table.column("station").toTexts()).containsExactly("Weir", null);
            assertThat(table.column("level").toNumbers()).containsExactly(1.5, Double.NaN);
            assertThat(table.column("day").toDates()).containsExactly(MARCH, null);
            assertThat(table.schema().fields()).extracting(Field::toString).containsExactly("station (text)", "level (number)", "day (date)");
        }
    }

    @Test
    public void rowsThatDoNotFitTheColumnsAreRefusedWithTheirPlace() {
        Table.Builder builder = Table.named("readings").column("level", Kind.NUMBER);
        assertThatThrownBy(() -> builder.row("high")).hasMessage("row 1, column 'level': 'high' is not a number");
        assertThatThrownBy(() -> builder.row(1, 2)).hasMessage("row 1 has 2 cells, and there are 1 columns");
        assertThatThrownBy(() -> builder.row(1).column("late", Kind.TEXT)).hasMessage("columns are named before the first row");
        assertThatThrownBy(() -> Table.named(null)).isInstanceOf(NullPointerException.class).hasMessage("name");
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
