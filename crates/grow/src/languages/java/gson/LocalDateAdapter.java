import com.google.gson.JsonSyntaxException;
import com.google.gson.TypeAdapter;
import com.google.gson.stream.JsonReader;
import com.google.gson.stream.JsonWriter;
import java.io.IOException;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;

/** Reads and writes dates as year, month and day. */
final class LocalDateAdapter extends TypeAdapter<LocalDate> {
  @Override
  public LocalDate read(JsonReader reader) throws IOException {
    try {
      return LocalDate.parse(reader.nextString());
    } catch (DateTimeParseException e) {
      throw new JsonSyntaxException(e.getMessage() + " at path " + reader.getPreviousPath(), e);
    }
  }

  @Override
  public void write(JsonWriter writer, LocalDate value) throws IOException {
    writer.value(DateTimeFormatter.ISO_LOCAL_DATE.format(value));
  }
}
