import com.squareup.moshi.JsonAdapter
import com.squareup.moshi.JsonDataException
import com.squareup.moshi.JsonReader
import com.squareup.moshi.JsonWriter
import com.squareup.moshi.Moshi
import java.math.BigInteger
import java.time.LocalDate
import java.time.LocalDateTime
import java.time.LocalTime
import java.time.OffsetDateTime
import java.time.format.DateTimeFormatter
import java.time.format.DateTimeParseException
import okio.Buffer

/** Reads and writes dates, times and integers of any size as the API has them. */
fun Moshi.Builder.withDatesAndBigIntegers(): Moshi.Builder =
    add(
        OffsetDateTime::class.java,
        dates(OffsetDateTime::parse, DateTimeFormatter.ISO_OFFSET_DATE_TIME::format),
    ).add(
        LocalDateTime::class.java,
        dates(LocalDateTime::parse, DateTimeFormatter.ISO_LOCAL_DATE_TIME::format),
    ).add(
        LocalDate::class.java,
        dates(LocalDate::parse, DateTimeFormatter.ISO_LOCAL_DATE::format),
    ).add(
        LocalTime::class.java,
        dates(LocalTime::parse, DateTimeFormatter.ISO_LOCAL_TIME::format),
    ).add(BigInteger::class.java, BigIntegers.nullSafe())

private fun <T : Any> dates(
    parse: (String) -> T,
    format: (T) -> String,
): JsonAdapter<T> =
    object : JsonAdapter<T>() {
        override fun fromJson(reader: JsonReader): T =
            try {
                parse(reader.nextString())
            } catch (error: DateTimeParseException) {
                throw JsonDataException("${error.message} at path ${reader.path}", error)
            }

        override fun toJson(
            writer: JsonWriter,
            value: T?,
        ) {
            writer.value(value?.let(format))
        }
    }.nullSafe()

private object BigIntegers : JsonAdapter<BigInteger>() {
    override fun fromJson(reader: JsonReader): BigInteger = reader.nextString().toBigInteger()

    override fun toJson(
        writer: JsonWriter,
        value: BigInteger?,
    ) {
        writer.value(Buffer().writeUtf8(value.toString()))
    }
}
