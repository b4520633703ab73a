package dev.trellisgorge.tables;

import java.util.ArrayList;
import java.util.List;

/** Finds what divides the cells of a text: the sign that cuts the most records into equally many cells. */
final class Delimiter {
    private static final char[] KNOWN = {',', ';', '\t', '|'};
    private static final int RECORDS = 25;

    private Delimiter() {
    }

    /** Comma, where nothing speaks for another. */
    static char of(String sample) {
        char best = KNOWN[0];
        long bestScore = 0;
        for (char delimiter : KNOWN) {
            long score = score(counts(sample, delimiter));
            if (score > bestScore) {
                bestScore = score;
                best = delimiter;
            }
        }
        return best;
    }

    /** Records that agree with the header weigh most, then the number of cells; none where the header is one cell. */
    private static long score(List<Integer> counts) {
        int header = counts.isEmpty() ? 0 : counts.get(0);
        long agreeing = counts.stream().filter(count -> count == header).count();
        return header == 0 ? 0 : agreeing * 10_000 / counts.size() * 1_000 + Math.min(header, 999);
    }

    /** How often the character stands outside quotes, in each of the first records. */
    private static List<Integer> counts(String sample, char delimiter) {
        List<Integer> counts = new ArrayList<>();
        boolean quoted = false;
        boolean empty = true;
        int count = 0;
        for (int i = 0; i < sample.length() && counts.size() < RECORDS; i++) {
            char c = sample.charAt(i);
            if (c == '"') {
                quoted = !quoted;
            }
            if (!quoted && (c == '\n' || c == '\r')) {
                if (!empty) {
                    counts.add(count);
                }
                count = 0;
                empty = true;
            } else {
                empty = false;
                count += !quoted && c == delimiter ? 1 : 0;
            }
        }
        if (!empty && counts.isEmpty()) {
            counts.add(count);
        }
        return counts;
    }
}
