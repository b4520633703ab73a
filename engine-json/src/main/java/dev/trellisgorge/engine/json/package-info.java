/** Plain charts as JSON, so that an engine in any language can draw them. */
package dev.trellisgorge.engine.json;
