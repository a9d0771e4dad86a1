package trials;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;

/** Every line of standard input names a trial, a sample to read and a result to write. */
public final class Driver {
  /** Decodes a text, and encodes what came of it. */
  interface Trial {
    String roundTrip(String text) throws IOException;
  }

  private Driver() {}

  /**
   * Runs all trials.
   *
   * @param arguments none
   * @throws IOException when a file cannot be read or written
   */
  public static void main(String[] arguments) throws IOException {
    BufferedReader lines =
        new BufferedReader(new InputStreamReader(System.in, StandardCharsets.UTF_8));
    for (String line = lines.readLine(); line != null; line = lines.readLine()) {
      String[] parts = line.split("\t");
      try {
        String text = Files.readString(Path.of(parts[1]));
        Files.writeString(Path.of(parts[2]), Trials.ALL.get(parts[0]).roundTrip(text));
      } catch (IOException | RuntimeException failure) {
        System.out.println(
            parts[0] + "\t" + parts[1] + "\t" + failure.toString().replaceAll("\\s+", " "));
      }
    }
  }
}
