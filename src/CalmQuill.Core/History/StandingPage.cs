using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Layers;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Spots;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.History;

/// <summary>
/// A page without its past, for those to whom that is closed: operations that make what stands, by those who made it and when they did. Nothing is in
/// them of what was removed, taken back, or rubbed out, nor of how a thing looked and what was said of a mark before.
/// </summary>
/// <remarks>
/// Of a stroke that was rubbed out in part the way of the pen is kept for <see cref="Kept"/> samples beyond what is seen, which its line leans on.
/// </remarks>
public sealed class StandingPage
{
    /// <summary>What is no operation of anybody's, but says how what somebody made stands, has this number.</summary>
    private const ulong Replica = 0;

    private const int Kept = 3;
    private static readonly ItemField[] Fields = Enum.GetValues<ItemField>();
    private readonly List<Operation> made = [];
    private readonly HashSet<OpId> seen = [];
    private readonly Hlc latest;
    private ulong said;

    private StandingPage(Hlc latest) => this.latest = latest;

    public static List<Operation> Of(PageDocument page)
    {
        var all = page.Operations();
        var standing = new StandingPage(all.Count > 0 ? all[^1].Time : default);
        foreach (var layer in page.Layers)
            standing.Add(layer);
        var changes = all.ToDictionary(operation => operation.Id);
        List<PageItem> seen = [.. page.Items.Where(item => item.Stands && item.Visible().Count > 0)];
        standing.seen.UnionWith(seen.Select(item => item.Id));
        foreach (var item in seen)
            standing.Add(item, changes[item.Id], changes);
        foreach (var spot in page.Spots())
            standing.Add(spot, changes);
        return standing.made;
    }

    private void Add(Layer layer)
    {
        List<LayerValue> values =
        [
            new(LayerField.Name, layer.Name),
            new(LayerField.Order, layer.Order),
            new(LayerField.Hidden, layer.Hidden ? "1" : ""),
            new(LayerField.Locked, layer.Locked ? "1" : ""),
            new(LayerField.Opacity, layer.Opacity.ToString(System.Globalization.CultureInfo.InvariantCulture)),
        ];
        if (layer != Layer.First)
            Say(layer.Author, new Change.LayerSet(layer.Id, [.. values.Where(value => value.Value.Length > 0)]));
    }

    /// <summary>A text as it was laid down, but for what is gone of that.</summary>
    /// <param name="text">As it was laid down.</param>
    /// <param name="item">As it stands.</param>
    /// <param name="changes">All operations of the page.</param>
    /// <param name="typed">Receives what was typed into it since.</param>
    private Change.WrittenAdded Standing(
        Change.WrittenAdded text,
        PageItem item,
        Dictionary<OpId, Operation> changes,
        List<Operation> typed
    )
    {
        var standing = item.Typed.Standing();
        foreach (var (id, left) in standing.Where(one => one.Key != item.Id).OrderBy(one => changes[one.Key].Stamp))
            typed.Add(changes[id] with { Change = new Change.TextTyped(item.Id, left.Renamed(id, LetterId.Own)) });
        if (!standing.TryGetValue(item.Id, out var own))
            return text with { Passage = new Passage("", []) };
        if (own.Removals.Count > 0)
            typed.Add(Said(item.Author, latest, new Change.TextTyped(item.Id, own with { Insertions = [], Formats = [] })));
        var whole = text.Passage.Whole(item.Id).Formats;
        return text with
        {
            Passage = new Passage(
                string.Concat(own.Insertions.Select(insertion => insertion.Text)),
                [.. text.Passage.Formats.Where((_, place) => own.Formats.Contains(whole[place]))]
            ),
        };
    }

    private bool LeansOnUnseen(PageItem item) => item.Content.LeansOn.Any(lean => !seen.Contains(lean.On));

    /// <summary>Words whose shape is not seen, where they stand now.</summary>
    private static Change.TextAdded Alone(Change.TextAdded text, PageItem item)
    {
        var content = (TextContent)item.Content;
        return text with
        {
            Lay = Transform.Near(item.Placed?.Affine.Inverse().After(content.Place) ?? content.Place),
            Width = content.Measure,
            Values = [.. text.Values.Where(value => value.Field != ItemField.Holder)],
        };
    }

    private void Add(PageItem item, Operation operation, Dictionary<OpId, Operation> changes)
    {
        var layer = item.Layer!.Id;
        var typed = new List<Operation>();
        Change.ItemAdded added = operation.Change switch
        {
            Change.StrokeAdded stroke => stroke with { Layer = layer, Samples = Blanked(stroke.Samples, item.Visible()) },
            Change.TextAdded text when LeansOnUnseen(item) => Alone((Change.TextAdded)Standing(text, item, changes, typed), item) with
            {
                Layer = layer,
            },
            Change.WrittenAdded text => Standing(text, item, changes, typed) with { Layer = layer },
            Change.ShapeAdded shape => shape with
            {
                Layer = layer,
                Replaces = [],
                Shape = ((ShapeContent)item.Content).Among(seen.Contains),
            },
            var other => (Change.ItemAdded)other with { Layer = layer },
        };
        made.Add(operation with { Change = added });
        made.AddRange(typed);
        if (item.Placed?.Whole() is { } step && step != Transform.Identity)
            Say(
                item.Author,
                step.IsShift ? new Change.ItemsShifted([item.Id], step.E, step.F) : new Change.ItemsTransformed([item.Id], [], step)
            );
        // The layer and the shape are in what adds it.
        var values = Fields
            .Where(field => field is not (ItemField.Layer or ItemField.Shape) && item.Read(field).Length > 0)
            .Where(field => !LeansOnUnseen(item) || item.Content.LeansOn.All(lean => lean.Field != field))
            .Select(field => new ItemValue(field, item.Read(field)))
            .ToList();
        if (LeansOnUnseen(item))
        {
            values.RemoveAll(value => item.Content.Alone.Any(said => said.Field == value.Field));
            values.AddRange(item.Content.Alone);
        }

        if (values.Count > 0)
            Say(item.Author, new Change.ItemsSet([item.Id], values));
        if (!item.Content.IsWhole)
            Say(item.Author, new Change.GapsAdded([new StrokeGaps(item.Id, Interval.Complement(item.Visible(), 0, item.Content.End))]));
    }

    private void Add(Spot spot, Dictionary<OpId, Operation> changes)
    {
        var done = spot.Values.ContainsKey(SpotField.Done);
        SpotValue[] values =
        [
            .. spot.Values.Where(value => value.Key != SpotField.Done).Select(value => new SpotValue(value.Key, value.Value)),
        ];
        Say(spot.Author, Hlc.At(spot.CreatedAt), new Change.SpotAdded(spot.Id, spot.Kind, spot.Area, spot.Items, values));
        if (done)
            Say(spot.DoneBy, Hlc.At(spot.DoneAt ?? spot.CreatedAt), new Change.SpotSet(spot.Id, [new SpotValue(SpotField.Done, "1")]));
        made.AddRange(spot.Answers.Select(answer => changes[answer.Id]));
    }

    /// <summary>The way of the pen, straight wherever nothing of it is seen.</summary>
    private static StrokeSamples Blanked(StrokeSamples samples, List<Interval> visible)
    {
        if (visible is [{ Start: 0 } all] && all.End == (samples.Count - 1) * Interval.PerSample)
            return samples;
        int[] x = [.. samples.X],
            y = [.. samples.Y];
        var last = -1;
        foreach (var part in visible)
        {
            int from = Math.Max(0, part.Start / Interval.PerSample - Kept),
                to = Math.Min(samples.Count - 1, (part.End + Interval.PerSample - 1) / Interval.PerSample + Kept);
            Straighten(last, from);
            last = Math.Max(last, to);
        }

        Straighten(last, samples.Count);
        return new StrokeSamples(x, y, samples.Pressure, samples.Time, samples.TiltX, samples.TiltY);

        void Straighten(int left, int right)
        {
            for (var i = left + 1; i < right; i++)
            {
                // Before the first and behind the last that is kept it stays where that is.
                var (a, b) = (left < 0 ? right : left, right == samples.Count ? left : right);
                var share = a == b ? 0 : (double)(i - a) / (b - a);
                x[i] = (int)Math.Round(samples.X[a] + (samples.X[b] - samples.X[a]) * share);
                y[i] = (int)Math.Round(samples.Y[a] + (samples.Y[b] - samples.Y[a]) * share);
            }
        }
    }

    private void Say(Guid author, Change change) => Say(author, latest, change);

    private void Say(Guid author, Hlc time, Change change) => made.Add(Said(author, time, change));

    private Operation Said(Guid author, Hlc time, Change change) => new(new OpId(Replica, ++said), time, author, change);
}
