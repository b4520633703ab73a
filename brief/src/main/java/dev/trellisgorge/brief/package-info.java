/** The brief: the file in which a user says what to make, read into core objects. */
package dev.trellisgorge.brief;
