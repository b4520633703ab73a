/** What a query of somebody else's may do: it is parsed, written anew from the parts that only read tables, and refused where it holds others. */
package dev.trellisgorge.sql.query;
