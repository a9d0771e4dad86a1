using System;
using System.IO;
using Newtonsoft.Json;

/// <summary>Reads and writes values that stand as JSON in a text.</summary>
internal sealed class JsonTextConverter : JsonConverter
{
    public override bool CanConvert(Type objectType) => true;

    public override object ReadJson(
        JsonReader reader,
        Type objectType,
        object existingValue,
        JsonSerializer serializer
    )
    {
        if (!(reader.Value is string text))
        {
            return null;
        }
        using (var inside = new JsonTextReader(new StringReader(text)))
        {
            return serializer.Deserialize(inside, objectType);
        }
    }

    public override void WriteJson(JsonWriter writer, object value, JsonSerializer serializer)
    {
        using (var text = new StringWriter())
        {
            serializer.Serialize(text, value);
            writer.WriteValue(text.ToString());
        }
    }
}
