import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.Function;

/** Maps with other values, in the order in which they came. */
final class Values {
  private Values() {}

  static <A, B> Map<String, B> of(Map<String, A> map, Function<A, B> function) {
    Map<String, B> made = new LinkedHashMap<>();
    map.forEach((key, value) -> made.put(key, function.apply(value)));
    return made;
  }
}
