using CalmQuill.Core.Items;
using CalmQuill.Core.Layers;
using CalmQuill.Core.Spots;

namespace CalmQuill.Core.Operations.Codecs;

/// <summary>The fields of each kind of thing that has some.</summary>
internal static class Fields
{
    public static readonly FieldsCodec<ItemField, ItemValue> OfItems = new(
        ItemRules.Fields,
        (field, value) => new ItemValue(field, value),
        value => (value.Field, value.Value)
    );

    public static readonly FieldsCodec<LayerField, LayerValue> OfLayers = new(
        LayerRules.Fields,
        (field, value) => new LayerValue(field, value),
        value => (value.Field, value.Value)
    );

    public static readonly FieldsCodec<SpotField, SpotValue> OfSpots = new(
        SpotRules.Fields,
        (field, value) => new SpotValue(field, value),
        value => (value.Field, value.Value)
    );
}
