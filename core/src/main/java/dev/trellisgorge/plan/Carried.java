package dev.trellisgorge.plan;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.shape.Pipeline;

/**
 * A figure that steps must leave as it was: on the rows that have one name before and after them.
 *
 * @param statement the equation in words
 * @param before    the table before the steps
 * @param where     true on the rows on which it must hold, over either table
 * @param figure    over either table
 */
public record Carried(String statement, Pipeline before, Formula where, Formula figure) {
}
