/** Everything that a chart will compute, as data, and its cells. Knows no pattern and no engine. */
package dev.trellisgorge.plan;
