import com.google.gson.GsonBuilder
import com.google.gson.JsonSyntaxException
import com.google.gson.TypeAdapter
import com.google.gson.stream.JsonReader
import com.google.gson.stream.JsonWriter
import java.time.LocalDate
import java.time.LocalDateTime
import java.time.LocalTime
import java.time.OffsetDateTime
import java.time.format.DateTimeFormatter
import java.time.format.DateTimeParseException

/** Reads and writes dates and times as the API has them. */
fun GsonBuilder.withDates(): GsonBuilder =
    registerTypeAdapter(
        OffsetDateTime::class.java,
        dates(OffsetDateTime::parse, DateTimeFormatter.ISO_OFFSET_DATE_TIME::format),
    ).registerTypeAdapter(
        LocalDateTime::class.java,
        dates(LocalDateTime::parse, DateTimeFormatter.ISO_LOCAL_DATE_TIME::format),
    ).registerTypeAdapter(
        LocalDate::class.java,
        dates(LocalDate::parse, DateTimeFormatter.ISO_LOCAL_DATE::format),
    ).registerTypeAdapter(
        LocalTime::class.java,
        dates(LocalTime::parse, DateTimeFormatter.ISO_LOCAL_TIME::format),
    )

private fun <T : Any> dates(
    parse: (String) -> T,
    format: (T) -> String,
): TypeAdapter<T> =
    object : TypeAdapter<T>() {
        override fun read(reader: JsonReader): T =
            try {
                parse(reader.nextString())
            } catch (error: DateTimeParseException) {
                throw JsonSyntaxException("${error.message} at path ${reader.previousPath}", error)
            }

        override fun write(
            writer: JsonWriter,
            value: T,
        ) {
            writer.value(format(value))
        }
    }.nullSafe()
