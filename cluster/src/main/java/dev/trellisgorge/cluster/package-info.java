/** Statements that run on a cluster, for whoever has its libraries on the class path. */
package dev.trellisgorge.cluster;
