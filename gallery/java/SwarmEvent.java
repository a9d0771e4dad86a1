// Grown by Jar Sprout: f76d75f1
package models;

import com.fasterxml.jackson.annotation.JsonProperty;
import java.time.OffsetDateTime;
import java.util.List;

public record SwarmEvent(
    String id,
    String kind,
    @JsonOffsetDateTime OffsetDateTime at,
    long hive,
    boolean caught,
    @JsonProperty("seen_by") List<String> seenBy)
    implements Event {}
