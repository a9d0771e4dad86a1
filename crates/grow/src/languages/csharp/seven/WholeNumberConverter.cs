using System;
using Newtonsoft.Json;

/// <summary>Reads whole numbers as they stand: no fraction is rounded, no text is one.</summary>
internal sealed class WholeNumberConverter : JsonConverter
{
    public override bool CanWrite => false;

    public override bool CanConvert(Type objectType) =>
        objectType == typeof(int)
        || objectType == typeof(long)
        || objectType == typeof(int?)
        || objectType == typeof(long?);

    public override object ReadJson(
        JsonReader reader,
        Type objectType,
        object existingValue,
        JsonSerializer serializer
    )
    {
        var type = Nullable.GetUnderlyingType(objectType);
        if (reader.TokenType == JsonToken.Null && type != null)
        {
            return null;
        }

        if (reader.Value is long number)
        {
            if ((type ?? objectType) == typeof(long))
            {
                return number;
            }

            if (number == (int)number)
            {
                return (int)number;
            }
        }

        var found = reader.Value ?? reader.TokenType;
        throw new JsonSerializationException(
            $"Expected a whole number, found {found}. Path '{reader.Path}'."
        );
    }

    public override void WriteJson(JsonWriter writer, object value, JsonSerializer serializer) =>
        throw new NotSupportedException();
}
