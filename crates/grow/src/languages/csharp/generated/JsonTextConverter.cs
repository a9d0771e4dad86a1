using System;
using System.Text.Json;
using System.Text.Json.Serialization;

/// <summary>Reads and writes values that stand as JSON in a text.</summary>
internal sealed class JsonTextConverter<T> : JsonConverter<T>
{
    public override T Read(
        ref Utf8JsonReader reader,
        Type typeToConvert,
        JsonSerializerOptions options
    )
    {
        var text = reader.GetString() ?? throw new JsonException();
        return JsonSerializer.Deserialize(text, options.TypeInfo<T>()) ?? throw new JsonException();
    }

    public override void Write(Utf8JsonWriter writer, T value, JsonSerializerOptions options) =>
        writer.WriteStringValue(JsonSerializer.Serialize(value, options.TypeInfo<T>()));
}
