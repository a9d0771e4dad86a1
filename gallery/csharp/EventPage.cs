// Grown by Jar Sprout: e6db6f41
#nullable enable

using System.Collections.Generic;
using System.Text.Json.Serialization;

namespace Models;

public sealed record EventPage
{
    [JsonPropertyName("events")]
    public required IReadOnlyList<Event> Events { get; init; }

    [JsonPropertyName("cursor")]
    public required string Cursor { get; init; }

    [JsonPropertyName("more")]
    public required bool More { get; init; }
}
