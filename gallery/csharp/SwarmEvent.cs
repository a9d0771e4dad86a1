// Grown by Jar Sprout: e9ba725e
#nullable enable

using System;
using System.Collections.Generic;
using System.Text.Json.Serialization;

namespace Models;

public sealed record SwarmEvent : Event
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

    [JsonPropertyName("caught")]
    public required bool Caught { get; init; }

    [JsonPropertyName("seen_by")]
    public required IReadOnlyList<string> SeenBy { get; init; }
}
