package dev.trellisgorge.problem;

import java.util.Collection;
import java.util.Comparator;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;

/** Finds the known name that a mistyped one was probably meant to be. Thread-safe. */
public final class Nearest {
    private static final int LISTED = 12;

    private Nearest() {
    }

    /**
     * The known name with the smallest edit distance, letter case aside, where it is near enough to be
     * a slip (at most a third of the longer name, and at least one edit is always forgiven).
     */
    public static Optional<String> to(String name, Collection<String> known) {
        return known.stream()
                .filter(candidate -> distance(name, candidate) <= Math.max(1, longer(name, candidate) / 3))
                .min(Comparator.comparingInt(candidate -> distance(name, candidate)));
    }

    /** The sentence for an unknown name: {@code Did you mean 'title'?}, or else the known names. */
    public static String hint(String name, Collection<String> known) {
        return to(name, known).map(near -> "Did you mean '" + near + "'?").orElseGet(() -> list(known));
    }

    private static String list(Collection<String> known) {
        String names = known.stream().limit(LISTED).map(n -> "'" + n + "'").collect(Collectors.joining(", "));
        return "Known here: " + (known.isEmpty() ? "none" : names) + (known.size() > LISTED ? ", …" : "") + ".";
    }

    private static int longer(String a, String b) {
        return Math.max(a.length(), b.length());
    }

    /** Edits (insert, delete, replace, swap of neighbours) from one to the other; optimal string alignment. */
    private static int distance(String left, String right) {
        String a = left.toLowerCase(Locale.ROOT);
        String b = right.toLowerCase(Locale.ROOT);
        int[][] d = new int[a.length() + 1][b.length() + 1];
        for (int i = 0; i <= a.length(); i++) {
            for (int j = 0; j <= b.length(); j++) {
                d[i][j] = i == 0 || j == 0 ? i + j : step(d, a, b, i, j);
            }
        }
        return d[a.length()][b.length()];
    }

    private static int step(int[][] d, String a, String b, int i, int j) {
        int cost = a.charAt(i - 1) == b.charAt(j - 1) ? 0 : 1;
        int best = Math.min(Math.min(d[i - 1][j], d[i][j - 1]) + 1, d[i - 1][j - 1] + cost);
        boolean swapped = i > 1 && j > 1 && a.charAt(i - 1) == b.charAt(j - 2) && a.charAt(i - 2) == b.charAt(j - 1);
        return swapped ? Math.min(best, d[i - 2][j - 2] + 1) : best;
    }
}
