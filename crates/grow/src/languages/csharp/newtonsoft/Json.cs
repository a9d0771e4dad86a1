using Newtonsoft.Json;

/// <summary>
/// How these types are read: texts in untyped JSON stay texts, though they look like dates, and keys such as
/// $ref are keys.
/// </summary>
internal static class Json
{
    public static JsonSerializerSettings Settings { get; } =
        new JsonSerializerSettings
        {
            DateParseHandling = DateParseHandling.None,
            MetadataPropertyHandling = MetadataPropertyHandling.Ignore,
        };
}
