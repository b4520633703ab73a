/** What drawings are made of: panels, bars, lines, points, rings, texts, labels and colours. Names columns, and holds no cell. */
package dev.trellisgorge.chart;
