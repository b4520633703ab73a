/** Immutable columnar tables. Nothing here knows formulas, patterns or charts. */
package dev.trellisgorge.table;
