using System;
using System.Text.Json;
using System.Text.Json.Serialization;

/// <summary>Reads and writes points in time that JSON has as the milliseconds since 1970.</summary>
internal sealed class EpochMillisecondsConverter : JsonConverter<DateTimeOffset>
{
    public override DateTimeOffset Read(
        ref Utf8JsonReader reader,
        Type typeToConvert,
        JsonSerializerOptions options
    ) => DateTimeOffset.FromUnixTimeMilliseconds(reader.GetInt64());

    public override void Write(
        Utf8JsonWriter writer,
        DateTimeOffset value,
        JsonSerializerOptions options
    ) => writer.WriteNumberValue(value.ToUnixTimeMilliseconds());
}
