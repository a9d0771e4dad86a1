import com.google.gson.TypeAdapter;
import com.google.gson.stream.JsonReader;
import com.google.gson.stream.JsonWriter;
import java.io.IOException;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;

/** Reads and writes date-times without an offset. */
final class LocalDateTimeAdapter extends TypeAdapter<LocalDateTime> {
  @Override
  public LocalDateTime read(JsonReader reader) throws IOException {
    return LocalDateTime.parse(reader.nextString());
  }

  @Override
  public void write(JsonWriter writer, LocalDateTime value) throws IOException {
    writer.value(DateTimeFormatter.ISO_LOCAL_DATE_TIME.format(value));
  }
}
