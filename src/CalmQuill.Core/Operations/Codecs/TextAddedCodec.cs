using System.Text.Json;

namespace CalmQuill.Core.Operations.Codecs;

internal sealed class TextAddedCodec() : ChangeCodec<Change.TextAdded>(ChangeKind.TextAdded)
{
    private const string Ruling = "ruling";

    protected override void Write(BatchWriter batch, Change.TextAdded change) => WrittenParts.Write(batch.Head, change, change.Ruling);

    public override Change Read(ref BatchReader batch) => Of(WrittenParts.Read(ref batch.Head));

    protected override void Write(Utf8JsonWriter json, Change.TextAdded change) => WrittenParts.Write(json, change, Ruling, change.Ruling);

    public override Change Read(JsonElement json) => Of(WrittenParts.Read(json, Ruling));

    private static Change.TextAdded Of(WrittenParts parts) =>
        new(parts.Lay, parts.Width, parts.Measure, parts.Passage, parts.Values) { Layer = parts.Layer };
}
