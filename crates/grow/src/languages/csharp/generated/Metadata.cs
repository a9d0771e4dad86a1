using System.Text.Json;
using System.Text.Json.Serialization.Metadata;

/// <summary>What the options know of a type, without reflection.</summary>
internal static class Metadata
{
    public static JsonTypeInfo<T> TypeInfo<T>(this JsonSerializerOptions options) =>
        (JsonTypeInfo<T>)options.GetTypeInfo(typeof(T));
}
