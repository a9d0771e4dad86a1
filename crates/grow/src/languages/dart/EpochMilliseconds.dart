/// A point in time, in UTC, that JSON has as the milliseconds since 1970.
class EpochMilliseconds {
  const EpochMilliseconds(this.dateTime);

  factory EpochMilliseconds.fromJson(int json) => EpochMilliseconds(
    DateTime.fromMillisecondsSinceEpoch(json, isUtc: true),
  );

  final DateTime dateTime;

  int toJson() => dateTime.millisecondsSinceEpoch;

  @override
  bool operator ==(Object other) =>
      other is EpochMilliseconds && other.dateTime.isAtSameMomentAs(dateTime);

  @override
  int get hashCode => dateTime.millisecondsSinceEpoch.hashCode;

  @override
  String toString() => dateTime.toString();
}
