package dev.trellisgorge.test;

/**
 * How much a test looks at: a part with every build, all of it with {@code mvn -Pnightly} (a part of that with {@code -Dgorge.size=slice}), and a smaller part with {@code mvn -Pquick}, which also leaves
 * out the group {@link #SLOW}.
 */
public final class TestSize {
    /** What takes long whatever its size, as another program is started. */
    public static final String SLOW = "slow";

    private static final String SIZE = System.getProperty("gorge.size", "daily");
    private static final int QUICKER = 4;
    private static final int SLICE = 3;

    private TestSize() {
    }

    public static int of(int daily, int nightly) {
        return switch (SIZE) {
            case "nightly" -> nightly;
            case "slice" -> Math.min(nightly, SLICE * daily);
            case "daily" -> daily;
            case "quick" -> Math.max(1, daily / QUICKER);
            default -> throw new IllegalStateException("no size of tests: " + SIZE);
        };
    }
}
