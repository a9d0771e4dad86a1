import com.google.gson.TypeAdapter
import com.google.gson.stream.JsonReader
import com.google.gson.stream.JsonWriter

/** Reads and writes a class around a text as the text. */
abstract class TextAdapter<T : Any>(
    private val wrap: (String) -> T,
    private val unwrap: (T) -> String,
) : TypeAdapter<T>() {
    override fun read(reader: JsonReader): T = wrap(reader.nextString())

    override fun write(
        writer: JsonWriter,
        value: T,
    ) {
        writer.value(unwrap(value))
    }
}
