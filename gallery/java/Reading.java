// Grown by Jar Sprout: 2661d000
package models;

public record Reading(int t, int limit) {}
