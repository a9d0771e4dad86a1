import com.google.gson.TypeAdapter;
import com.google.gson.stream.JsonReader;
import com.google.gson.stream.JsonWriter;
import java.io.IOException;
import java.time.Instant;

/** Reads and writes points in time that JSON has as the seconds since 1970. */
final class EpochSecondsAdapter extends TypeAdapter<Instant> {
  @Override
  public Instant read(JsonReader reader) throws IOException {
    return Instant.ofEpochSecond(reader.nextLong());
  }

  @Override
  public void write(JsonWriter writer, Instant value) throws IOException {
    writer.value(value.getEpochSecond());
  }
}
