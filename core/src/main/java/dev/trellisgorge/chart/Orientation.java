package dev.trellisgorge.chart;

/** Which way bars run: up from a base line, or to the right with the first category on top. */
public enum Orientation {
    VERTICAL, HORIZONTAL
}
