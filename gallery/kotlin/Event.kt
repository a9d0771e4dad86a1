// Grown by Jar Sprout: 4b4881f5

import kotlinx.serialization.DeserializationStrategy
import kotlinx.serialization.Serializable
import kotlinx.serialization.json.JsonContentPolymorphicSerializer
import kotlinx.serialization.json.JsonElement
import kotlinx.serialization.json.JsonObject
import kotlinx.serialization.json.contentOrNull
import kotlinx.serialization.json.jsonObject
import kotlinx.serialization.json.jsonPrimitive

@Serializable(with = EventSerializer::class)
sealed interface Event {
    @Serializable
    @JvmInline
    value class Unknown(
        val value: JsonObject,
    ) : Event
}

object EventSerializer : JsonContentPolymorphicSerializer<Event>(Event::class) {
    override fun selectDeserializer(element: JsonElement): DeserializationStrategy<Event> =
        when (element.jsonObject["kind"]?.jsonPrimitive?.contentOrNull) {
            "inspection" -> InspectionEvent.serializer()
            "harvest" -> HarvestEvent.serializer()
            "swarm" -> SwarmEvent.serializer()
            "alarm" -> AlarmEvent.serializer()
            else -> Event.Unknown.serializer()
        }
}
