import kotlinx.serialization.KSerializer
import kotlinx.serialization.Serializable
import kotlinx.serialization.descriptors.PrimitiveKind
import kotlinx.serialization.descriptors.PrimitiveSerialDescriptor
import kotlinx.serialization.encoding.Decoder
import kotlinx.serialization.encoding.Encoder
import kotlinx.serialization.json.JsonDecoder
import kotlinx.serialization.json.JsonEncoder

/** A value that stands as JSON in a text. */
@Serializable(JsonTextSerializer::class)
data class JsonText<T>(
    val value: T,
)

class JsonTextSerializer<T>(
    private val inside: KSerializer<T>,
) : KSerializer<JsonText<T>> {
    override val descriptor =
        PrimitiveSerialDescriptor("JsonText", PrimitiveKind.STRING)

    override fun deserialize(decoder: Decoder): JsonText<T> {
        val json = (decoder as JsonDecoder).json
        return JsonText(json.decodeFromString(inside, decoder.decodeString()))
    }

    override fun serialize(
        encoder: Encoder,
        value: JsonText<T>,
    ) {
        val json = (encoder as JsonEncoder).json
        encoder.encodeString(json.encodeToString(inside, value.value))
    }
}
