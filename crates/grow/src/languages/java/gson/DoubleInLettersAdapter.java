import com.google.gson.TypeAdapter;
import com.google.gson.stream.JsonReader;
import com.google.gson.stream.JsonWriter;
import java.io.IOException;

/** Reads and writes numbers that JSON has in letters. */
final class DoubleInLettersAdapter extends TypeAdapter<Double> {
  @Override
  public Double read(JsonReader reader) throws IOException {
    return Double.valueOf(reader.nextString());
  }

  @Override
  public void write(JsonWriter writer, Double value) throws IOException {
    writer.value(value.toString());
  }
}
