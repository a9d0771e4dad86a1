using System.Text.Json;

/// <summary>How responses are read: a null where its type has none is an error.</summary>
internal static class Json
{
    public static JsonSerializerOptions Options { get; } =
        new() { RespectNullableAnnotations = true };
}
