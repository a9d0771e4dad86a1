/// A point in time, in UTC, that JSON has as the seconds since 1970.
class EpochSeconds {
  const EpochSeconds(this.dateTime);

  factory EpochSeconds.fromJson(int json) => EpochSeconds(
    DateTime.fromMillisecondsSinceEpoch(json * 1000, isUtc: true),
  );

  final DateTime dateTime;

  int toJson() => dateTime.millisecondsSinceEpoch ~/ 1000;

  @override
  bool operator ==(Object other) =>
      other is EpochSeconds && other.dateTime.isAtSameMomentAs(dateTime);

  @override
  int get hashCode => dateTime.millisecondsSinceEpoch.hashCode;

  @override
  String toString() => dateTime.toString();
}
