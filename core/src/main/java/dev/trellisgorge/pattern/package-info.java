/** Patterns and classifiers: they build formulas, state identities, and arrange plain charts. */
package dev.trellisgorge.pattern;
