package dev.trellisgorge.cli;

import static org.assertj.core.api.Assertions.assertThat;

import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/** Tables as people keep them: read by what the brief says of them, and everything that was read otherwise is reported. */
public class RawTablesTest extends AtDesk {
    private static final String FLOWS = """
            Flow at the stations;;;;
            As of 1 April 2031;;;;

            Station;Gauge;Day;MWh;Share
            Weir;007;31.01.2031;1.234,50;12,5%
            Weir;007;28.02.2031;(70,00);-
            Leat;012;31. M\u00E4rz 2031;\u20AC 80;5 %
            Total;;;1.244,50;
            """;
    private static final String BRIEF = """
            brief: 1
            data:
              flows: {file: flows.csv, header-row: 4, locale: de-DE, dates: [dd.MM.yyyy, d. MMMM yyyy], kinds: {MWh: number, Day: date}, total-row: drop}
              gauges: gauges.json
            shape:
              - join: {table: gauges, on: {Gauge: gauge}}
              - period: {of: Day, unit: month, as: month}
              - add: {flow: MWh * factor}
            charts:
              monthly: {pattern: columns, category: month, value: flow}
            """;

    @BeforeMethod
    void prepare() {
        desk.with("flows.csv", FLOWS).with("b.yaml", BRIEF)
                .with("gauges.json", "[{\"gauge\": \"007\", \"factor\": \"1,000\"}, {\"gauge\": \"012\", \"factor\": 10}, {\"gauge\": \"099\", \"factor\": 1}]");
    }

    @Test
    public void checkTellsEveryCellThatWasReadOtherwiseThanItStandsAlsoOfJoinedTables() {
        assertThat(desk.type("series", "DESK/b.yaml")).isEqualTo(new Desk.Answer(0, "month      value\n2031-01  1234500\n2031-02   -70000\n2031-03      800\n", ""));
        assertThat(desk.type("check", "DESK/b.yaml")).isEqualTo(new Desk.Answer(0, """
                monthly (3 rows)
                  holds  on 3 of 3 rows: value = flow
                  note   3 cells of 'Day' are not plainly written as dates: '31.01.2031' is read as 2031-01-31 (DESK/flows.csv:5), \
                '28.02.2031' is read as 2031-02-28 (DESK/flows.csv:6), '31. M\u00E4rz 2031' is read as 2031-03-31 (DESK/flows.csv:7)
                  note   4 cells of 'MWh' are not plainly written as numbers: '1.234,50' is read as 1234.5 (DESK/flows.csv:5), \
                '(70,00)' is read as -70 (DESK/flows.csv:6), '\u20AC 80' is read as 80 (DESK/flows.csv:7), '1.244,50' is read as 1244.5 (DESK/flows.csv:8)
                  note   3 cells of 'Share' are not plainly written as numbers: '12,5%' is read as 0.125 (DESK/flows.csv:5), \
                '-' is read as missing (DESK/flows.csv:6), '5 %' is read as 0.05 (DESK/flows.csv:7)
                  note   1 cell of 'factor' is not plainly written as a number: '1,000' is read as 1000 (DESK/gauges.json:1)
                  note   in 'gauges' and on no row here: 099
                """, ""));
    }

    @Test
    public void totalAtTheEndIsNeverCountedInSilence() {
        String told = "the last row is the sum of the rows above, and would be counted twice; drop it with 'total-row: drop', or keep it with 'total-row: keep'";
        desk.with("b.yaml", BRIEF.replace(", total-row: drop", ""));
        assertThat(desk.type("draw", "DESK/b.yaml").err()).isEqualTo("gorge: DESK/flows.csv:8, column 'month': the category is missing; every row needs one; " + told + "\n");
        desk.with("t.csv", "station,mwh\nWeir,3\nLeat,4\nTotal,7\n").with("t.yaml", """
                brief: 1
                data: {t: t.csv, u: t.csv}
                shape: [{join: {table: u, on: station, rename: {mwh: again}}}]
                charts:
                  c: {pattern: columns, category: station, value: mwh}
                """);
        for (String command : new String[] {"series", "draw"}) {
            assertThat(desk.type(command, "DESK/t.yaml").err()).isEqualTo("gorge: note: " + told + ": DESK/t.csv:4\n");
        }
        assertThat(desk.type("check", "DESK/t.yaml")).matches(answer -> answer.err().isEmpty() && answer.out().contains("  note   " + told + ": DESK/t.csv:4\n"));
        desk.with("t.yaml", "brief: 1\ndata: {t: {file: t.csv, total-row: keep}}\ncharts:\n  c: {pattern: columns, category: station, value: mwh}\n");
        assertThat(desk.type("series", "DESK/t.yaml").err()).isEmpty();
    }

    @Test
    public void totalThatIsNoFigureOfTheChartIsNotTold() {
        desk.with("t.csv", "item,kind,day,ml\nOpening,start,Mon,3\nRain,change,Mon,4\nLow,change,Mon,-1\nClosing,total,,6\n");
        for (String chart : new String[] {"pattern: waterfall, category: item, value: ml, kind: kind", "pattern: waterfall, category: item, value: ml, starts: [Opening], totals: [Closing]",
            "pattern: diverging, category: item, value: ml, slice: {day: Mon}"}) {
            desk.with("t.yaml", "brief: 1\ndata: {t: t.csv}\ncharts:\n  c: {" + chart + "}\n");
            assertThat(desk.type("series", "DESK/t.yaml").err()).as(chart).isEmpty();
            assertThat(desk.type("check", "DESK/t.yaml").out()).as(chart).contains("holds").doesNotContain("counted twice");
        }
        desk.with("t.yaml", "brief: 1\ndata: {t: t.csv}\nshape: [{total: {by: kind, sum: ml}}]\ncharts:\n  c: {pattern: diverging, category: kind, value: ml}\n");
        assertThat(desk.type("series", "DESK/t.yaml").err()).as("a bar of its own").contains("counted twice");
    }

    @Test
    public void tableMayHaveStepsOfItsOwnBeforeItIsJoined() {
        String brief = """
                brief: 1
                data:
                  stations: stations.csv
                  days: {file: days.csv, shape: [{keep: mwh > 0}, {join: {table: stations, on: station}}, {add: {share: mwh / goal}}, {total: {by: station, sum: share}}]}
                shape: [{join: {table: days, on: station}}]
                charts:
                  c: {pattern: columns, category: station, value: share}
                """;
        desk.with("stations.csv", "station,goal\nWeir,10\nLeat,5\nPool,4\n").with("days.csv", "station,mwh\nWeir,5\nLeat,2\nWeir,10\nLeat,-3\n").with("t.yaml", brief)
                .with("april.csv", "station,mwh\nPool,4\nPool,2\n");
        assertThat(desk.type("series", "DESK/t.yaml").out()).isEqualTo("station  value\nWeir       1.5\nLeat       0.4\nPool\n");
        assertThat(desk.type("check", "DESK/t.yaml").out()).contains("no row of 'days' for the station: Pool");
        assertThat(desk.type("series", "DESK/t.yaml", "--data", "days=DESK/april.csv").out()).as("next month has the same steps").contains("Pool       1.5\n");
        desk.with("t.yaml", brief.replace("mwh > 0", "mhw > 0"));
        assertThat(desk.type("series", "DESK/t.yaml")).isEqualTo(new Desk.Answer(2, "", "gorge: DESK/t.yaml:4:41: table 'days' has no column 'mhw'. Did you mean 'mwh'? "
                + "A text stands in single quotes.\n"));
        desk.with("t.yaml", brief.replace("mwh > 0", "mwh > 99"));
        assertThat(desk.type("series", "DESK/t.yaml").err()).isEqualTo("gorge: DESK/t.yaml:4:34: no row is left of the 4 before this step\n");
    }

    @Test
    public void oneOddCellAmongFiguresIsNamedAndNotTheFiguresRoundIt() {
        desk.with("t.csv", "sep=;\nstation;mwh\nWeir;1,5\nLeat;about 4\nPool;1.002,5\nMill;2,5\n");
        String start = "brief: 1\ndata: {t: t.csv}\n";
        String end = "charts:\n  c: {pattern: columns, category: station, value: mwh}\n";
        String odd = "DESK/t.csv:4, column 'mwh': 'about 4' is no number\n";
        for (String brief : new String[] {start + end, start + end.replace("mwh", "mwh, slice: {station: Weir}")}) {
            assertThat(desk.with("t.yaml", brief).type("series", "DESK/t.yaml").err()).isEqualTo("gorge: " + odd);
        }
        for (String step : new String[] {"total: {by: station, sum: mwh}", "add: {twice: mwh * 2}", "keep: mwh > 1"}) {
            assertThat(desk.with("t.yaml", start + "shape:\n  - " + step + "\n" + end).type("series", "DESK/t.yaml").err()).isEqualTo("gorge: DESK/t.yaml:4:5: " + odd);
        }
        desk.with("t.yaml", start + "shape:\n  - choose: [station, mwh]\n" + end.replace("value: mwh", "value: 1, labels: {show: mwh}"));
        assertThat(desk.type("check", "DESK/t.yaml").out()).contains("note   'mwh' is read as texts, as most of its cells are numbers and not all: 'about 4' is no number (DESK/t.csv:4)");
    }

    @Test
    public void stepThatLeavesNoRowIsToldAndOneOnTheWayIsNot() {
        desk.with("b.yaml", BRIEF.replace("charts:", "  - keep: flow > 1e9\ncharts:"));
        assertThat(desk.type("check", "DESK/b.yaml").err()).isEqualTo("gorge: DESK/b.yaml:9:5: no row is left of the 3 before this step\n");
        desk.with("b.yaml", BRIEF.replace("charts:", "  - keep: flow > 1e9\n  - total: {count: flow}\n  - add: {month: \"'none'\"}\ncharts:"));
        assertThat(desk.type("series", "DESK/b.yaml").out()).isEqualTo("month  value\nnone       0\n");
    }

    @Test
    public void briefInJsonMayNameItsSchema() {
        desk.with("b.json", "{\"$schema\": \"brief.schema.json\", \"brief\": 1, \"data\": {\"t\": \"t.csv\"}, \"charts\": {\"c\": {\"pattern\": \"columns\", \"category\": \"a\", \"value\": \"v\"}}}")
                .with("t.csv", "a,v\nx,1\n");
        assertThat(desk.type("series", "DESK/b.json")).isEqualTo(new Desk.Answer(0, "a  value\nx      1\n", ""));
    }

    @Test
    public void namesWithPointsAreColumnsInExpressions() {
        desk.with("t.json", "{\"items\": [{\"station\": \"Weir\", \"site\": {\"river\": \"Wend\", \"at\": {\"km\": 3}}, \"mwh\": 5}, {\"station\": \"Leat\", \"site\": {\"river\": \"Arle\", \"at\": {\"km\": 9}}, \"mwh\": 7.5}]}");
        for (String condition : new String[] {"site.river = 'Arle'", "\"site.river\" = 'Arle'", "site.at.km > 5", "\"site.at.km\" > 5"}) {
            desk.with("b.yaml", "brief: 1\ndata: {t: {file: t.json, at: \"$.items[*]\"}}\nshape:\n- keep: " + (condition.startsWith("\"") ? "'" + condition.replace("'", "''") + "'" : condition) + "\ncharts:\n  c: {pattern: columns, category: station, value: mwh}\n");
            assertThat(desk.type("series", "DESK/b.yaml").out()).as(condition).contains("Leat").doesNotContain("Weir");
        }
        assertThat(desk.with("c.yaml", "brief: 1\ndata: {t: {file: t.json, at: items}}\ncharts:\n  c: {pattern: columns, category: station, value: mwh}\n").type("series", "DESK/c.yaml").err())
                .contains("DESK/c.yaml:2:30: 'items' is no path to rows; one is made of names, [*] and places in arrays, as $.items[*] and $.years[0].plants[*] are");
    }
}
