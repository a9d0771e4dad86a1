import com.google.gson.TypeAdapter
import com.google.gson.stream.JsonReader
import com.google.gson.stream.JsonWriter
import java.time.Instant

/** Reads and writes points in time that JSON has as the milliseconds since 1970. */
class EpochMillisecondsAdapter : TypeAdapter<Instant>() {
    override fun read(reader: JsonReader): Instant = Instant.ofEpochMilli(reader.nextLong())

    override fun write(
        writer: JsonWriter,
        value: Instant,
    ) {
        writer.value(value.toEpochMilli())
    }
}
