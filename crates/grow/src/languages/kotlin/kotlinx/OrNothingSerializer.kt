import kotlinx.serialization.KSerializer
import kotlinx.serialization.descriptors.nullable
import kotlinx.serialization.encoding.Decoder
import kotlinx.serialization.encoding.Encoder
import kotlinx.serialization.json.JsonDecoder
import kotlinx.serialization.json.JsonNull
import kotlinx.serialization.json.JsonPrimitive

/** Reads and writes a value in whose place words stand for nothing; the first of them is written. */
abstract class OrNothingSerializer<T : Any>(
    private val inside: KSerializer<T>,
    private vararg val words: String,
) : KSerializer<T?> {
    override val descriptor = inside.descriptor.nullable

    override fun deserialize(decoder: Decoder): T? {
        require(decoder is JsonDecoder)
        val json = decoder.decodeJsonElement()
        val isWord = json is JsonPrimitive && json.isString && json.content in words
        return if (json is JsonNull || isWord) {
            null
        } else {
            decoder.json.decodeFromJsonElement(inside, json)
        }
    }

    override fun serialize(
        encoder: Encoder,
        value: T?,
    ) {
        if (value == null) {
            encoder.encodeString(words[0])
        } else {
            encoder.encodeSerializableValue(inside, value)
        }
    }
}
