// Grown by Jar Sprout: 5e32b347

class EventPage {
  const EventPage({
    required this.events,
    required this.cursor,
    required this.more,
  });

  factory EventPage.fromJson(Map<String, dynamic> json) => EventPage(
    events: [
      for (final item in json['events'] as List<dynamic>)
        Event.fromJson(item as Map<String, dynamic>),
    ],
    cursor: json['cursor'] as String,
    more: json['more'] as bool,
  );

  final List<Event> events;
  final String cursor;
  final bool more;

  Map<String, dynamic> toJson() => {
    'events': [for (final item in events) item.toJson()],
    'cursor': cursor,
    'more': more,
  };
}

sealed class Event {
  const Event();

  factory Event.fromJson(Map<String, dynamic> json) => switch (json['kind']) {
    'inspection' => InspectionEvent.fromJson(json),
    'harvest' => HarvestEvent.fromJson(json),
    'swarm' => SwarmEvent.fromJson(json),
    'alarm' => AlarmEvent.fromJson(json),
    _ => EventUnknown(json),
  };

  Map<String, dynamic> toJson();
}

/// A kind that is not known yet.
class EventUnknown extends Event {
  const EventUnknown(this.value);

  final Map<String, dynamic> value;

  @override
  Map<String, dynamic> toJson() => value;
}

class InspectionEvent extends Event {
  const InspectionEvent({
    required this.id,
    this.kind = 'inspection',
    required this.at,
    required this.hive,
    required this.inspection,
  });

  factory InspectionEvent.fromJson(Map<String, dynamic> json) =>
      InspectionEvent(
        id: json['id'] as String,
        kind: json['kind'] as String,
        at: IsoDate.parse(json['at'] as String),
        hive: json['hive'] as int,
        inspection: Inspection.fromJson(
          json['inspection'] as Map<String, dynamic>,
        ),
      );

  final String id;
  final String kind;
  final IsoDate at;
  final int hive;
  final Inspection inspection;

  @override
  Map<String, dynamic> toJson() => {
    'id': id,
    'kind': kind,
    'at': at.toJson(),
    'hive': hive,
    'inspection': inspection.toJson(),
  };
}

class Inspection {
  const Inspection({
    required this.id,
    required this.date,
    required this.inspector,
    required this.framesOfBrood,
    required this.mitesPer100,
    required this.temper,
    this.remarks,
  });

  factory Inspection.fromJson(Map<String, dynamic> json) => Inspection(
    id: json['id'] as String,
    date: IsoDate.parse(json['date'] as String),
    inspector: json['inspector'] as String,
    framesOfBrood: json['frames_of_brood'] as int,
    mitesPer100: json['mites_per_100'] as int,
    temper: json['temper'] as String,
    remarks: json['remarks'] as String?,
  );

  final String id;
  final IsoDate date;
  final String inspector;
  final int framesOfBrood;
  final int mitesPer100;
  final String temper;
  final String? remarks;

  Map<String, dynamic> toJson() => {
    'id': id,
    'date': date.toJson(),
    'inspector': inspector,
    'frames_of_brood': framesOfBrood,
    'mites_per_100': mitesPer100,
    'temper': temper,
    if (remarks != null) 'remarks': remarks,
  };
}

class HarvestEvent extends Event {
  const HarvestEvent({
    required this.id,
    this.kind = 'harvest',
    required this.at,
    required this.hive,
    required this.kg,
    required this.batch,
    required this.frames,
  });

  factory HarvestEvent.fromJson(Map<String, dynamic> json) => HarvestEvent(
    id: json['id'] as String,
    kind: json['kind'] as String,
    at: IsoDate.parse(json['at'] as String),
    hive: json['hive'] as int,
    kg: (json['kg'] as num).toDouble(),
    batch: json['batch'] as String,
    frames: json['frames'] as int,
  );

  final String id;
  final String kind;
  final IsoDate at;
  final int hive;
  final double kg;
  final String batch;
  final int frames;

  @override
  Map<String, dynamic> toJson() => {
    'id': id,
    'kind': kind,
    'at': at.toJson(),
    'hive': hive,
    'kg': kg,
    'batch': batch,
    'frames': frames,
  };
}

class SwarmEvent extends Event {
  const SwarmEvent({
    required this.id,
    this.kind = 'swarm',
    required this.at,
    required this.hive,
    required this.caught,
    required this.seenBy,
  });

  factory SwarmEvent.fromJson(Map<String, dynamic> json) => SwarmEvent(
    id: json['id'] as String,
    kind: json['kind'] as String,
    at: IsoDate.parse(json['at'] as String),
    hive: json['hive'] as int,
    caught: json['caught'] as bool,
    seenBy: [
      for (final item in json['seen_by'] as List<dynamic>) item as String,
    ],
  );

  final String id;
  final String kind;
  final IsoDate at;
  final int hive;
  final bool caught;
  final List<String> seenBy;

  @override
  Map<String, dynamic> toJson() => {
    'id': id,
    'kind': kind,
    'at': at.toJson(),
    'hive': hive,
    'caught': caught,
    'seen_by': seenBy,
  };
}

class AlarmEvent extends Event {
  const AlarmEvent({
    required this.id,
    this.kind = 'alarm',
    required this.at,
    required this.hive,
    required this.sensor,
    required this.reading,
    required this.level,
  });

  factory AlarmEvent.fromJson(Map<String, dynamic> json) => AlarmEvent(
    id: json['id'] as String,
    kind: json['kind'] as String,
    at: IsoDate.parse(json['at'] as String),
    hive: json['hive'] as int,
    sensor: json['sensor'] as String,
    reading: Reading.fromJson(json['reading'] as Map<String, dynamic>),
    level: json['level'] as String,
  );

  final String id;
  final String kind;
  final IsoDate at;
  final int hive;
  final String sensor;
  final Reading reading;
  final String level;

  @override
  Map<String, dynamic> toJson() => {
    'id': id,
    'kind': kind,
    'at': at.toJson(),
    'hive': hive,
    'sensor': sensor,
    'reading': reading.toJson(),
    'level': level,
  };
}

class Reading {
  const Reading({required this.t, required this.limit});

  factory Reading.fromJson(Map<String, dynamic> json) => Reading(
    t: json['t'] as int,
    limit: json['limit'] as int,
  );

  final int t;
  final int limit;

  Map<String, dynamic> toJson() => {'t': t, 'limit': limit};
}

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
