/**
 * What a workbook is, before it is a file of any kind: sheets, cells, formulas, looks, names, lists, prints, and charts over ranges of cells.
 * Engines lay charts out as a {@link dev.trellisgorge.sheet.Book}, and a writer of each kind of file writes it. Descriptions are immutable but
 * for books, sheets, rows and cells while they are put together; none of them is thread-safe until then.
 */
package dev.trellisgorge.sheet;
