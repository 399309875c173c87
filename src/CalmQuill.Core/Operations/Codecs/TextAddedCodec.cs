using System.Text.Json;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Operations.Codecs;

internal sealed class TextAddedCodec() : ChangeCodec<Change.TextAdded>(ChangeKind.TextAdded)
{
    protected override void Write(BatchWriter batch, Change.TextAdded change)
    {
        Parts.WriteTransform(batch.Head, change.Lay);
        batch.Head.Signed(change.Width);
        batch.Head.Signed(change.Ruling);
        batch.Head.Guid(change.Layer);
        Fields.OfItems.Write(batch.Head, change.Values);
        batch.Head.Text(change.Passage.Text);
        batch.Head.Varint((ulong)change.Passage.Formats.Count);
        foreach (var (start, end, trait, value) in change.Passage.Formats)
        {
            batch.Head.Signed(start);
            batch.Head.Signed((long)end - start);
            batch.Head.Byte((byte)trait);
            batch.Head.Text(value);
        }
    }

    public override Change Read(ref BatchReader batch)
    {
        var lay = Parts.ReadTransform(ref batch.Head);
        int width = batch.Head.Int32(),
            ruling = batch.Head.Int32();
        var layer = batch.Head.Guid();
        var values = Fields.OfItems.Read(ref batch.Head);
        var text = batch.Head.Text(LetterParts.MostBytes);
        var formats = new PassageFormat[batch.Head.Count(WritingRules.MostParts, 4, "looks")];
        for (var i = 0; i < formats.Length; i++)
        {
            var start = batch.Head.Int32();
            var end = start + (long)batch.Head.Int32();
            if (end is < int.MinValue or > int.MaxValue)
                throw new OperationFormatException("A look of letters is out of range.");
            var trait = (Trait)batch.Head.Byte();
            formats[i] = new PassageFormat(start, (int)end, trait, batch.Head.Text(LetterParts.MostBytesOf(trait)));
        }

        return new Change.TextAdded(lay, width, ruling, new Passage(text, formats), values) { Layer = layer };
    }

    protected override void Write(Utf8JsonWriter json, Change.TextAdded change)
    {
        JsonParts.WriteTransform(json, change.Lay);
        json.WriteNumber("width", change.Width);
        json.WriteNumber("ruling", change.Ruling);
        if (change.Layer != Guid.Empty)
            json.WriteString("layer", change.Layer);
        Fields.OfItems.Write(json, change.Values);
        json.WriteString("text", change.Passage.Text);
        json.WriteStartArray("looks");
        foreach (var (start, end, trait, value) in change.Passage.Formats)
        {
            json.WriteStartObject();
            json.WriteNumber("from", start);
            json.WriteNumber("to", end);
            LetterParts.WriteLook(json, trait, value);
            json.WriteEndObject();
        }

        json.WriteEndArray();
    }

    public override Change Read(JsonElement json) =>
        new Change.TextAdded(
            JsonParts.ReadTransform(json),
            json.GetProperty("width").GetInt32(),
            json.GetProperty("ruling").GetInt32(),
            new Passage(
                JsonParts.Text(json, "text"),
                [
                    .. json.GetProperty("looks")
                        .EnumerateArray()
                        .Select(look => new PassageFormat(
                            look.GetProperty("from").GetInt32(),
                            look.GetProperty("to").GetInt32(),
                            LetterParts.ReadTrait(look),
                            JsonParts.Text(look, "value")
                        )),
                ]
            ),
            Fields.OfItems.Read(json)
        )
        {
            Layer = JsonParts.LayerOf(json),
        };
}
