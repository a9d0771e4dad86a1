// Grown by Jar Sprout: a26a7a30
#nullable enable

using System;
using System.Text.Json.Serialization;

namespace Models;

public sealed record HarvestEvent : Event
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

    [JsonPropertyName("kg")]
    public required double Kg { get; init; }

    [JsonPropertyName("batch")]
    public required string Batch { get; init; }

    [JsonPropertyName("frames")]
    public required int Frames { get; init; }
}
