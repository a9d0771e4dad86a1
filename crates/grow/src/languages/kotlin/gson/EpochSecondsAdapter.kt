import com.google.gson.TypeAdapter
import com.google.gson.stream.JsonReader
import com.google.gson.stream.JsonWriter
import java.time.Instant

/** Reads and writes points in time that JSON has as the seconds since 1970. */
class EpochSecondsAdapter : TypeAdapter<Instant>() {
    override fun read(reader: JsonReader): Instant = Instant.ofEpochSecond(reader.nextLong())

    override fun write(
        writer: JsonWriter,
        value: Instant,
    ) {
        writer.value(value.epochSecond)
    }
}
