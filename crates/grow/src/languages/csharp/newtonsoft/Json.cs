using Newtonsoft.Json;

/// <summary>
/// How these types are read: texts in untyped JSON stay texts, though they look like dates, keys such as
/// $ref are keys, and whole numbers are whole.
/// </summary>
internal static class Json
{
    public static JsonSerializerSettings Settings { get; } =
        new JsonSerializerSettings
        {
            Converters = { new WholeNumberConverter() },
            DateParseHandling = DateParseHandling.None,
            MetadataPropertyHandling = MetadataPropertyHandling.Ignore,
        };
}
