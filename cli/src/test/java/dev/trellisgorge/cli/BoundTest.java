package dev.trellisgorge.cli;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.problem.Bound;
import dev.trellisgorge.test.TestSize;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Collections;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Each bound at its edge: what it allows is taken, and one more is refused with the bound's figure. */
public class BoundTest {
    /** Too large to be filled here; the engine's own test holds what a written sheet takes, and the readers' tests the others. */
    private static final Set<Bound> ELSEWHERE = EnumSet.of(Bound.SHEET_CELLS, Bound.UNPACKED_BYTES, Bound.HOST_BYTES, Bound.SHEET_ROWS, Bound.WRITTEN_ROWS, Bound.WRITTEN_COLUMNS, Bound.WRITTEN_FORMULA, Bound.WORKED_OUT);
    private static final String TABLE = "n,v\na,1\n";
    private static final String CHART = "  c: {pattern: columns, category: n, value: v}\n";
    /** Those that take many seconds are tried at night alone. */
    private static final Set<Bound> SLOW = EnumSet.of(Bound.BRIEF_CHARACTERS, Bound.PICTURE_ROWS);

    private Desk desk;

    @BeforeMethod
    public void make() throws IOException {
        desk = new Desk();
        Files.createDirectories(desk.path("gorge"));
    }

    @AfterMethod
    public void clean() {
        desk.close();
    }

    @DataProvider
    Object[][] bounds() {
        return Arrays.stream(Bound.values()).filter(bound -> !ELSEWHERE.contains(bound) && !(TestSize.of(1, 2) == 1 && SLOW.contains(bound))).map(bound -> new Object[] {bound}).toArray(Object[][]::new);
    }

    private Desk.Answer run(String data, String brief, String... command) {
        desk.with("t.csv", data).with("b.yaml", brief);
        Terminal terminal = new Terminal(OptionalInt.empty(), false, Map.of("XDG_CONFIG_HOME", desk.path("x").getParent().toString()));
        return desk.typeOn(terminal, command.length == 0 ? new String[] {"check", "DESK/b.yaml"} : command);
    }

    private static String brief(String keys) {
        return "brief: 1\ndata: {t: t.csv}\n" + keys + "charts:\n" + CHART;
    }

    private Desk.Answer drawn(String data, String chart, String... more) {
        String[] command = new String[more.length + 2];
        command[0] = "draw";
        command[1] = "DESK/b.yaml";
        System.arraycopy(more, 0, command, 2, more.length);
        return run(data, "brief: 1\ndata: {t: t.csv}\ncharts:\n  c: {" + chart + "}\n", command);
    }

    private static String rows(int count) {
        return IntStream.range(0, count).mapToObj(row -> "r" + row + "," + row % 7).collect(Collectors.joining("\n", "n,v\n", "\n"));
    }

    /** What the command says of something of that size. */
    private Desk.Answer of(Bound bound, int size) {
        return switch (bound) {
            case BRIEF_CHARACTERS -> run(TABLE, brief("#" + " ".repeat(size - brief("#\n").length()) + "\n"));
            case QUERY_CHARACTERS -> {
                String query = "SELECT 'a' AS n, 1 AS v";
                yield run(TABLE, "brief: 1\ndata: {t: {query: \"" + query + " ".repeat(size - query.length() - 1) + ";\", rows-by: v}}\ncharts:\n" + CHART, "check", "DESK/b.yaml", "--on", "duckdb:");
            }
            case BRIEF_DEPTH -> run(TABLE, brief("settings: {x: " + "[".repeat(size - 2) + "]".repeat(size - 2) + "}\n"));
            case BRIEF_ALIASES -> run(TABLE, brief("settings: {x: &x [1], y: [" + String.join(", ", Collections.nCopies(size, "*x")) + "]}\n"));
            case EXPRESSION_DEPTH -> run(TABLE, brief("shape:\n  - add: {y: \"" + "(".repeat(size - 1) + "v" + ")".repeat(size - 1) + "\"}\n"));
            case BOARD_COLUMNS -> run(TABLE, brief("") + "board: {columns: " + size + ", tiles: [c]}\n");
            case TITLE_CHARACTERS -> run(TABLE, "brief: 1\ndata: {t: t.csv}\ncharts:\n  c: {pattern: columns, category: n, value: v, title: " + "x".repeat(size) + "}\n");
            case TABLE_CELLS -> {
                desk.with("gorge/settings.yaml", "limits: {cells: 10}\n");
                yield run(rows(size == bound.count() ? 5 : 6), brief(""));
            }
            case TABLE_COLUMNS -> run("n,v" + IntStream.range(2, size).mapToObj(i -> ",c" + i).collect(Collectors.joining()) + "\na,1" + ",1".repeat(size - 2) + "\n", brief(""));
            case CELL_CHARACTERS -> run("n,v\n" + "x".repeat(size) + ",1\n", brief(""));
            case FILLED_ROWS -> run("d,v\n0001-01-01,1\n" + java.time.LocalDate.of(1, 1, 1).plusDays(size - 1) + ",2\n",
                    "brief: 1\ndata: {t: t.csv}\nshape:\n  - period: {of: d, unit: day, as: p, fill: true}\ncharts:\n  c: {pattern: columns, category: p, value: v}\n");
            case BAR_GLYPHS -> drawn("n,v\na," + size + "\n", "pattern: text-bar, category: n, value: v, per: 1", "-o", "DESK/o.txt");
            case PICTURE_SIDE -> drawn(TABLE, "pattern: columns, category: n, value: v", "-o", "DESK/o.svg", "--size", size + "x64");
            case PICTURE_ROWS -> drawn(rows(size == bound.count() ? 2 * size : 2 * size - 1), "pattern: columns, category: n, value: v", "-o", "DESK/o.svg", "--size", "16384x64");
            case PICTURE_LINES -> drawn(rows(size), "pattern: text-bar, category: n, value: v", "-o", "DESK/o.svg");
            case PICTURE_FIGURE -> drawn("n,v\na," + (size == bound.count() ? "1e300" : "1.0000001e300") + "\n", "pattern: columns, category: n, value: v", "-o", "DESK/o.svg");
            case WRITTEN_TEXT -> drawn("n,v\n" + "x".repeat(size) + ",1\n", "pattern: columns, category: n, value: v", "-o", "DESK/o.xlsx");
            case PROBLEMS_SHOWN -> run(TABLE, brief("settings: {" + IntStream.range(0, size).mapToObj(i -> "x" + i + ": []").collect(Collectors.joining(", ")) + "}\n"));
            default -> throw new AssertionError("nothing tries " + bound);
        };
    }

    /** How what passes a bound is told apart from what does not. */
    private static String told(Bound bound) {
        return switch (bound) {
            case BRIEF_CHARACTERS -> "more than the 3145728 characters";
            case QUERY_CHARACTERS -> "and may have 100000";
            case BRIEF_DEPTH -> "more than 100 lists and mappings";
            case BRIEF_ALIASES -> "more than 50 lists and mappings";
            case EXPRESSION_DEPTH -> "more than 200 of its parts";
            case BOARD_COLUMNS -> "12";
            case TITLE_CHARACTERS -> "at most 1000 are drawn";
            case TABLE_CELLS -> "more cells than the 10 that are read";
            case TABLE_COLUMNS -> "more than the 16384 cells that are read";
            case CELL_CHARACTERS -> "more than the 1000000 characters that are read";
            case FILLED_ROWS -> "more than 500000 rows in all";
            case BAR_GLYPHS -> "32767";
            case PICTURE_SIDE -> "64 to 16384 pixels";
            case PICTURE_ROWS -> "rows are more than can be told apart here";
            case PICTURE_LINES -> "at most 1000 lines of text";
            case PICTURE_FIGURE -> "1e300";
            case WRITTEN_TEXT -> "a cell of a sheet takes 32767 characters";
            default -> "gorge: and 1 more";
        };
    }

    @Test(dataProvider = "bounds")
    public void boundIsTakenAndOneMoreIsNot(Bound bound) {
        int edge = bound.count();
        assertThat(of(bound, edge).err()).as("at the bound").doesNotContain(told(bound));
        assertThat(of(bound, edge + 1).err()).as("past it").contains(told(bound));
    }

    @Test
    public void boundsAreInTheDocument() throws IOException {
        List<String> lines = Files.readAllLines(Path.of("../docs/trust.md"));
        for (Bound bound : Bound.values()) {
            String figure = bound.most() >= 1e15 ? "1e300" : String.format(Locale.ROOT, "%,.0f", bound.most());
            assertThat(lines).contains("| " + bound.what() + " | " + figure + " | " + bound.changedBy() + " |");
        }
    }
}
