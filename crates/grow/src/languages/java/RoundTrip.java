package trials;

import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;

/** Decodes a text, and encodes what came of it. */
final class RoundTrip {
  private static final ObjectMapper MAPPER =
      new ObjectMapper().disable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES);

  private RoundTrip() {}

  static <T> String of(String text, Class<T> type) throws IOException {
    return MAPPER.writeValueAsString(MAPPER.readValue(text, type));
  }

  static <T> String of(String text, TypeReference<T> type) throws IOException {
    return MAPPER.writeValueAsString(MAPPER.readValue(text, type));
  }
}
