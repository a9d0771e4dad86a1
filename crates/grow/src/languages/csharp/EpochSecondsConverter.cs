using System;
using System.Text.Json;
using System.Text.Json.Serialization;

/// <summary>Reads and writes points in time that JSON has as the seconds since 1970.</summary>
internal sealed class EpochSecondsConverter : JsonConverter<DateTimeOffset>
{
    public override DateTimeOffset Read(
        ref Utf8JsonReader reader,
        Type typeToConvert,
        JsonSerializerOptions options
    ) => DateTimeOffset.FromUnixTimeSeconds(reader.GetInt64());

    public override void Write(
        Utf8JsonWriter writer,
        DateTimeOffset value,
        JsonSerializerOptions options
    ) => writer.WriteNumberValue(value.ToUnixTimeSeconds());
}
