/** Engines that draw plain charts, how they are found, and what they are given. */
package dev.trellisgorge.engine;
