import com.google.gson.TypeAdapter
import com.google.gson.stream.JsonReader
import com.google.gson.stream.JsonWriter

/** Reads and writes numbers that JSON has in letters. */
class LongInLettersAdapter : TypeAdapter<Long>() {
    override fun read(reader: JsonReader): Long = reader.nextString().toLong()

    override fun write(
        writer: JsonWriter,
        value: Long,
    ) {
        writer.value(value.toString())
    }
}
