// Grown by Jar Sprout: b0570b75
#nullable enable

using System;
using System.Text.Json;
using System.Text.Json.Serialization;

namespace Models;

[JsonConverter(typeof(Event.Converter))]
public abstract record Event
{
    /// <summary>A kind that is not known yet.</summary>
    public sealed record Unknown(JsonElement Value) : Event;

    internal sealed class Converter : JsonConverter<Event>
    {
        public override Event Read(
            ref Utf8JsonReader reader,
            Type typeToConvert,
            JsonSerializerOptions options
        )
        {
            var element = JsonSerializer.Deserialize<JsonElement>(ref reader, options);
            var tag = element.TryGetProperty("kind", out var kind) ? kind.GetString() : null;
            switch (tag)
            {
                case "inspection":
                    return element.Deserialize<InspectionEvent>(options)!;
                case "harvest":
                    return element.Deserialize<HarvestEvent>(options)!;
                case "swarm":
                    return element.Deserialize<SwarmEvent>(options)!;
                case "alarm":
                    return element.Deserialize<AlarmEvent>(options)!;
                default:
                    return new Unknown(element);
            }
        }

        public override void Write(
            Utf8JsonWriter writer,
            Event value,
            JsonSerializerOptions options
        )
        {
            if (value is Unknown unknown)
            {
                JsonSerializer.Serialize(writer, unknown.Value, options);
            }
            else
            {
                JsonSerializer.Serialize(writer, value, value.GetType(), options);
            }
        }
    }
}
