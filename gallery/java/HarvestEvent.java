// Grown by Jar Sprout: 15fceb71
package models;

import java.time.OffsetDateTime;

public record HarvestEvent(
    String id,
    String kind,
    @JsonOffsetDateTime OffsetDateTime at,
    long hive,
    double kg,
    String batch,
    int frames)
    implements Event {}
