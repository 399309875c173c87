using System.Text.Json;

namespace CalmQuill.Core.Operations.Codecs;

internal sealed class EffectSetCodec() : ChangeCodec<Change.EffectSet>(ChangeKind.EffectSet)
{
    protected override void Write(BatchWriter batch, Change.EffectSet change)
    {
        Parts.WriteId(batch.Head, change.Target);
        batch.Head.Byte(change.Active ? (byte)1 : (byte)0);
    }

    public override Change Read(ref BatchReader batch) =>
        new Change.EffectSet(Parts.ReadId(ref batch.Head), Parts.ReadSwitch(ref batch.Head));

    protected override void Write(Utf8JsonWriter json, Change.EffectSet change)
    {
        json.WriteString("target", change.Target.ToString());
        json.WriteBoolean("active", change.Active);
    }

    public override Change Read(JsonElement json) =>
        new Change.EffectSet(OpId.Parse(JsonParts.Text(json, "target")), json.GetProperty("active").GetBoolean());
}
