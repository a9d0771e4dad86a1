using System;
using System.Text.Json;
using System.Text.Json.Serialization;

/// <summary>Reads and writes truths that JSON has in letters.</summary>
internal sealed class BooleanInLettersConverter : JsonConverter<bool>
{
    public override bool Read(
        ref Utf8JsonReader reader,
        Type typeToConvert,
        JsonSerializerOptions options
    ) => bool.TryParse(reader.GetString(), out var flag) ? flag : throw new JsonException();

    public override void Write(Utf8JsonWriter writer, bool value, JsonSerializerOptions options) =>
        writer.WriteStringValue(value ? "true" : "false");
}
