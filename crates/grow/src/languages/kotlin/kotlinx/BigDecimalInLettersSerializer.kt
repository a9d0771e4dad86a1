import java.math.BigDecimal
import kotlinx.serialization.KSerializer
import kotlinx.serialization.descriptors.PrimitiveKind
import kotlinx.serialization.descriptors.PrimitiveSerialDescriptor
import kotlinx.serialization.encoding.Decoder
import kotlinx.serialization.encoding.Encoder

/** Reads and writes numbers that JSON has in letters. */
object BigDecimalInLettersSerializer : KSerializer<BigDecimal> {
    override val descriptor =
        PrimitiveSerialDescriptor("BigDecimalInLetters", PrimitiveKind.STRING)

    override fun deserialize(decoder: Decoder): BigDecimal = decoder.decodeString().toBigDecimal()

    override fun serialize(
        encoder: Encoder,
        value: BigDecimal,
    ) = encoder.encodeString(value.toPlainString())
}
