package dev.trellisgorge.table;

import java.util.function.Predicate;

/** Names beside others. */
public final class FreeName {

    private FreeName() {
    }

    /** The wanted name, or that with the first number from 2 on with which it is not taken. */
    public static String of(String wanted, Predicate<String> isTaken) {
        String free = wanted;
        for (int i = 2; isTaken.test(free); i++) {
            free = wanted + " " + i;
        }
        return free;
    }
}
