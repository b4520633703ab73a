/** Formulas as data, their back ends, and the helper columns they make. Reads tables, and knows no chart. */
package dev.trellisgorge.formula;
