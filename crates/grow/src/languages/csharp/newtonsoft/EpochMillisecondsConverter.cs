using System;
using Newtonsoft.Json;

/// <summary>Reads and writes points in time that JSON has as the milliseconds since 1970.</summary>
internal sealed class EpochMillisecondsConverter : JsonConverter
{
    public override bool CanConvert(Type objectType) => true;

    public override object? ReadJson(
        JsonReader reader,
        Type objectType,
        object? existingValue,
        JsonSerializer serializer
    )
    {
        if (reader.Value is long number)
        {
            return DateTimeOffset.FromUnixTimeMilliseconds(number);
        }
        return null;
    }

    public override void WriteJson(JsonWriter writer, object? value, JsonSerializer serializer)
    {
        if (value is DateTimeOffset time)
        {
            writer.WriteValue(time.ToUnixTimeMilliseconds());
        }
    }
}
