package trials;

import com.google.gson.Gson;
import com.google.gson.GsonBuilder;
import com.google.gson.reflect.TypeToken;

/** Decodes a text, and encodes what came of it. */
final class RoundTrip {
  private static final Gson GSON = new GsonBuilder().serializeNulls().create();

  private RoundTrip() {}

  static <T> String of(String text, Class<T> type) {
    return GSON.toJson(GSON.fromJson(text, type), type);
  }

  static <T> String of(String text, TypeToken<T> type) {
    return GSON.toJson(GSON.fromJson(text, type), type.getType());
  }
}
