using System;
using System.Linq;
using System.Text.Json;
using System.Text.Json.Serialization;

/// <summary>Says which words stand where there is no value; the first of them is written.</summary>
[AttributeUsage(AttributeTargets.Property)]
internal sealed class OrNothingAttribute<T>(params string[] words) : JsonConverterAttribute
{
    public override JsonConverter CreateConverter(Type typeToConvert) =>
        new OrNothing<T>(null, words);
}

/// <summary>The same of a value that has a converter of its own.</summary>
[AttributeUsage(AttributeTargets.Property)]
internal sealed class OrNothingAttribute<T, TInside>(params string[] words) : JsonConverterAttribute
    where TInside : JsonConverter, new()
{
    public override JsonConverter CreateConverter(Type typeToConvert) =>
        new OrNothing<T>(new TInside(), words);
}

/// <summary>Reads and writes a value in whose place words stand for nothing.</summary>
internal sealed class OrNothing<T>(JsonConverter? inside, string[] words) : JsonConverter<T?>
{
    private JsonSerializerOptions? _own;

    public override bool HandleNull => true;

    public override T? Read(
        ref Utf8JsonReader reader,
        Type typeToConvert,
        JsonSerializerOptions options
    )
    {
        if (reader.TokenType == JsonTokenType.String && words.Contains(reader.GetString()))
        {
            return default;
        }
        return JsonSerializer.Deserialize<T>(ref reader, Own(options));
    }

    public override void Write(Utf8JsonWriter writer, T? value, JsonSerializerOptions options)
    {
        if (value is null)
        {
            writer.WriteStringValue(words[0]);
        }
        else
        {
            JsonSerializer.Serialize(writer, value, Own(options));
        }
    }

    private JsonSerializerOptions Own(JsonSerializerOptions options) =>
        inside is null ? options : _own ??= new(options) { Converters = { inside } };
}
