/** Tables in and out: delimited text in; delimited text and JSON out. */
package dev.trellisgorge.tables;
