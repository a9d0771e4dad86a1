import com.fasterxml.jackson.annotation.JsonValue;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.databind.BeanProperty;
import com.fasterxml.jackson.databind.DeserializationContext;
import com.fasterxml.jackson.databind.JavaType;
import com.fasterxml.jackson.databind.JsonDeserializer;
import com.fasterxml.jackson.databind.annotation.JsonDeserialize;
import com.fasterxml.jackson.databind.deser.ContextualDeserializer;
import java.io.IOException;

/** A value, perhaps null. Where there is no such thing, the key is absent: it is left alone. */
@JsonDeserialize(using = Maybe.Deserializer.class)
public record Maybe<T>(T value) {
  @Override
  @JsonValue
  public T value() {
    return value;
  }

  static final class Deserializer extends JsonDeserializer<Maybe<?>>
      implements ContextualDeserializer {
    private final JavaType content;

    Deserializer() {
      this(null);
    }

    private Deserializer(JavaType content) {
      this.content = content;
    }

    @Override
    public JsonDeserializer<?> createContextual(
        DeserializationContext context, BeanProperty property) {
      return new Deserializer(context.getContextualType().containedType(0));
    }

    @Override
    public Maybe<?> deserialize(JsonParser parser, DeserializationContext context)
        throws IOException {
      return new Maybe<>(context.<Object>readValue(parser, content));
    }

    @Override
    public Maybe<?> getNullValue(DeserializationContext context) {
      return new Maybe<>(null);
    }

    @Override
    public Object getAbsentValue(DeserializationContext context) {
      return null;
    }
  }
}
