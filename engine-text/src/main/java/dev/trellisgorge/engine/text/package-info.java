/** Plain charts as lines of text: bars in eighths of a character, with the figure beside each. */
package dev.trellisgorge.engine.text;
