using System;
using System.Globalization;
using System.Text.Json;
using System.Text.Json.Serialization;

/// <summary>Reads and writes numbers that JSON has in letters.</summary>
internal sealed class DoubleInLettersConverter : JsonConverter<double>
{
    public override double Read(
        ref Utf8JsonReader reader,
        Type typeToConvert,
        JsonSerializerOptions options
    ) =>
        double.TryParse(
            reader.GetString(),
            NumberStyles.Float,
            CultureInfo.InvariantCulture,
            out var number
        )
            ? number
            : throw new JsonException();

    public override void Write(
        Utf8JsonWriter writer,
        double value,
        JsonSerializerOptions options
    ) => writer.WriteStringValue(value.ToString(CultureInfo.InvariantCulture));
}
