import kotlinx.serialization.KSerializer
import kotlinx.serialization.descriptors.PrimitiveKind
import kotlinx.serialization.descriptors.PrimitiveSerialDescriptor
import kotlinx.serialization.encoding.Decoder
import kotlinx.serialization.encoding.Encoder

/** Reads and writes numbers that JSON has in letters. */
object LongInLettersSerializer : KSerializer<Long> {
    override val descriptor =
        PrimitiveSerialDescriptor("LongInLetters", PrimitiveKind.STRING)

    override fun deserialize(decoder: Decoder): Long = decoder.decodeString().toLong()

    override fun serialize(
        encoder: Encoder,
        value: Long,
    ) = encoder.encodeString(value.toString())
}
