using System;
using System.Text.Json;
using System.Text.Json.Serialization;

/// <summary>Reads and writes a type that is a text with some known values.</summary>
internal abstract class TextConverter<T> : JsonConverter<T>
    where T : struct
{
    protected abstract T Parse(string text);

    public override T Read(
        ref Utf8JsonReader reader,
        Type typeToConvert,
        JsonSerializerOptions options
    ) => Parse(reader.GetString() ?? throw new JsonException());

    public override void Write(Utf8JsonWriter writer, T value, JsonSerializerOptions options) =>
        writer.WriteStringValue(value.ToString());
}
