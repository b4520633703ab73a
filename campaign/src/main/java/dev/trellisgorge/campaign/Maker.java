package dev.trellisgorge.campaign;

/** Makes trials of one kind. Thread-safe. */
interface Maker {
    Trial make(Choices choices);
}
