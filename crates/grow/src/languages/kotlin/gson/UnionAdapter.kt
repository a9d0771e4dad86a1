import com.google.gson.JsonDeserializationContext
import com.google.gson.JsonDeserializer
import com.google.gson.JsonElement
import com.google.gson.JsonSerializationContext
import com.google.gson.JsonSerializer
import com.google.gson.reflect.TypeToken

/** Reads and writes one of several types. */
abstract class UnionAdapter<T : Any> :
    JsonDeserializer<T>,
    JsonSerializer<T> {
    /** The case that fits the JSON. */
    protected abstract fun read(
        json: JsonElement,
        context: JsonDeserializationContext,
    ): T

    /** What is written of a case. */
    protected abstract fun write(
        value: T,
        context: JsonSerializationContext,
    ): JsonElement

    override fun deserialize(
        json: JsonElement,
        type: java.lang.reflect.Type,
        context: JsonDeserializationContext,
    ): T = read(json, context)

    override fun serialize(
        value: T,
        type: java.lang.reflect.Type,
        context: JsonSerializationContext,
    ): JsonElement = write(value, context)
}

internal inline fun <reified T> JsonDeserializationContext.read(json: JsonElement): T =
    deserialize(json, object : TypeToken<T>() {}.type)

internal inline fun <reified T> JsonSerializationContext.write(value: T): JsonElement =
    serialize(value, object : TypeToken<T>() {}.type)
