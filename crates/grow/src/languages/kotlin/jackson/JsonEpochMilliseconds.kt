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

/** Reads and writes a point in time that JSON has as the milliseconds since 1970. */
@Retention(AnnotationRetention.RUNTIME)
@JacksonAnnotationsInside
@JsonSerialize(using = JsonEpochMilliseconds.Serializer::class)
@JsonDeserialize(using = JsonEpochMilliseconds.Deserializer::class)
annotation class JsonEpochMilliseconds {
    class Serializer : JsonSerializer<Instant>() {
        override fun serialize(
            value: Instant,
            generator: JsonGenerator,
            provider: SerializerProvider,
        ) = generator.writeNumber(value.toEpochMilli())
    }

    class Deserializer : JsonDeserializer<Instant>() {
        override fun deserialize(
            parser: JsonParser,
            context: DeserializationContext,
        ): Instant = Instant.ofEpochMilli(parser.longValue)
    }
}
