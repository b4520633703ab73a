package dev.trellisgorge.formula;

import dev.trellisgorge.table.Column;

/** A computed column that exists so that a plain chart can be drawn: its formula, and its cells. */
public record HelperColumn(String name, Formula formula, Column cells) {
}
