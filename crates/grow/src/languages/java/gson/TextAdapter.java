import com.google.gson.TypeAdapter;
import com.google.gson.stream.JsonReader;
import com.google.gson.stream.JsonWriter;
import java.io.IOException;
import java.util.function.Function;

/** Reads and writes a record around a text as the text. */
abstract class TextAdapter<T> extends TypeAdapter<T> {
  private final Function<String, T> wrap;
  private final Function<T, String> unwrap;

  TextAdapter(Function<String, T> wrap, Function<T, String> unwrap) {
    this.wrap = wrap;
    this.unwrap = unwrap;
  }

  @Override
  public T read(JsonReader reader) throws IOException {
    return wrap.apply(reader.nextString());
  }

  @Override
  public void write(JsonWriter writer, T value) throws IOException {
    writer.value(unwrap.apply(value));
  }
}
