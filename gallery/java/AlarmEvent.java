// Grown by Jar Sprout: 243994e0
package models;

import java.time.OffsetDateTime;

public record AlarmEvent(
    String id,
    String kind,
    @JsonOffsetDateTime OffsetDateTime at,
    long hive,
    String sensor,
    Reading reading,
    String level)
    implements Event {}
