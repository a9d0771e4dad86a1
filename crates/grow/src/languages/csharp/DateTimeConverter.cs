using System;
using System.Globalization;
using System.Text.Json;
using System.Text.Json.Serialization;

/// <summary>Reads and writes date-times without an offset, as the API has them.</summary>
internal sealed class DateTimeConverter : JsonConverter<DateTime>
{
    private const string Local = "yyyy-MM-dd'T'HH:mm:ss.FFFFFFF";

    public override DateTime Read(
        ref Utf8JsonReader reader,
        Type typeToConvert,
        JsonSerializerOptions options
    ) => reader.GetDateTime();

    public override void Write(Utf8JsonWriter writer, DateTime value, JsonSerializerOptions options)
    {
        writer.WriteStringValue(value.ToString(Local, CultureInfo.InvariantCulture));
    }
}
