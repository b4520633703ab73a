package dev.trellisgorge.tables;

/** Told how far a file is read, for whoever waits for a long one. */
@FunctionalInterface
public interface Progress {
    Progress NONE = (file, share) -> {
    };

    /**
     * Told now and then.
     *
     * @param file  as messages call it
     * @param share of its bytes, from 0 to 1; a file may be read more than once
     */
    void read(String file, double share);
}
