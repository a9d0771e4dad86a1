import com.google.gson.TypeAdapter;
import com.google.gson.stream.JsonReader;
import com.google.gson.stream.JsonWriter;
import java.io.IOException;

/** Reads and writes truths that JSON has in letters. */
final class BooleanInLettersAdapter extends TypeAdapter<Boolean> {
  @Override
  public Boolean read(JsonReader reader) throws IOException {
    return Boolean.valueOf(reader.nextString());
  }

  @Override
  public void write(JsonWriter writer, Boolean value) throws IOException {
    writer.value(value.toString());
  }
}
