/** Proofs that the pieces add back to the figures, and notes on what a reader should know. */
package dev.trellisgorge.audit;
