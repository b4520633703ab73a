package dev.trellisgorge.pattern;

import dev.trellisgorge.formula.Formula;

/** One piece of a figure: what it is called, and how long it is on each row; absent where it is not drawn. */
public record Part(String name, Formula length) {
}
