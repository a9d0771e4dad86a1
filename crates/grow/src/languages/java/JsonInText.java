import com.fasterxml.jackson.annotation.JacksonAnnotationsInside;
import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.ObjectCodec;
import com.fasterxml.jackson.databind.BeanProperty;
import com.fasterxml.jackson.databind.DeserializationContext;
import com.fasterxml.jackson.databind.JavaType;
import com.fasterxml.jackson.databind.JsonDeserializer;
import com.fasterxml.jackson.databind.JsonSerializer;
import com.fasterxml.jackson.databind.SerializerProvider;
import com.fasterxml.jackson.databind.annotation.JsonDeserialize;
import com.fasterxml.jackson.databind.annotation.JsonSerialize;
import com.fasterxml.jackson.databind.deser.ContextualDeserializer;
import java.io.IOException;
import java.io.StringWriter;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;

/** Reads and writes a value that stands as JSON in a text. */
@Retention(RetentionPolicy.RUNTIME)
@JacksonAnnotationsInside
@JsonSerialize(using = JsonInText.Serializer.class)
@JsonDeserialize(using = JsonInText.Deserializer.class)
@interface JsonInText {
  final class Serializer extends JsonSerializer<Object> {
    @Override
    public void serialize(Object value, JsonGenerator generator, SerializerProvider provider)
        throws IOException {
      ObjectCodec codec = generator.getCodec();
      StringWriter text = new StringWriter();
      try (JsonGenerator inside = codec.getFactory().createGenerator(text)) {
        codec.writeValue(inside, value);
      }
      generator.writeString(text.toString());
    }
  }

  final class Deserializer extends JsonDeserializer<Object> implements ContextualDeserializer {
    private final JavaType type;

    Deserializer() {
      this(null);
    }

    private Deserializer(JavaType type) {
      this.type = type;
    }

    @Override
    public JsonDeserializer<?> createContextual(
        DeserializationContext context, BeanProperty property) {
      return new Deserializer(property.getType());
    }

    @Override
    public Object deserialize(JsonParser parser, DeserializationContext context)
        throws IOException {
      ObjectCodec codec = parser.getCodec();
      try (JsonParser inside = codec.getFactory().createParser(parser.getText())) {
        return codec.readValue(inside, type);
      }
    }
  }
}
