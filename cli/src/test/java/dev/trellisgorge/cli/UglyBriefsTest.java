package dev.trellisgorge.cli;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.test.DatabaseServer;
import dev.trellisgorge.test.TestSize;
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
public class UglyBriefsTest {
    private static final int COUNT = Integer.getInteger("ugly.count", TestSize.of(60, 2_000));
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

    /** What comes back; a row is at the line of its file here, and by its number in a copy. */
    private Desk.Answer answer(Desk desk, String command, String on) {
        Desk.Answer answer = command.equals("series") ? desk.typeOn(terminal, command, "DESK/b.yaml", "--as", "json", "--on", on) : desk.typeOn(terminal, command, "DESK/b.yaml", "--on", on);
        String err = answer.err().replaceAll(PLACE, "PLACE").lines().distinct().collect(Collectors.joining("\n"));
        return new Desk.Answer(answer.code(), answer.out().replaceAll(PLACE, "PLACE"), err);
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
                    if (here.code() != 0) outcomes.merge(here.err().replaceAll("'[^']*'", "'x'").replaceAll("\\d+", "9"), 1, Integer::sum);
                    for (String on : List.of("duckdb:", "jdbc:h2:mem:", server.url())) {
                        Desk.Answer there = answer(desk, command, on);
                        if (there.err().contains("can't be said in the dialect")) {
                            outcomes.merge(command + " unsaid", 1, Integer::sum);
                        } else if (!there.equals(here)) {
                            different.add("seed " + seed + ", " + command + " --on " + on + "\n" + ugly.text() + ugly.csv() + "here:\n" + here.code() + here.out() + here.err() + "there:\n" + there.code() + there.out() + there.err());
                        }
                    }
                }
            }
        }
        System.out.println("ugly briefs: " + outcomes + ", different " + different.size());
        assertThat(different).isEmpty();
        assertThat(outcomes.get("series 0")).as("outcomes %s", outcomes).isGreaterThan(COUNT / 3);
    }
}
