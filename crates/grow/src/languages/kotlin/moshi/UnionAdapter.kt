import com.squareup.moshi.JsonAdapter
import com.squareup.moshi.JsonReader
import com.squareup.moshi.JsonWriter
import com.squareup.moshi.Moshi

/** Reads and writes one of several types. */
abstract class UnionAdapter<T : Any>(
    protected val moshi: Moshi,
) : JsonAdapter<T>() {
    /** The case that fits the JSON. */
    protected abstract fun read(reader: JsonReader): T

    /** What is written of a case. */
    protected abstract fun content(value: T): Any

    override fun fromJson(reader: JsonReader): T? =
        if (reader.peek() == JsonReader.Token.NULL) reader.nextNull() else read(reader)

    override fun toJson(
        writer: JsonWriter,
        value: T?,
    ) {
        moshi.adapter(Any::class.java).toJson(writer, value?.let(::content))
    }
}

/** Keeps a type with what is in its angle brackets. */
internal abstract class Held<T : Any>

internal inline fun <reified T : Any> Moshi.read(reader: JsonReader): T {
    val held = object : Held<T>() {}.javaClass.genericSuperclass
    val type = (held as java.lang.reflect.ParameterizedType).actualTypeArguments.single()
    return requireNotNull(adapter<T>(type).fromJson(reader))
}

internal fun JsonReader.tag(key: String): String? {
    val ahead = peekJson()
    ahead.beginObject()
    while (ahead.hasNext()) {
        if (ahead.nextName() == key && ahead.peek() == JsonReader.Token.STRING) {
            return ahead.nextString()
        }
        ahead.skipValue()
    }
    return null
}
