package dev.trellisgorge.problem;

/** What is said where memory ends: what did not fit, and what would help. Thread-safe. */
public final class Memory {
    private Memory() {
    }

    /**
     * @param what the thing that does not fit
     * @param mend what can be done but to give Java more memory
     */
    public static BadInput ended(Place place, String what, String mend) {
        return new BadInput(place, ProblemKind.TOO_LARGE, what + " does not fit into the " + (Runtime.getRuntime().maxMemory() >> 20)
                + " MB of memory that Java takes here; let it take more, as with JAVA_TOOL_OPTIONS=-Xmx8g, or " + mend);
    }
}
