import com.google.gson.TypeAdapter
import com.google.gson.stream.JsonReader
import com.google.gson.stream.JsonWriter

/** Reads and writes numbers that JSON has in letters. */
class DoubleInLettersAdapter : TypeAdapter<Double>() {
    override fun read(reader: JsonReader): Double = reader.nextString().toDouble()

    override fun write(
        writer: JsonWriter,
        value: Double,
    ) {
        writer.value(value.toString())
    }
}
