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
    public static byte[] Add(int page, string layer, string name, string after, double random, double now) =>
        Session.Do(
            page,
            new Change.LayerSet(
                Guid.Parse(layer),
                [new LayerValue(LayerField.Name, name), new LayerValue(LayerField.Order, OrderAfter(page, layer, after, random))]
            ),
            now
        );

    /// <summary>Puts a layer in front of another; behind all with none given.</summary>
    [JSExport]
    public static byte[] Move(int page, string layer, string after, double random, double now) =>
        Session.Do(
            page,
            new Change.LayerSet(Guid.Parse(layer), [new LayerValue(LayerField.Order, OrderAfter(page, layer, after, random))]),
            now
        );

    /// <summary>Writes one field; see <see cref="LayerField"/>.</summary>
    [JSExport]
    public static byte[] Set(int page, string layer, int field, string value, double now) =>
        Session.Do(page, new Change.LayerSet(Guid.Parse(layer), [new LayerValue((LayerField)field, value)]), now);

    private static string OrderAfter(int page, string layer, string after, double random)
    {
        var others = Session.Document<PageDocument>(page).Layers.Where(one => one.Id.ToString() != layer).ToList();
        var index = after.Length == 0 ? -1 : others.FindIndex(one => one.Id.ToString() == after);
        return OrderKey.Between(
            index >= 0 ? others[index].Order : null,
            index + 1 < others.Count ? others[index + 1].Order : null,
            (ulong)random
        );
    }
}
