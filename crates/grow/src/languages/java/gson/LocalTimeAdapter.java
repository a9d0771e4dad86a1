import com.google.gson.JsonSyntaxException;
import com.google.gson.TypeAdapter;
import com.google.gson.stream.JsonReader;
import com.google.gson.stream.JsonWriter;
import java.io.IOException;
import java.time.LocalTime;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;

/** Reads and writes times of day. */
final class LocalTimeAdapter extends TypeAdapter<LocalTime> {
  @Override
  public LocalTime read(JsonReader reader) throws IOException {
    try {
      return LocalTime.parse(reader.nextString());
    } catch (DateTimeParseException e) {
      throw new JsonSyntaxException(e.getMessage() + " at path " + reader.getPreviousPath(), e);
    }
  }

  @Override
  public void write(JsonWriter writer, LocalTime value) throws IOException {
    writer.value(DateTimeFormatter.ISO_LOCAL_TIME.format(value));
  }
}
