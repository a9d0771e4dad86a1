/// A date, with or without a time and an offset, as ISO 8601 writes it.
///
/// The text is kept, since [DateTime] forgets the offset.
class IsoDate {
  IsoDate(this.dateTime) : text = dateTime.toIso8601String();

  IsoDate.parse(this.text) : dateTime = DateTime.parse(text);

  factory IsoDate.fromJson(String json) => IsoDate.parse(json);

  final DateTime dateTime;
  final String text;

  String toJson() => text;

  @override
  bool operator ==(Object other) => other is IsoDate && other.text == text;

  @override
  int get hashCode => text.hashCode;

  @override
  String toString() => text;
}
