/** Formulas as data, their kinds, and what works from them: the evaluator and the writer of sheet formulas. Reads tables, and knows no chart. */
package dev.trellisgorge.formula;
