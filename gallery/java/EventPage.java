// Grown by Jar Sprout.
package models;

import java.util.List;

public record EventPage(List<Event> events, String cursor, boolean more) {}
