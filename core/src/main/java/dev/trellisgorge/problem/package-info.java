/** Mistakes of the person who wrote the input: what, where, and what would be right. */
package dev.trellisgorge.problem;
