/** Formulas as data, their kinds, and what works from them: the evaluator. Reads tables, and knows no chart. */
package dev.trellisgorge.formula;
