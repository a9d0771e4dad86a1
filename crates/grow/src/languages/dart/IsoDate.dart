/// A date, with or without a time and an offset, as ISO 8601 writes it.
///
/// The text is kept, since [DateTime] forgets the offset.
class IsoDate {
  /// A point in time, written in UTC.
  IsoDate(DateTime dateTime)
    : this._(dateTime, dateTime.toUtc().toIso8601String());

  /// A day, written without a time.
  IsoDate.date(DateTime dateTime)
    : this._(dateTime, dateTime.toIso8601String().split('T').first);

  /// What is written so; a [FormatException] if that is no date.
  IsoDate.parse(String text) : this._(_parsed(text), text);

  factory IsoDate.fromJson(String json) => IsoDate.parse(json);

  const IsoDate._(this.dateTime, this.text);

  final DateTime dateTime;
  final String text;

  static DateTime _parsed(String text) {
    final dateTime = DateTime.parse(text);
    // A day that its month does not have would be one of the next.
    if (text.length >= 10 && text[4] == '-' && text[7] == '-') {
      final [year, month, day] = text.substring(0, 10).split('-');
      final date = DateTime.utc(int.parse(year), int.parse(month), int.parse(day));
      if (date.day != int.parse(day)) throw FormatException('No such day', text);
    }
    return dateTime;
  }

  String toJson() => text;

  @override
  bool operator ==(Object other) => other is IsoDate && other.text == text;

  @override
  int get hashCode => text.hashCode;

  @override
  String toString() => text;
}
