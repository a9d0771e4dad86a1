import com.google.gson.Gson
import com.google.gson.JsonPrimitive
import com.google.gson.TypeAdapter
import com.google.gson.TypeAdapterFactory
import com.google.gson.reflect.TypeToken
import com.google.gson.stream.JsonReader
import com.google.gson.stream.JsonToken
import com.google.gson.stream.JsonWriter

/** Reads and writes a value in whose place words stand for nothing; the first of them is written. */
abstract class OrNothingAdapter(
    private val inside: TypeAdapter<*>?,
    private vararg val words: String,
) : TypeAdapterFactory {
    override fun <T> create(
        gson: Gson,
        type: TypeToken<T>,
    ): TypeAdapter<T> {
        @Suppress("UNCHECKED_CAST")
        val inside = inside as TypeAdapter<T>? ?: gson.getAdapter(type)
        return object : TypeAdapter<T>() {
            override fun read(reader: JsonReader): T? =
                when (reader.peek()) {
                    JsonToken.NULL -> {
                        reader.nextNull()
                        null
                    }

                    JsonToken.STRING -> {
                        val text = reader.nextString()
                        if (text in words) null else inside.fromJsonTree(JsonPrimitive(text))
                    }

                    else -> {
                        inside.read(reader)
                    }
                }

            override fun write(
                writer: JsonWriter,
                value: T?,
            ) {
                if (value == null) {
                    writer.value(words[0])
                } else {
                    inside.write(writer, value)
                }
            }
        }
    }
}
