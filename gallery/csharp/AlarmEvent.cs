// Grown by Jar Sprout: 19bc0f77
#nullable enable

using System;
using System.Text.Json.Serialization;

namespace Models;

public sealed record AlarmEvent : Event
{
    [JsonPropertyName("id")]
    public required string Id { get; init; }

    [JsonPropertyName("kind")]
    public required string Kind { get; init; }

    [JsonPropertyName("at")]
    [JsonConverter(typeof(Rfc3339Converter))]
    public required DateTimeOffset At { get; init; }

    [JsonPropertyName("hive")]
    public required long Hive { get; init; }

    [JsonPropertyName("sensor")]
    public required string Sensor { get; init; }

    [JsonPropertyName("reading")]
    public required Reading Reading { get; init; }

    [JsonPropertyName("level")]
    public required string Level { get; init; }
}
