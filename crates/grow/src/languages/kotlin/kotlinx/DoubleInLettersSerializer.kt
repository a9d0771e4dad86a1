import kotlinx.serialization.KSerializer
import kotlinx.serialization.descriptors.PrimitiveKind
import kotlinx.serialization.descriptors.PrimitiveSerialDescriptor
import kotlinx.serialization.encoding.Decoder
import kotlinx.serialization.encoding.Encoder

/** Reads and writes numbers that JSON has in letters. */
object DoubleInLettersSerializer : KSerializer<Double> {
    override val descriptor =
        PrimitiveSerialDescriptor("DoubleInLetters", PrimitiveKind.STRING)

    override fun deserialize(decoder: Decoder): Double = decoder.decodeString().toDouble()

    override fun serialize(
        encoder: Encoder,
        value: Double,
    ) = encoder.encodeString(value.toString())
}
