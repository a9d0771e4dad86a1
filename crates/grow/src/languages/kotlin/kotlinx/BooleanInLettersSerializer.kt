import kotlinx.serialization.KSerializer
import kotlinx.serialization.descriptors.PrimitiveKind
import kotlinx.serialization.descriptors.PrimitiveSerialDescriptor
import kotlinx.serialization.encoding.Decoder
import kotlinx.serialization.encoding.Encoder

/** Reads and writes truths that JSON has in letters. */
object BooleanInLettersSerializer : KSerializer<Boolean> {
    override val descriptor =
        PrimitiveSerialDescriptor("BooleanInLetters", PrimitiveKind.STRING)

    override fun deserialize(decoder: Decoder): Boolean = decoder.decodeString().toBooleanStrict()

    override fun serialize(
        encoder: Encoder,
        value: Boolean,
    ) = encoder.encodeString(value.toString())
}
