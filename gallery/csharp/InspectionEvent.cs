// Grown by Jar Sprout: adf31c50
#nullable enable

using System;
using System.Text.Json.Serialization;

namespace Models;

public sealed record InspectionEvent : Event
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

    [JsonPropertyName("inspection")]
    public required Inspection Inspection { get; init; }
}
