package dev.trellisgorge.cli;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.test.DatabaseServer;
import dev.trellisgorge.test.Folder;
import dev.trellisgorge.test.TestSize;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;

/** Briefs over ugly tables: here and in each database the same series, notes and exit codes, character for character. */
@Test(groups = TestSize.SLOW)
public class UglyBriefsTest {
    private static final int COUNT = Integer.getInteger("ugly.count", TestSize.of(16, 400));
    private static final long SEED = Long.getLong("ugly.seed", 31);
    private static final String KINDS = "kinds: {station: text, day: date, v: number, w: number, ok: truth}";

    private DatabaseServer server;
    private Terminal terminal;

    @BeforeClass
    void start() {
        server = DatabaseServer.start();
        terminal = new Terminal(OptionalInt.empty(), false, Map.of("GORGE_USER", DatabaseServer.USER, "GORGE_PASSWORD", DatabaseServer.PASSWORD));
    }

    @AfterClass
    void leave() {
        server.close();
    }

    private static final String PLACE = "DESK/([tm])\\.csv(:\\d+)*|table '([tm])'(, row \\d+)?";

    /** Infinite here, and in a database often no number at all once more is computed of it. */
    private static final String TOO_LARGE = "PLACE(, the row that was added)?, column '[^']*': (the database gives a NaN, which is no number: it holds one, or a|the) figure is too large.*|PLACE: .* overflows \\(infinite\\)|PLACE: the database says: .*out of range.*";

    /** What comes back; a row is at the line of its file here, and by its number in a copy. */
    private Desk.Answer answer(Desk desk, String command, String on) {
        Desk.Answer answer = command.equals("series") ? desk.typeOn(terminal, command, "DESK/b.yaml", "--as", "json", "--on", on) : desk.typeOn(terminal, command, "DESK/b.yaml", "--on", on);
        String err = answer.err().replaceAll(PLACE, "PLACE").replaceAll(TOO_LARGE, "TOO LARGE").replaceAll(": PLACE(, PLACE)*(?=\n)", "").lines().distinct().collect(Collectors.joining("\n"));
        return new Desk.Answer(answer.code(), answer.out().replaceAll(PLACE, "PLACE").replaceAll(": PLACE(, PLACE)*(?=\n)", ""), err);
    }

    @Test
    public void filesGiveTheSameWhereverTheyAreComputed() {
        List<String> different = new ArrayList<>();
        Map<String, Integer> outcomes = new TreeMap<>();
        for (long seed = SEED; seed < SEED + COUNT; seed++) {
            UglyBrief ugly = UglyBrief.of(seed);
            try (Desk desk = new Desk()) {
                desk.with("t.csv", ugly.csv()).with("m.csv", ugly.metersCsv()).with("b.yaml", ugly.text().replace("DATA", "{t: {file: t.csv, " + KINDS + "}, m: {file: m.csv, kinds: {river: text, kw: number}}}"));
                for (String command : List.of("series", "check")) {
                    Desk.Answer here = answer(desk, command, "here");
                    outcomes.merge(command + " " + here.code(), 1, Integer::sum);
                    for (String on : List.of("duckdb:", "jdbc:h2:mem:", server.url())) {
                        Desk.Answer there = answer(desk, command, on);
                        if (there.err().contains("isn't supported by the dialect")) {
                            outcomes.merge(command + " unsaid", 1, Integer::sum);
                        } else if (!there.equals(here)) {
                            different.add("seed " + seed + ", " + command + " --on " + on + "\n" + ugly.text() + ugly.csv() + "here:\n" + here.code() + here.out() + here.err() + "there:\n" + there.code() + there.out() + there.err() + "\n=====");
                        }
                    }
                }
            }
        }
        System.out.println("ugly briefs: " + outcomes + ", different " + different.size());
        assertThat(different).isEmpty();
        assertThat(outcomes.get("series 0")).as("outcomes %s", outcomes).isGreaterThan(COUNT / 3);
    }

    @Test
    public void tablesOfDatabasesGiveTheSameInEach() throws SQLException {
        List<String> different = new ArrayList<>();
        int drawn = 0;
        try (Folder folder = new Folder(); Connection h2 = DriverManager.getConnection("jdbc:h2:mem:ugly", DatabaseServer.USER, DatabaseServer.PASSWORD); Connection postgres = DriverManager.getConnection(server.url(), DatabaseServer.USER, DatabaseServer.PASSWORD)) {
            for (long seed = SEED; seed < SEED + COUNT / 4; seed++) {
                UglyBrief ugly = UglyBrief.of(seed);
                String file = folder.path("ugly" + seed + ".db").toString();
                load(h2, ugly, seed);
                load(postgres, ugly, seed);
                try (Connection duckdb = DriverManager.getConnection("jdbc:duckdb:" + file)) {
                    load(duckdb, ugly, seed);
                }
                try (Desk desk = new Desk()) {
                    desk.with("b.yaml", ugly.text().replace("DATA", "{t: {table: t, rows-by: n}, m: {table: m, rows-by: n}}"));
                    for (String command : List.of("series", "check")) {
                        Desk.Answer first = answer(desk, command, "jdbc:h2:mem:ugly");
                        drawn += first.code() == 0 ? 1 : 0;
                        for (String on : List.of(server.url(), "duckdb:" + file)) {
                            Desk.Answer other = answer(desk, command, on);
                            if (!other.equals(first) && !other.err().contains("isn't supported by the dialect") && !first.err().contains("isn't supported by the dialect")) {
                                different.add("seed " + seed + ", " + command + " --on " + on + "\n" + ugly.text() + ugly.csv() + "here:\n" + first.code() + first.out() + first.err() + "there:\n" + other.code() + other.out() + other.err() + "\n=====");
                            }
                        }
                    }
                }
            }
        }
        assertThat(different).isEmpty();
        assertThat(drawn).isGreaterThan(COUNT / 12);
    }

    /** Some hold what is no number. */
    private static void load(Connection database, UglyBrief ugly, long seed) throws SQLException {
        String real = "DOUBLE PRECISION";
        try (Statement use = database.createStatement()) {
            use.execute("DROP TABLE IF EXISTS \"t\"");
            use.execute("DROP TABLE IF EXISTS \"m\"");
            use.execute("CREATE TABLE \"t\" (\"n\" INTEGER, \"station\" VARCHAR(40), \"meter\" BIGINT, \"day\" DATE, \"v\" " + real + ", \"w\" NUMERIC(30, 10), \"ok\" BOOLEAN)");
            use.execute("CREATE TABLE \"m\" (\"n\" INTEGER, \"meter\" BIGINT, \"river\" VARCHAR(40), \"kw\" NUMERIC(30, 10))");
            for (List<String> row : ugly.rows()) {
                use.execute("INSERT INTO \"t\" VALUES (" + row.get(0) + ", " + text(row.get(1)) + ", " + cell(row.get(2), "BIGINT") + ", " + cell(row.get(3), "DATE") + ", " + cell(row.get(4), real) + ", " + cell(row.get(5), "NUMERIC(30, 10)") + ", " + cell(row.get(6), "BOOLEAN") + ")");
            }
            if (seed % 8 == 0) {
                use.execute("UPDATE \"t\" SET \"v\" = CAST('" + (seed % 16 == 0 ? "NaN" : "Infinity") + "' AS " + real + ") WHERE \"n\" = 2");
            }
            for (int i = 0; i < ugly.meters().size(); i++) {
                List<String> row = ugly.meters().get(i);
                use.execute("INSERT INTO \"m\" VALUES (" + i + ", " + cell(row.get(0), "BIGINT") + ", " + text(row.get(1)) + ", " + cell(row.get(2), "NUMERIC(30, 10)") + ")");
            }
        }
    }

    private static String cell(String cell, String type) {
        return cell.isEmpty() ? "NULL" : "CAST(" + text(cell) + " AS " + type + ")";
    }

    private static String text(String cell) {
        return cell.isEmpty() ? "NULL" : "'" + cell.replace("'", "''") + "'";
    }
}
