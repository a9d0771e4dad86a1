import com.google.gson.TypeAdapter;
import com.google.gson.stream.JsonReader;
import com.google.gson.stream.JsonWriter;
import java.io.IOException;
import java.math.BigDecimal;

/** Reads and writes numbers that JSON has in letters. */
final class BigDecimalInLettersAdapter extends TypeAdapter<BigDecimal> {
  @Override
  public BigDecimal read(JsonReader reader) throws IOException {
    return new BigDecimal(reader.nextString());
  }

  @Override
  public void write(JsonWriter writer, BigDecimal value) throws IOException {
    writer.value(value.toPlainString());
  }
}
