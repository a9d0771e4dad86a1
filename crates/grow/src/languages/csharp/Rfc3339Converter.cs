using System;
using System.Globalization;
using System.Text.Json;
using System.Text.Json.Serialization;

/// <summary>Reads and writes date-times with their offset, as RFC 3339 has them.</summary>
internal sealed class Rfc3339Converter : JsonConverter<DateTimeOffset>
{
    private const string Local = "yyyy-MM-dd'T'HH:mm:ss.FFFFFFF";

    public override DateTimeOffset Read(
        ref Utf8JsonReader reader,
        Type typeToConvert,
        JsonSerializerOptions options
    ) => reader.GetDateTimeOffset();

    public override void Write(
        Utf8JsonWriter writer,
        DateTimeOffset value,
        JsonSerializerOptions options
    )
    {
        var format = value.Offset == TimeSpan.Zero ? Local + "'Z'" : Local + "zzz";
        // As it is: a string's encoder would write the sign of an offset as an escape.
        writer.WriteRawValue($"\"{value.ToString(format, CultureInfo.InvariantCulture)}\"");
    }
}
