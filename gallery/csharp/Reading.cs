// Grown by Jar Sprout: fce6546b
#nullable enable

using System.Text.Json.Serialization;

namespace Models;

public sealed record Reading
{
    [JsonPropertyName("t")]
    public required int T { get; init; }

    [JsonPropertyName("limit")]
    public required int Limit { get; init; }
}
