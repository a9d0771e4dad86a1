using System;
using System.Text.Json;
using System.Text.Json.Serialization;

/// <summary>A value, perhaps null, or nothing at all: what is not set is not written.</summary>
public readonly record struct Maybe<T>
{
    public Maybe(T value)
    {
        Value = value;
        IsSet = true;
    }

    public bool IsSet { get; }

    public T Value { get; }

    public static implicit operator Maybe<T>(T value) => new(value);
}

/// <summary>Reads and writes what is there.</summary>
internal sealed class MaybeConverter<T> : JsonConverter<Maybe<T>>
{
    public override Maybe<T> Read(
        ref Utf8JsonReader reader,
        Type typeToConvert,
        JsonSerializerOptions options
    ) => new(JsonSerializer.Deserialize(ref reader, options.TypeInfo<T>())!);

    public override void Write(
        Utf8JsonWriter writer,
        Maybe<T> value,
        JsonSerializerOptions options
    ) => JsonSerializer.Serialize(writer, value.Value, options.TypeInfo<T>());
}
