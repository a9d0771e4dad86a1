// Grown by Jar Sprout: 1297355a
package models;

import java.time.OffsetDateTime;

public record InspectionEvent(
    String id, String kind, @JsonOffsetDateTime OffsetDateTime at, long hive, Inspection inspection)
    implements Event {}
