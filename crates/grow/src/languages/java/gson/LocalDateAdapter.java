import com.google.gson.TypeAdapter;
import com.google.gson.stream.JsonReader;
import com.google.gson.stream.JsonWriter;
import java.io.IOException;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;

/** Reads and writes dates as year, month and day. */
final class LocalDateAdapter extends TypeAdapter<LocalDate> {
  @Override
  public LocalDate read(JsonReader reader) throws IOException {
    return LocalDate.parse(reader.nextString());
  }

  @Override
  public void write(JsonWriter writer, LocalDate value) throws IOException {
    writer.value(DateTimeFormatter.ISO_LOCAL_DATE.format(value));
  }
}
