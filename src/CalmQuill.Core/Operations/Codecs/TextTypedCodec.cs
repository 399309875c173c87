using System.Text.Json;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Operations.Codecs;

internal sealed class TextTypedCodec() : ChangeCodec<Change.TextTyped>(ChangeKind.TextTyped)
{
    protected override void Write(BatchWriter batch, Change.TextTyped change)
    {
        Parts.WriteId(batch.Head, change.Text);
        var names = new LetterParts.Writer(batch.Head);
        var (insertions, removals, formats) = change.Typed;
        batch.Head.Varint((ulong)insertions.Count);
        foreach (var insertion in insertions)
        {
            names.Write(insertion.At, insertion.Before);
            batch.Head.Text(insertion.Text);
        }

        batch.Head.Varint((ulong)removals.Count);
        foreach (var removal in removals)
        {
            names.Write(removal.First, false);
            batch.Head.Signed(removal.Count);
        }

        batch.Head.Varint((ulong)formats.Count);
        foreach (var format in formats)
        {
            names.Write(format.From);
            names.Write(format.To);
            batch.Head.Byte((byte)format.Trait);
            batch.Head.Text(format.Value);
        }
    }

    public override Change Read(ref BatchReader batch)
    {
        var text = Parts.ReadId(ref batch.Head);
        var last = default(OpId);
        var insertions = new Insertion[batch.Head.Count(WritingRules.MostParts, 3, "places of a text")];
        for (var i = 0; i < insertions.Length; i++)
        {
            var (at, before) = LetterParts.Read(ref batch.Head, ref last);
            insertions[i] = new Insertion(at, before, batch.Head.Text(LetterParts.MostBytes));
        }

        var removals = new LetterSpan[batch.Head.Count(WritingRules.MostParts, 3, "removals")];
        for (var i = 0; i < removals.Length; i++)
        {
            var (first, _) = LetterParts.Read(ref batch.Head, ref last);
            removals[i] = new LetterSpan(first.Operation, first.Index, batch.Head.Int32());
        }

        var formats = new Format[batch.Head.Count(WritingRules.MostParts, 6, "looks")];
        for (var i = 0; i < formats.Length; i++)
        {
            var from = LetterParts.ReadEdge(ref batch.Head, ref last);
            var to = LetterParts.ReadEdge(ref batch.Head, ref last);
            var trait = (Trait)batch.Head.Byte();
            formats[i] = new Format(from, to, trait, batch.Head.Text(LetterParts.MostBytesOf(trait)));
        }

        return new Change.TextTyped(text, new TextChange(insertions, removals, formats));
    }

    protected override void Write(Utf8JsonWriter json, Change.TextTyped change)
    {
        json.WriteString("item", change.Text.ToString());
        json.WriteStartArray("typed");
        foreach (var insertion in change.Typed.Insertions)
        {
            json.WriteStartObject();
            json.WriteString("at", insertion.At.ToString());
            json.WriteBoolean("before", insertion.Before);
            json.WriteString("text", insertion.Text);
            json.WriteEndObject();
        }

        json.WriteEndArray();
        json.WriteStartArray("removed");
        foreach (var removal in change.Typed.Removals)
        {
            json.WriteStartObject();
            json.WriteString("from", removal.First.ToString());
            json.WriteNumber("letters", removal.Count);
            json.WriteEndObject();
        }

        json.WriteEndArray();
        json.WriteStartArray("looks");
        foreach (var format in change.Typed.Formats)
        {
            json.WriteStartObject();
            LetterParts.WriteEdge(json, "from", format.From);
            LetterParts.WriteEdge(json, "to", format.To);
            LetterParts.WriteLook(json, format.Trait, format.Value);
            json.WriteEndObject();
        }

        json.WriteEndArray();
    }

    public override Change Read(JsonElement json) =>
        new Change.TextTyped(
            OpId.Parse(JsonParts.Text(json, "item")),
            new TextChange(
                [
                    .. json.GetProperty("typed")
                        .EnumerateArray()
                        .Select(one => new Insertion(
                            LetterParts.Read(one, "at"),
                            one.GetProperty("before").GetBoolean(),
                            JsonParts.Text(one, "text")
                        )),
                ],
                [.. json.GetProperty("removed").EnumerateArray().Select(ReadRemoval)],
                [
                    .. json.GetProperty("looks")
                        .EnumerateArray()
                        .Select(one => new Format(
                            LetterParts.ReadEdge(one, "from"),
                            LetterParts.ReadEdge(one, "to"),
                            LetterParts.ReadTrait(one),
                            JsonParts.Text(one, "value")
                        )),
                ]
            )
        );

    private static LetterSpan ReadRemoval(JsonElement json)
    {
        var first = LetterParts.Read(json, "from");
        return new LetterSpan(first.Operation, first.Index, json.GetProperty("letters").GetInt32());
    }
}
