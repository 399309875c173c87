using System.Text.Json;

namespace CalmQuill.Core.Operations.Codecs;

internal sealed class TagSetCodec() : ChangeCodec<Change.TagSet>(ChangeKind.TagSet)
{
    protected override void Write(BatchWriter batch, Change.TagSet change)
    {
        batch.Head.Guid(change.Target);
        batch.Head.Guid(change.Tag);
        batch.Head.Byte(change.On ? (byte)1 : (byte)0);
    }

    public override Change Read(ref BatchReader batch) =>
        new Change.TagSet(batch.Head.Guid(), batch.Head.Guid(), Parts.ReadSwitch(ref batch.Head));

    protected override void Write(Utf8JsonWriter json, Change.TagSet change)
    {
        json.WriteString("target", change.Target);
        json.WriteString("tag", change.Tag);
        json.WriteBoolean("on", change.On);
    }

    public override Change Read(JsonElement json) =>
        new Change.TagSet(json.GetProperty("target").GetGuid(), json.GetProperty("tag").GetGuid(), json.GetProperty("on").GetBoolean());
}
