import com.google.gson.Gson;
import com.google.gson.JsonPrimitive;
import com.google.gson.TypeAdapter;
import com.google.gson.TypeAdapterFactory;
import com.google.gson.reflect.TypeToken;
import com.google.gson.stream.JsonReader;
import com.google.gson.stream.JsonToken;
import com.google.gson.stream.JsonWriter;
import java.io.IOException;
import java.util.List;

/** Reads and writes a value in whose place words stand for nothing. */
class OrNothingAdapter implements TypeAdapterFactory {
  private final TypeAdapter<?> inside;
  private final List<String> words;

  OrNothingAdapter(TypeAdapter<?> inside, String... words) {
    this.inside = inside;
    this.words = List.of(words);
  }

  @Override
  @SuppressWarnings("unchecked")
  public <T> TypeAdapter<T> create(Gson gson, TypeToken<T> type) {
    TypeAdapter<T> usual = inside == null ? gson.getAdapter(type) : (TypeAdapter<T>) inside;
    return new TypeAdapter<T>() {
      @Override
      public T read(JsonReader reader) throws IOException {
        JsonToken token = reader.peek();
        if (token == JsonToken.NULL) {
          reader.nextNull();
          return null;
        }
        if (token != JsonToken.STRING) {
          return usual.read(reader);
        }
        String text = reader.nextString();
        return words.contains(text) ? null : usual.fromJsonTree(new JsonPrimitive(text));
      }

      @Override
      public void write(JsonWriter writer, T value) throws IOException {
        if (value == null) {
          writer.value(words.get(0));
        } else {
          usual.write(writer, value);
        }
      }
    };
  }
}
