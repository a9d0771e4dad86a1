bool _deepEquals(Object? a, Object? b) => switch ((a, b)) {
  (final List<Object?> a, final List<Object?> b) =>
    a.length == b.length &&
        Iterable.generate(a.length).every((at) => _deepEquals(a[at], b[at])),
  (final Map<String, Object?> a, final Map<String, Object?> b) =>
    a.length == b.length &&
        a.keys.every((key) => b.containsKey(key) && _deepEquals(a[key], b[key])),
  _ => a == b,
};

int _deepHash(Object? value) => switch (value) {
  final List<Object?> list => Object.hashAll(list.map(_deepHash)),
  final Map<String, Object?> map => Object.hashAllUnordered(
    map.entries.map((entry) => Object.hash(entry.key, _deepHash(entry.value))),
  ),
  _ => value.hashCode,
};
