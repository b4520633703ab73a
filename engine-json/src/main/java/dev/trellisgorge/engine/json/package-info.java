/** Plain charts as JSON, so that an engine in any language can draw them; plans and audits as JSON, for other programs. */
package dev.trellisgorge.engine.json;
