import com.fasterxml.jackson.annotation.JacksonAnnotationsInside
import com.fasterxml.jackson.core.JsonGenerator
import com.fasterxml.jackson.core.JsonParser
import com.fasterxml.jackson.databind.DeserializationContext
import com.fasterxml.jackson.databind.JsonDeserializer
import com.fasterxml.jackson.databind.JsonSerializer
import com.fasterxml.jackson.databind.SerializerProvider
import com.fasterxml.jackson.databind.annotation.JsonDeserialize
import com.fasterxml.jackson.databind.annotation.JsonSerialize
import java.time.Instant

/** Reads and writes a point in time that JSON has as the seconds since 1970. */
@Retention(AnnotationRetention.RUNTIME)
@JacksonAnnotationsInside
@JsonSerialize(using = JsonEpochSeconds.Serializer::class)
@JsonDeserialize(using = JsonEpochSeconds.Deserializer::class)
annotation class JsonEpochSeconds {
    class Serializer : JsonSerializer<Instant>() {
        override fun serialize(
            value: Instant,
            generator: JsonGenerator,
            provider: SerializerProvider,
        ) = generator.writeNumber(value.epochSecond)
    }

    class Deserializer : JsonDeserializer<Instant>() {
        override fun deserialize(
            parser: JsonParser,
            context: DeserializationContext,
        ): Instant = Instant.ofEpochSecond(parser.longValue)
    }
}
