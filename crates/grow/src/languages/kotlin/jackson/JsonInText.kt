import com.fasterxml.jackson.annotation.JacksonAnnotationsInside
import com.fasterxml.jackson.core.JsonGenerator
import com.fasterxml.jackson.core.JsonParser
import com.fasterxml.jackson.databind.BeanProperty
import com.fasterxml.jackson.databind.DeserializationContext
import com.fasterxml.jackson.databind.JavaType
import com.fasterxml.jackson.databind.JsonDeserializer
import com.fasterxml.jackson.databind.JsonSerializer
import com.fasterxml.jackson.databind.SerializerProvider
import com.fasterxml.jackson.databind.annotation.JsonDeserialize
import com.fasterxml.jackson.databind.annotation.JsonSerialize
import com.fasterxml.jackson.databind.deser.ContextualDeserializer
import java.io.StringWriter

/** Reads and writes a value that stands as JSON in a text. */
@Retention(AnnotationRetention.RUNTIME)
@JacksonAnnotationsInside
@JsonSerialize(using = JsonInText.Serializer::class)
@JsonDeserialize(using = JsonInText.Deserializer::class)
annotation class JsonInText {
    class Serializer : JsonSerializer<Any>() {
        override fun serialize(
            value: Any,
            generator: JsonGenerator,
            provider: SerializerProvider,
        ) {
            val text = StringWriter()
            generator.codec.factory.createGenerator(text).use {
                generator.codec.writeValue(it, value)
            }
            generator.writeString(text.toString())
        }
    }

    class Deserializer(
        private val type: JavaType? = null,
    ) : JsonDeserializer<Any>(),
        ContextualDeserializer {
        override fun createContextual(
            context: DeserializationContext,
            property: BeanProperty,
        ) = Deserializer(property.type)

        override fun deserialize(
            parser: JsonParser,
            context: DeserializationContext,
        ): Any =
            parser.codec.factory.createParser(parser.text).use {
                parser.codec.readValue(it, type)
            }
    }
}
