import kotlinx.serialization.ExperimentalSerializationApi
import kotlinx.serialization.KSerializer
import kotlinx.serialization.descriptors.elementNames
import kotlinx.serialization.json.JsonElement
import kotlinx.serialization.json.JsonObject
import kotlinx.serialization.json.JsonTransformingSerializer
import kotlinx.serialization.json.jsonObject

/** Keeps the keys that a class has no property for in its last property. */
@OptIn(ExperimentalSerializationApi::class)
abstract class OtherKeysSerializer<T : Any>(
    serializer: KSerializer<T>,
) : JsonTransformingSerializer<T>(serializer) {
    private val names = serializer.descriptor.elementNames.toList()
    private val last = names.last()
    private val known = names.dropLast(1).toSet()

    override fun transformDeserialize(element: JsonElement): JsonElement {
        val (own, others) = element.jsonObject.toList().partition { (key, _) -> key in known }
        return JsonObject(own.toMap() + (last to JsonObject(others.toMap())))
    }

    override fun transformSerialize(element: JsonElement): JsonElement {
        val own = element.jsonObject
        return JsonObject(own - last + own[last]?.jsonObject.orEmpty())
    }
}
