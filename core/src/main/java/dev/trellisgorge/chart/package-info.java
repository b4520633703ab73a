/** Plain charts, what they are made of, and how engines are found. Reads helper tables, and knows no pattern. */
package dev.trellisgorge.chart;
