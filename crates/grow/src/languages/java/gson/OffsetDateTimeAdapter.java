import com.google.gson.JsonSyntaxException;
import com.google.gson.TypeAdapter;
import com.google.gson.stream.JsonReader;
import com.google.gson.stream.JsonWriter;
import java.io.IOException;
import java.time.OffsetDateTime;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;

/** Reads and writes date-times with their offset, as RFC 3339 has them. */
final class OffsetDateTimeAdapter extends TypeAdapter<OffsetDateTime> {
  @Override
  public OffsetDateTime read(JsonReader reader) throws IOException {
    try {
      return OffsetDateTime.parse(reader.nextString());
    } catch (DateTimeParseException e) {
      throw new JsonSyntaxException(e.getMessage() + " at path " + reader.getPreviousPath(), e);
    }
  }

  @Override
  public void write(JsonWriter writer, OffsetDateTime value) throws IOException {
    writer.value(DateTimeFormatter.ISO_OFFSET_DATE_TIME.format(value));
  }
}
