using System;
using System.Globalization;
using System.Numerics;
using System.Text.Json;
using System.Text.Json.Serialization;

/// <summary>Reads and writes integers of any length.</summary>
internal sealed class BigIntegerConverter : JsonConverter<BigInteger>
{
    public override BigInteger Read(
        ref Utf8JsonReader reader,
        Type typeToConvert,
        JsonSerializerOptions options
    )
    {
        using var document = JsonDocument.ParseValue(ref reader);
        return BigInteger.Parse(document.RootElement.GetRawText(), CultureInfo.InvariantCulture);
    }

    public override void Write(
        Utf8JsonWriter writer,
        BigInteger value,
        JsonSerializerOptions options
    ) => writer.WriteRawValue(value.ToString(CultureInfo.InvariantCulture));
}
