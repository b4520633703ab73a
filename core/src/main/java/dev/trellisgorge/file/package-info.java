/** Files that are replaced as a whole or not at all, and those that wait until they are. */
package dev.trellisgorge.file;
