using System;
using System.Globalization;
using System.Text.Json;
using System.Text.Json.Serialization;

/// <summary>Reads and writes times of day as the API has them.</summary>
internal sealed class TimeOnlyConverter : JsonConverter<TimeOnly>
{
    private const string Local = "HH:mm:ss.FFFFFFF";

    public override TimeOnly Read(
        ref Utf8JsonReader reader,
        Type typeToConvert,
        JsonSerializerOptions options
    ) =>
        TimeOnly.ParseExact(
            reader.GetString() ?? "",
            "HH:mm:ss.FFFFFFF",
            CultureInfo.InvariantCulture,
            DateTimeStyles.None
        );

    public override void Write(Utf8JsonWriter writer, TimeOnly value, JsonSerializerOptions options)
    {
        writer.WriteStringValue(value.ToString(Local, CultureInfo.InvariantCulture));
    }
}
