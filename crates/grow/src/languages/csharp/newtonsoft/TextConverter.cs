using System;
using Newtonsoft.Json;

/// <summary>Reads and writes a type that is a text with some known values.</summary>
internal abstract class TextConverter<T> : JsonConverter
    where T : struct
{
    protected abstract T Parse(string text);

    public override bool CanConvert(Type objectType) => objectType == typeof(T);

    public override object? ReadJson(
        JsonReader reader,
        Type objectType,
        object? existingValue,
        JsonSerializer serializer
    )
    {
        if (reader.Value is string text)
        {
            return Parse(text);
        }

        if (reader.TokenType == JsonToken.Null && Nullable.GetUnderlyingType(objectType) != null)
        {
            return null;
        }

        throw new JsonSerializationException($"not a {typeof(T).Name}: path '{reader.Path}'");
    }

    public override void WriteJson(JsonWriter writer, object? value, JsonSerializer serializer)
    {
        if (value is T)
        {
            writer.WriteValue(value.ToString());
        }
        else
        {
            writer.WriteNull();
        }
    }
}
