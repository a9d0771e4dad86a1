using System;
using System.Globalization;
using Newtonsoft.Json;

/// <summary>Reads and writes numbers and truths that JSON has in letters.</summary>
internal sealed class InLettersConverter : JsonConverter
{
    public override bool CanConvert(Type objectType) => true;

    public override object? ReadJson(
        JsonReader reader,
        Type objectType,
        object? existingValue,
        JsonSerializer serializer
    ) =>
        reader.Value is string text
            ? Convert.ChangeType(
                text,
                Nullable.GetUnderlyingType(objectType) ?? objectType,
                CultureInfo.InvariantCulture
            )
            : null;

    public override void WriteJson(JsonWriter writer, object? value, JsonSerializer serializer)
    {
        if (value is double number)
        {
            writer.WriteValue(number.ToString("R", CultureInfo.InvariantCulture));
        }
        else if (value is bool flag)
        {
            writer.WriteValue(flag ? "true" : "false");
        }
        else
        {
            writer.WriteValue(Convert.ToString(value, CultureInfo.InvariantCulture));
        }
    }
}
