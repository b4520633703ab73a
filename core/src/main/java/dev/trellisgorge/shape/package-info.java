/** Steps that turn raw tables into the one table that charts are computed over. */
package dev.trellisgorge.shape;
