import com.google.gson.TypeAdapter
import com.google.gson.stream.JsonReader
import com.google.gson.stream.JsonWriter
import java.math.BigDecimal

/** Reads and writes numbers that JSON has in letters. */
class BigDecimalInLettersAdapter : TypeAdapter<BigDecimal>() {
    override fun read(reader: JsonReader): BigDecimal = reader.nextString().toBigDecimal()

    override fun write(
        writer: JsonWriter,
        value: BigDecimal,
    ) {
        writer.value(value.toPlainString())
    }
}
