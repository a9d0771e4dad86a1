import com.google.gson.JsonSyntaxException;
import com.google.gson.TypeAdapter;
import com.google.gson.stream.JsonReader;
import com.google.gson.stream.JsonWriter;
import java.io.IOException;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;

/** Reads and writes date-times without an offset. */
final class LocalDateTimeAdapter extends TypeAdapter<LocalDateTime> {
  @Override
  public LocalDateTime read(JsonReader reader) throws IOException {
    try {
      return LocalDateTime.parse(reader.nextString());
    } catch (DateTimeParseException e) {
      throw new JsonSyntaxException(e.getMessage() + " at path " + reader.getPreviousPath(), e);
    }
  }

  @Override
  public void write(JsonWriter writer, LocalDateTime value) throws IOException {
    writer.value(DateTimeFormatter.ISO_LOCAL_DATE_TIME.format(value));
  }
}
