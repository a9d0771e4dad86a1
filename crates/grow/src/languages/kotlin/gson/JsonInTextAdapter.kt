import com.google.gson.Gson
import com.google.gson.TypeAdapter
import com.google.gson.TypeAdapterFactory
import com.google.gson.reflect.TypeToken
import com.google.gson.stream.JsonReader
import com.google.gson.stream.JsonWriter

/** Reads and writes values that stand as JSON in a text. */
class JsonInTextAdapter : TypeAdapterFactory {
    override fun <T> create(
        gson: Gson,
        type: TypeToken<T>,
    ): TypeAdapter<T> {
        val inside = gson.getAdapter(type)
        return object : TypeAdapter<T>() {
            override fun read(reader: JsonReader): T = inside.fromJson(reader.nextString())

            override fun write(
                writer: JsonWriter,
                value: T,
            ) {
                writer.value(inside.toJson(value))
            }
        }
    }
}
