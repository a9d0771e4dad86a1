import com.fasterxml.jackson.annotation.JacksonAnnotationsInside;
import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.databind.DeserializationContext;
import com.fasterxml.jackson.databind.JsonDeserializer;
import com.fasterxml.jackson.databind.JsonSerializer;
import com.fasterxml.jackson.databind.SerializerProvider;
import com.fasterxml.jackson.databind.annotation.JsonDeserialize;
import com.fasterxml.jackson.databind.annotation.JsonSerialize;
import java.io.IOException;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.time.LocalTime;
import java.time.format.DateTimeFormatter;

/** Reads and writes a time of day. */
@Retention(RetentionPolicy.RUNTIME)
@JacksonAnnotationsInside
@JsonSerialize(using = JsonLocalTime.Serializer.class)
@JsonDeserialize(using = JsonLocalTime.Deserializer.class)
@interface JsonLocalTime {
  final class Serializer extends JsonSerializer<LocalTime> {
    @Override
    public void serialize(LocalTime value, JsonGenerator generator, SerializerProvider provider)
        throws IOException {
      generator.writeString(DateTimeFormatter.ISO_LOCAL_TIME.format(value));
    }
  }

  final class Deserializer extends JsonDeserializer<LocalTime> {
    @Override
    public LocalTime deserialize(JsonParser parser, DeserializationContext context)
        throws IOException {
      return LocalTime.parse(parser.getText());
    }
  }
}
