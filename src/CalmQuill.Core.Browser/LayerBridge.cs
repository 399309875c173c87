using System.Runtime.InteropServices.JavaScript;
using CalmQuill.Core.Layers;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Ordering;
using CalmQuill.Core.Pages;

namespace CalmQuill.Core.Browser;

/// <summary>Exported to script: the layers of a page.</summary>
public static partial class LayerBridge
{
    /// <summary>The layers from the back to the front, as a JSON array.</summary>
    [JSExport]
    public static string All(int page) =>
        Json.List(
            Session.Document<PageDocument>(page).Layers,
            (json, layer) =>
            {
                json.WriteStartObject();
                json.WriteString("id", layer.Id);
                json.WriteString("name", layer.Name);
                json.WriteBoolean("hidden", layer.Hidden);
                json.WriteBoolean("locked", layer.Locked);
                json.WriteNumber("opacity", layer.Opacity);
                json.WriteString("author", layer.Author);
                json.WriteEndObject();
            }
        );

    /// <summary>How many things lie on each layer, from the back to the front.</summary>
    [JSExport]
    public static int[] Counts(int page)
    {
        var document = Session.Document<PageDocument>(page);
        var counts = document.Items.Where(item => item.Stands).CountBy(item => item.Layer!.Id).ToDictionary();
        return [.. document.Layers.Select(layer => counts.GetValueOrDefault(layer.Id))];
    }

    /// <summary>Adds a layer in front of another.</summary>
    [JSExport]
    public static byte[] Add(int page, string layer, string name, string after, double now) =>
        Put(page, Guid.Parse(layer), after, [new LayerValue(LayerField.Name, name)], now);

    /// <summary>Puts a layer in front of another; behind all with none given. Framed operations, one step.</summary>
    [JSExport]
    public static byte[] Move(int page, string layer, string after, double now) => Put(page, Guid.Parse(layer), after, [], now);

    /// <summary>Writes one field; see <see cref="LayerField"/>.</summary>
    [JSExport]
    public static byte[] Set(int page, string layer, int field, string value, double now) =>
        Session.Perform(page, new Change.LayerSet(Guid.Parse(layer), [new LayerValue((LayerField)field, value)]), now);

    private static byte[] Put(int page, Guid layer, string after, LayerValue[] values, double now)
    {
        var others = Session.Document<PageDocument>(page).Layers.Where(one => one.Id != layer).Select(one => (one.Id, one.Order)).ToList();
        var index = after.Length == 0 ? 0 : others.FindIndex(one => one.Id.ToString() == after) + 1;
        var place = Neighbourhood.Of(others, index, Session.Replica.Id);
        // Layers with long keys, or with the same one, are laid anew.
        var laid = place.Laid.Select(one => (Change)new Change.LayerSet(one.Id, [new LayerValue(LayerField.Order, one.Order)]));
        var put = new Change.LayerSet(layer, [.. values, new LayerValue(LayerField.Order, place.Order)]);
        return Session.PerformAll(page, [.. laid, put], now, true);
    }
}
