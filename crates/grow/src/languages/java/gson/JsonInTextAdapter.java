import com.google.gson.Gson;
import com.google.gson.TypeAdapter;
import com.google.gson.TypeAdapterFactory;
import com.google.gson.reflect.TypeToken;
import com.google.gson.stream.JsonReader;
import com.google.gson.stream.JsonWriter;
import java.io.IOException;

/** Reads and writes values that stand as JSON in a text. */
final class JsonInTextAdapter implements TypeAdapterFactory {
  @Override
  public <T> TypeAdapter<T> create(Gson gson, TypeToken<T> type) {
    TypeAdapter<T> inside = gson.getAdapter(type);
    return new TypeAdapter<T>() {
      @Override
      public T read(JsonReader reader) throws IOException {
        return inside.fromJson(reader.nextString());
      }

      @Override
      public void write(JsonWriter writer, T value) throws IOException {
        writer.value(inside.toJson(value));
      }
    };
  }
}
