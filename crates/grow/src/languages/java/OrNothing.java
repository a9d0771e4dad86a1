import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonToken;
import com.fasterxml.jackson.databind.BeanProperty;
import com.fasterxml.jackson.databind.DeserializationContext;
import com.fasterxml.jackson.databind.JsonDeserializer;
import com.fasterxml.jackson.databind.JsonMappingException;
import com.fasterxml.jackson.databind.JsonSerializer;
import com.fasterxml.jackson.databind.SerializerProvider;
import com.fasterxml.jackson.databind.deser.ContextualDeserializer;
import java.io.IOException;
import java.util.List;

/** Reads a value, or nothing where one of some words stands. */
class OrNothing extends JsonDeserializer<Object> implements ContextualDeserializer {
  private final JsonDeserializer<?> inside;
  private final List<String> words;

  OrNothing(JsonDeserializer<?> inside, String... words) {
    this.inside = inside;
    this.words = List.of(words);
  }

  @Override
  public JsonDeserializer<?> createContextual(DeserializationContext context, BeanProperty property)
      throws JsonMappingException {
    if (inside != null) {
      return this;
    }
    JsonDeserializer<?> usual =
        context.findContextualValueDeserializer(property.getType(), property);
    return new OrNothing(usual, words.toArray(String[]::new));
  }

  @Override
  public Object deserialize(JsonParser parser, DeserializationContext context) throws IOException {
    boolean isText = parser.currentToken() == JsonToken.VALUE_STRING;
    if (isText && words.contains(parser.getText())) {
      return null;
    }
    return inside.deserialize(parser, context);
  }

  /** Writes a word where there is no value. */
  static class Word extends JsonSerializer<Object> {
    private final String word;

    Word(String word) {
      this.word = word;
    }

    @Override
    public void serialize(Object value, JsonGenerator generator, SerializerProvider provider)
        throws IOException {
      generator.writeString(word);
    }
  }
}
