// Grown by Jar Sprout.
package models;

public record Reading(int t, int limit) {}
