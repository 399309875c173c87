using System.Text.Json;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Operations.Codecs;

/// <summary>What all changes hold that add what can be typed into, in both forms; each has a measure of its own besides.</summary>
/// <param name="Measure">What the kind has besides: the ruling, the height.</param>
internal sealed record WrittenParts(Transform Lay, int Width, int Measure, Guid Layer, IReadOnlyList<ItemValue> Values, Passage Passage)
{
    public static void Write(ByteWriter writer, Change.WrittenAdded change, int measure)
    {
        Parts.WriteTransform(writer, change.Lay);
        writer.Signed(change.Width);
        writer.Signed(measure);
        writer.Guid(change.Layer);
        Fields.OfItems.Write(writer, change.Values);
        PassageParts.Write(writer, change.Passage);
    }

    public static WrittenParts Read(ref ByteReader reader)
    {
        var lay = Parts.ReadTransform(ref reader);
        int width = reader.Int32(),
            measure = reader.Int32();
        var layer = reader.Guid();
        var values = Fields.OfItems.Read(ref reader);
        return new WrittenParts(lay, width, measure, layer, values, PassageParts.Read(ref reader));
    }

    /// <param name="json">What it is written to.</param>
    /// <param name="change">The change.</param>
    /// <param name="name">What the measure is called.</param>
    /// <param name="measure">The measure.</param>
    public static void Write(Utf8JsonWriter json, Change.WrittenAdded change, string name, int measure)
    {
        JsonParts.WriteTransform(json, change.Lay);
        json.WriteNumber("width", change.Width);
        json.WriteNumber(name, measure);
        if (change.Layer != Guid.Empty)
            json.WriteString("layer", change.Layer);
        Fields.OfItems.Write(json, change.Values);
        PassageParts.Write(json, change.Passage);
    }

    /// <inheritdoc cref="Write(Utf8JsonWriter, Change.WrittenAdded, string, int)"/>
    public static WrittenParts Read(JsonElement json, string name) =>
        new(
            JsonParts.ReadTransform(json),
            json.GetProperty("width").GetInt32(),
            json.GetProperty(name).GetInt32(),
            JsonParts.LayerOf(json),
            Fields.OfItems.Read(json),
            PassageParts.Read(json)
        );
}
