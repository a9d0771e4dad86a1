import kotlinx.serialization.KSerializer
import kotlinx.serialization.Serializable
import kotlinx.serialization.SerializationException
import kotlinx.serialization.encoding.Decoder
import kotlinx.serialization.encoding.Encoder

/** A value, perhaps null, or nothing at all: what is absent is left alone. */
@Serializable(with = MaybeSerializer::class)
sealed interface Maybe<out T> {
    data object Absent : Maybe<Nothing>

    data class Of<out T>(
        val value: T,
    ) : Maybe<T>
}

/** Reads and writes what is there. */
class MaybeSerializer<T>(
    private val content: KSerializer<T>,
) : KSerializer<Maybe<T>> {
    override val descriptor = content.descriptor

    override fun deserialize(decoder: Decoder): Maybe<T> = Maybe.Of(content.deserialize(decoder))

    override fun serialize(
        encoder: Encoder,
        value: Maybe<T>,
    ) {
        when (value) {
            is Maybe.Of -> content.serialize(encoder, value.value)
            Maybe.Absent -> throw SerializationException("What is absent is not written")
        }
    }
}
