using System.Text.Json;
using CalmQuill.Core.Items;

namespace CalmQuill.Core.Operations.Codecs;

internal sealed class ItemsSetCodec() : ChangeCodec<Change.ItemsSet>(ChangeKind.ItemsSet)
{
    protected override void Write(BatchWriter batch, Change.ItemsSet change)
    {
        Parts.WriteIds(batch.Head, change.Items);
        Parts.WriteFields(batch.Head, change.Values.Select(value => ((byte)value.Field, value.Value)), change.Values.Count);
    }

    public override Change Read(ref BatchReader batch) =>
        new Change.ItemsSet(
            Parts.ReadIds(ref batch.Head),
            Parts.ReadFields(ref batch.Head, ItemRules.Fields, field => (ItemField)field, (field, value) => new ItemValue(field, value))
        );

    protected override void Write(Utf8JsonWriter json, Change.ItemsSet change)
    {
        JsonParts.WriteItems(json, change.Items);
        JsonParts.WriteFields(json, change.Values.Select(value => (value.Field, value.Value)));
    }

    public override Change Read(JsonElement json) =>
        new Change.ItemsSet(
            JsonParts.ReadItems(json),
            JsonParts.ReadFields<ItemField, ItemValue>(json, (field, value) => new ItemValue(field, value))
        );
}
