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
import java.time.OffsetDateTime;
import java.time.format.DateTimeFormatter;

/** Reads and writes a date-time with its offset, as RFC 3339 has it. */
@Retention(RetentionPolicy.RUNTIME)
@JacksonAnnotationsInside
@JsonSerialize(using = JsonOffsetDateTime.Serializer.class)
@JsonDeserialize(using = JsonOffsetDateTime.Deserializer.class)
@interface JsonOffsetDateTime {
  final class Serializer extends JsonSerializer<OffsetDateTime> {
    @Override
    public void serialize(
        OffsetDateTime value, JsonGenerator generator, SerializerProvider provider)
        throws IOException {
      generator.writeString(DateTimeFormatter.ISO_OFFSET_DATE_TIME.format(value));
    }
  }

  final class Deserializer extends JsonDeserializer<OffsetDateTime> {
    @Override
    public OffsetDateTime deserialize(JsonParser parser, DeserializationContext context)
        throws IOException {
      return OffsetDateTime.parse(parser.getText());
    }
  }
}
