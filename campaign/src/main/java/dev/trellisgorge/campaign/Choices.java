package dev.trellisgorge.campaign;

import java.util.List;
import java.util.Random;

/** Where a maker of inputs takes its choices from: a seed, or the bytes that a fuzzer or a file gives. */
interface Choices {

    /** A number from 0 to {@code bound} - 1. */
    int below(int bound);

    default boolean oneIn(int many) {
        return below(many) == 0;
    }

    default <T> T of(List<T> all) {
        return all.get(below(all.size()));
    }

    @SafeVarargs
    static <T> T of(Choices choices, T... all) {
        return all[choices.below(all.length)];
    }

    /** The choices that belong to a seed: the same each time. */
    static Choices seeded(long seed) {
        Random random = new Random(seed * 0x9E3779B97F4A7C15L);
        return random::nextInt;
    }

    /** The choices that bytes make; the last of all where they end, so that nothing goes on for ever. */
    static Choices of(byte[] bytes) {
        int[] at = {0};
        return bound -> {
            if (at[0] >= bytes.length) {
                return bound - 1;
            }
            int choice = 0;
            for (int range = 1; range < bound; range <<= 8) {
                choice = choice << 8 | (at[0] < bytes.length ? bytes[at[0]++] & 0xFF : 0);
                if (range > 1 << 22) {
                    break;
                }
            }
            return Math.floorMod(choice, bound);
        };
    }
}
