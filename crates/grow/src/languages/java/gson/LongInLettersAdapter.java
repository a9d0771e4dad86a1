import com.google.gson.TypeAdapter;
import com.google.gson.stream.JsonReader;
import com.google.gson.stream.JsonWriter;
import java.io.IOException;

/** Reads and writes numbers that JSON has in letters. */
final class LongInLettersAdapter extends TypeAdapter<Long> {
  @Override
  public Long read(JsonReader reader) throws IOException {
    return Long.valueOf(reader.nextString());
  }

  @Override
  public void write(JsonWriter writer, Long value) throws IOException {
    writer.value(value.toString());
  }
}
