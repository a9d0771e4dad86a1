import com.fasterxml.jackson.core.JsonGenerator
import com.fasterxml.jackson.core.JsonParser
import com.fasterxml.jackson.core.JsonToken
import com.fasterxml.jackson.databind.BeanProperty
import com.fasterxml.jackson.databind.DeserializationContext
import com.fasterxml.jackson.databind.JsonDeserializer
import com.fasterxml.jackson.databind.JsonSerializer
import com.fasterxml.jackson.databind.SerializerProvider
import com.fasterxml.jackson.databind.deser.ContextualDeserializer

/** Reads a value, or nothing where one of some words stands. */
open class OrNothing(
    private val inside: JsonDeserializer<*>?,
    private vararg val words: String,
) : JsonDeserializer<Any>(),
    ContextualDeserializer {
    constructor(vararg words: String) : this(null, *words)

    override fun createContextual(
        context: DeserializationContext,
        property: BeanProperty,
    ) = OrNothing(context.findContextualValueDeserializer(property.type, property), *words)

    override fun deserialize(
        parser: JsonParser,
        context: DeserializationContext,
    ): Any? {
        val isWord = parser.currentToken() == JsonToken.VALUE_STRING && parser.text in words
        return if (isWord) null else inside?.deserialize(parser, context)
    }

    /** Writes a word where there is no value. */
    open class Word(
        private val word: String,
    ) : JsonSerializer<Any?>() {
        override fun serialize(
            value: Any?,
            generator: JsonGenerator,
            provider: SerializerProvider,
        ) = generator.writeString(word)
    }
}
