import java.net.URI
import kotlinx.serialization.KSerializer
import kotlinx.serialization.descriptors.PrimitiveKind
import kotlinx.serialization.descriptors.PrimitiveSerialDescriptor
import kotlinx.serialization.encoding.Decoder
import kotlinx.serialization.encoding.Encoder

/** Reads and writes URIs. */
object URISerializer : KSerializer<URI> {
    override val descriptor = PrimitiveSerialDescriptor("java.net.URI", PrimitiveKind.STRING)

    override fun deserialize(decoder: Decoder): URI = URI.create(decoder.decodeString())

    override fun serialize(
        encoder: Encoder,
        value: URI,
    ) {
        encoder.encodeString(value.toString())
    }
}
