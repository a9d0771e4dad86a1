using System;
using System.Collections.Generic;
using System.Diagnostics.CodeAnalysis;
using System.Linq;
using System.Reflection;
using System.Runtime.Serialization;
using System.Text.Json;
using System.Text.Json.Serialization;

/// <summary>Reads and writes the values of an enum as the texts that their attributes say.</summary>
internal sealed class EnumMemberConverter<
    [DynamicallyAccessedMembers(DynamicallyAccessedMemberTypes.PublicFields)] T
> : JsonConverter<T>
    where T : struct, Enum
{
    private static readonly Dictionary<T, string> Texts = typeof(T)
        .GetFields(BindingFlags.Public | BindingFlags.Static)
        .ToDictionary(
            field => (T)field.GetValue(null)!,
            field => field.GetCustomAttribute<EnumMemberAttribute>()?.Value ?? field.Name
        );

    private static readonly Dictionary<string, T> Values = Texts.ToDictionary(
        pair => pair.Value,
        pair => pair.Key
    );

    public override T Read(
        ref Utf8JsonReader reader,
        Type typeToConvert,
        JsonSerializerOptions options
    )
    {
        var text = reader.GetString() ?? "";
        return Values.TryGetValue(text, out var value)
            ? value
            : throw new JsonException($"\"{text}\" is no {typeof(T).Name}.");
    }

    public override void Write(Utf8JsonWriter writer, T value, JsonSerializerOptions options) =>
        writer.WriteStringValue(Texts[value]);
}
