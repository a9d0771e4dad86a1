import com.google.gson.JsonDeserializationContext;
import com.google.gson.JsonDeserializer;
import com.google.gson.JsonElement;
import com.google.gson.JsonSerializationContext;
import com.google.gson.JsonSerializer;
import java.lang.reflect.Type;

/** Reads and writes one of several types. */
abstract class UnionAdapter<T> implements JsonDeserializer<T>, JsonSerializer<T> {
  /** The case that fits the JSON. */
  protected abstract T read(JsonElement json, JsonDeserializationContext context);

  /** What is written of a case. */
  protected abstract Object content(T value);

  @Override
  public T deserialize(JsonElement json, Type type, JsonDeserializationContext context) {
    return read(json, context);
  }

  @Override
  public JsonElement serialize(T value, Type type, JsonSerializationContext context) {
    return context.serialize(content(value));
  }

  static String tag(JsonElement json, String key) {
    JsonElement tag = json.isJsonObject() ? json.getAsJsonObject().get(key) : null;
    return tag != null && tag.isJsonPrimitive() ? tag.getAsString() : "";
  }

  static boolean isInteger(JsonElement json) {
    return json.getAsJsonPrimitive().isNumber() && json.getAsString().matches("-?[0-9]+");
  }
}
