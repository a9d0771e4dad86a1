/// A value, perhaps null. Where there is none of it, nothing is written: what is
/// absent is left alone.
class Maybe<T> {
  const Maybe(this.value);

  final T value;

  @override
  bool operator ==(Object other) => other is Maybe<T> && other.value == value;

  @override
  int get hashCode => value.hashCode;
}
