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

    /** Writes what a case holds. */
    protected abstract fun write(
        writer: JsonWriter,
        value: T,
    )

    override fun fromJson(reader: JsonReader): T? =
        if (reader.peek() == JsonReader.Token.NULL) reader.nextNull() else read(reader)

    override fun toJson(
        writer: JsonWriter,
        value: T?,
    ) {
        if (value == null) writer.nullValue() else write(writer, value)
    }
}

/** Keeps a type with what is in its angle brackets. */
internal abstract class Held<T : Any>

internal inline fun <reified T : Any> Moshi.adapterOf(): JsonAdapter<T> {
    val held = object : Held<T>() {}.javaClass.genericSuperclass
    return adapter((held as java.lang.reflect.ParameterizedType).actualTypeArguments.single())
}

internal inline fun <reified T : Any> Moshi.read(reader: JsonReader): T =
    requireNotNull(adapterOf<T>().fromJson(reader))

internal inline fun <reified T : Any> Moshi.write(
    writer: JsonWriter,
    value: T,
) = adapterOf<T>().toJson(writer, value)
