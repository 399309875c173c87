using System.Globalization;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Layers;

/// <summary>The layers of one page. Every write can be taken out again, so that undo takes back just the own step.</summary>
public sealed class PageLayers
{
    private readonly Dictionary<Guid, RetractableRegisters<LayerField>> states = [];
    private List<Layer>? standing;
    private Dictionary<Guid, int>? places;

    /// <summary>Whether nobody has said anything of any layer: there is the first one alone.</summary>
    public bool IsPlain => states.Count == 0;

    /// <summary>Puts a change in, or takes it out.</summary>
    public void Contribute(Operation operation, Change.LayerSet set, bool adds)
    {
        if (!states.TryGetValue(set.Layer, out var fields))
            states[set.Layer] = fields = new();
        foreach (var (field, value) in set.Values)
            fields.Write(operation.Stamp, operation.Author, field, value, adds);
        if (fields.IsEmpty)
            states.Remove(set.Layer);
        (standing, places) = (null, null);
    }

    /// <summary>The layers that stand, from the back to the front.</summary>
    public IReadOnlyList<Layer> All => standing ??= WorkOut();

    /// <summary>The layer that things of a layer lie on: itself, what it was merged into, or null where it was erased. A layer that is not known is the first.</summary>
    public Layer? Of(Guid layer)
    {
        var into = Follow(layer);
        if (places is null)
            _ = PlaceOf(layer);
        return places!.TryGetValue(into, out var place) ? All[place]
            : IsErased(into) ? null
            : First;
    }

    /// <summary>How far from the back a layer's things lie.</summary>
    public int PlaceOf(Guid layer)
    {
        places ??= All.Select((one, i) => (one.Id, i)).ToDictionary(one => one.Id, one => one.i);
        return places.TryGetValue(Follow(layer), out var place) ? place : places[Guid.Empty];
    }

    private Layer First => All[PlaceOf(Guid.Empty)];

    /// <summary>The end of the chain of merges. In a ring, which two people can make at the same time, the smallest id stands; the first layer always does.</summary>
    private Guid Follow(Guid layer)
    {
        var passed = new List<Guid>();
        while (layer != Guid.Empty && Read(layer, LayerField.MergedInto) is { Length: > 0 } into)
        {
            if (passed.IndexOf(layer) is var ring and >= 0)
                return passed[ring..].Min();
            passed.Add(layer);
            layer = Guid.Parse(into);
        }

        return layer;
    }

    private bool IsErased(Guid layer) => Read(layer, LayerField.Erased).Length > 0;

    private List<Layer> WorkOut()
    {
        var layers = new List<Layer>();
        foreach (var id in states.Keys.Append(Guid.Empty).Distinct())
        {
            if (IsErased(id) || Follow(id) != id || (id != Guid.Empty && Read(id, LayerField.Name).Length == 0))
                continue;
            var made = states.GetValueOrDefault(id)?.First(LayerField.Name)?.Author ?? Guid.Empty;
            layers.Add(
                new Layer(
                    id,
                    Read(id, LayerField.Name),
                    Read(id, LayerField.Order) is { Length: > 0 } order ? order : Layer.FirstOrder,
                    Read(id, LayerField.Hidden).Length > 0,
                    Read(id, LayerField.Locked).Length > 0,
                    Read(id, LayerField.Opacity) is { Length: > 0 } opacity ? int.Parse(opacity, CultureInfo.InvariantCulture) : 100,
                    id == Guid.Empty ? Guid.Empty : made
                )
            );
        }

        layers.Sort(
            (one, other) => string.CompareOrdinal(one.Order, other.Order) is var order and not 0 ? order : one.Id.CompareTo(other.Id)
        );
        return layers;
    }

    private string Read(Guid layer, LayerField field) => states.GetValueOrDefault(layer)?.Read(field) ?? "";
}
