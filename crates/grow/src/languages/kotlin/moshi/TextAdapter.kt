import com.squareup.moshi.JsonAdapter
import com.squareup.moshi.JsonReader
import com.squareup.moshi.JsonWriter

/** Reads and writes a class around a text as the text. */
abstract class TextAdapter<T : Any>(
    private val wrap: (String) -> T,
    private val unwrap: (T) -> String,
) : JsonAdapter<T>() {
    override fun fromJson(reader: JsonReader): T? =
        if (reader.peek() == JsonReader.Token.NULL) reader.nextNull() else wrap(reader.nextString())

    override fun toJson(
        writer: JsonWriter,
        value: T?,
    ) {
        writer.value(value?.let(unwrap))
    }
}
