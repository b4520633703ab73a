package dev.trellisgorge.test;

/** How much a test looks at: a part with every build, all of it with {@code mvn -Pnightly}. */
public final class TestSize {
    private static final boolean NIGHTLY = Boolean.getBoolean("gorge.nightly");

    private TestSize() {
    }

    public static int of(int daily, int nightly) {
        return NIGHTLY ? nightly : daily;
    }
}
