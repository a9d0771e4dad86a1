// Grown by Jar Sprout: 9a0abf7e
package models;

import java.util.List;

public record EventPage(List<Event> events, String cursor, boolean more) {}
