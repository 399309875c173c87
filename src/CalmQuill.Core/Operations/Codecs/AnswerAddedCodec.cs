using System.Text.Json;
using CalmQuill.Core.Spots;

namespace CalmQuill.Core.Operations.Codecs;

internal sealed class AnswerAddedCodec() : ChangeCodec<Change.AnswerAdded>(ChangeKind.AnswerAdded)
{
    protected override void Write(BatchWriter batch, Change.AnswerAdded change)
    {
        batch.Head.Guid(change.Spot);
        batch.Head.Text(change.Text);
        batch.Head.Varint((ulong)change.Mentions.Count);
        foreach (var person in change.Mentions)
            batch.Head.Guid(person);
        batch.Head.Varint((ulong)change.Ink.Length);
        batch.Head.Bytes(change.Ink.Span);
    }

    public override Change Read(ref BatchReader batch)
    {
        var spot = batch.Head.Guid();
        var text = batch.Head.Text(AnswerRules.MostText * 3);
        var mentions = new Guid[batch.Head.Count(AnswerRules.MostMentions, 16, "people")];
        for (var i = 0; i < mentions.Length; i++)
            mentions[i] = batch.Head.Guid();
        return new Change.AnswerAdded(spot, text, mentions, batch.Head.Bytes(batch.Head.Count(AnswerRules.MostInk, 1, "bytes")).ToArray());
    }

    protected override void Write(Utf8JsonWriter json, Change.AnswerAdded change)
    {
        json.WriteString("spot", change.Spot);
        json.WriteString("text", change.Text);
        json.WriteStartArray("mentions");
        foreach (var person in change.Mentions)
            json.WriteStringValue(person);
        json.WriteEndArray();
        if (change.Ink.Length > 0)
            json.WriteBase64String("ink", change.Ink.Span);
    }

    public override Change Read(JsonElement json) =>
        new Change.AnswerAdded(
            json.GetProperty("spot").GetGuid(),
            JsonParts.Text(json, "text"),
            [.. json.GetProperty("mentions").EnumerateArray().Select(person => person.GetGuid())],
            json.TryGetProperty("ink", out var ink) ? ink.GetBytesFromBase64() : []
        );
}
