using System;
using System.Text.Json;
using System.Text.Json.Serialization;

/// <summary>A value, perhaps null, or nothing at all: what is not set is not written.</summary>
[JsonConverter(typeof(MaybeConverter))]
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

internal sealed class MaybeConverter : JsonConverterFactory
{
    public override bool CanConvert(Type typeToConvert) =>
        typeToConvert.IsGenericType && typeToConvert.GetGenericTypeDefinition() == typeof(Maybe<>);

    public override JsonConverter CreateConverter(Type typeToConvert, JsonSerializerOptions options)
    {
        var content = typeToConvert.GetGenericArguments();
        return (JsonConverter)Activator.CreateInstance(typeof(Of<>).MakeGenericType(content))!;
    }

    private sealed class Of<T> : JsonConverter<Maybe<T>>
    {
        public override Maybe<T> Read(
            ref Utf8JsonReader reader,
            Type typeToConvert,
            JsonSerializerOptions options
        ) => new(JsonSerializer.Deserialize<T>(ref reader, options)!);

        public override void Write(
            Utf8JsonWriter writer,
            Maybe<T> value,
            JsonSerializerOptions options
        ) => JsonSerializer.Serialize(writer, value.Value, options);
    }
}
