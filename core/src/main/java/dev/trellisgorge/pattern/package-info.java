/** Patterns and classifiers: they describe plans, and never see a row. */
package dev.trellisgorge.pattern;
