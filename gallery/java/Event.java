// Grown by Jar Sprout: 3d1ddc04
package models;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import com.fasterxml.jackson.annotation.JsonValue;
import com.fasterxml.jackson.databind.JsonNode;

@JsonTypeInfo(
    use = JsonTypeInfo.Id.NAME,
    include = JsonTypeInfo.As.EXISTING_PROPERTY,
    property = "kind",
    visible = true,
    defaultImpl = Event.Unknown.class)
@JsonSubTypes({
  @JsonSubTypes.Type(value = InspectionEvent.class, name = "inspection"),
  @JsonSubTypes.Type(value = HarvestEvent.class, name = "harvest"),
  @JsonSubTypes.Type(value = SwarmEvent.class, name = "swarm"),
  @JsonSubTypes.Type(value = AlarmEvent.class, name = "alarm")
})
public sealed interface Event
    permits InspectionEvent, HarvestEvent, SwarmEvent, AlarmEvent, Event.Unknown {
  /** A kind that is not known yet. */
  record Unknown(JsonNode value) implements Event {
    @JsonCreator(mode = JsonCreator.Mode.DELEGATING)
    public Unknown {}

    @Override
    @JsonValue
    public JsonNode value() {
      return value;
    }
  }
}
