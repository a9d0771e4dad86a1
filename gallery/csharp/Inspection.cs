// Grown by Jar Sprout: 49975d85
#nullable enable

using System;
using System.Text.Json.Serialization;

namespace Models;

public sealed record Inspection
{
    [JsonPropertyName("id")]
    public required string Id { get; init; }

    [JsonPropertyName("date")]
    public required DateOnly Date { get; init; }

    [JsonPropertyName("inspector")]
    public required string Inspector { get; init; }

    [JsonPropertyName("frames_of_brood")]
    public required int FramesOfBrood { get; init; }

    [JsonPropertyName("mites_per_100")]
    public required int MitesPer100 { get; init; }

    [JsonPropertyName("temper")]
    public required string Temper { get; init; }

    [JsonPropertyName("remarks")]
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public string? Remarks { get; init; }
}
