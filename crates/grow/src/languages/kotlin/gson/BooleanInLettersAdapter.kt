import com.google.gson.TypeAdapter
import com.google.gson.stream.JsonReader
import com.google.gson.stream.JsonWriter

/** Reads and writes truths that JSON has in letters. */
class BooleanInLettersAdapter : TypeAdapter<Boolean>() {
    override fun read(reader: JsonReader): Boolean = reader.nextString().toBooleanStrict()

    override fun write(
        writer: JsonWriter,
        value: Boolean,
    ) {
        writer.value(value.toString())
    }
}
