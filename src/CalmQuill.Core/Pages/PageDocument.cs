using CalmQuill.Core.Asides;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Layers;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Operations.Codecs;
using CalmQuill.Core.Spots;

namespace CalmQuill.Core.Pages;

/// <summary>A page: what the set of its operations shows. The order in which they arrive, and how often, makes no difference.</summary>
/// <remarks>
/// Every operation but <see cref="Change.EffectSet"/>, <see cref="Change.StepsJoined"/>, <see cref="Change.ItemsAnchored"/> and answers contributes
/// something that can be taken out again: a thing,
/// a removal, a shift, gaps, fields of items and layers.
/// One that names a thing twice does it once.
/// <see cref="Change.EffectSet"/> is a register a target: the latest by the target's own author says whether its contribution counts.
/// </remarks>
public sealed class PageDocument
{
    private readonly Dictionary<OpId, Operation> operations = [];
    private readonly Dictionary<OpId, PageItem> items = [];
    private readonly Dictionary<(OpId Target, Guid Author), (Stamp Stamp, bool Active)> effects = [];
    private readonly Dictionary<Guid, AuthorHistory> histories = [];
    private readonly HashSet<OpId> changed = [];
    private readonly List<PageItem> painted = [];

    /// <summary>What leans on a thing, or once did.</summary>
    private readonly Dictionary<OpId, HashSet<OpId>> leaning = [];
    private readonly PageSpots spots = new();
    private readonly PageLayers layers = new();
    private bool inOrder = true;

    /// <summary>The uppermost sheet, and whether there ever was one.</summary>
    private PageItem? top;
    private bool hasSheets;

    public int OperationCount => operations.Count;

    /// <summary>Grows whenever something is moved, scaled or turned, or that is taken back.</summary>
    public int Moves { get; private set; }

    /// <summary>Of an aside: what its things were written at.</summary>
    public Anchors Anchors { get; } = new();

    /// <summary>Whose things may be changed here.</summary>
    public Guarding Guarding { get; } = new();

    /// <summary>The layers, from the back to the front.</summary>
    public IReadOnlyList<Layer> Layers => layers.All;

    /// <summary>The things in the order in which they are painted; removed and taken-back ones are among them.</summary>
    public IReadOnlyList<PageItem> Items
    {
        get
        {
            if (!inOrder)
                InOrder();
            return painted;
        }
    }

    public PageItem? Find(OpId id) => items.GetValueOrDefault(id);

    /// <summary>The operation of an id; null where it is not here.</summary>
    public Operation? OperationOf(OpId id) => operations.GetValueOrDefault(id);

    /// <summary>The marks, links and headings that stand, oldest first.</summary>
    public List<Spot> Spots() => SpotsWithin(item => item.Bounds);

    /// <param name="boundsOf">How far what they lie on reaches.</param>
    private List<Spot> SpotsWithin(Func<PageItem, Box> boundsOf) =>
        spots.Any ? spots.All(id => items.TryGetValue(id, out var item) && item.Shown ? boundsOf(item) : null) : [];

    /// <summary>The box of all ink and spots, 0.01 mm; null on an empty page.</summary>
    public Box? Bounds()
    {
        Box? all = null;
        foreach (var item in painted)
        {
            if (item.Shown)
                all = all?.With(item.Bounds) ?? item.Bounds;
        }

        foreach (var spot in Spots())
            all = all?.With(spot.Area) ?? spot.Area;
        return all;
    }

    /// <summary>Takes an operation in. False when it was here already, or does not belong on a page.</summary>
    public bool Apply(Operation operation)
    {
        if (!Belongs(operation.Change) || !operations.TryAdd(operation.Id, operation))
            return false;
        if (operation.Change is Change.EffectSet effect)
        {
            ApplyEffect(operation, effect);
            return true;
        }

        if (operation.Change is Change.ItemsAnchored anchored)
        {
            Anchors.Take(operation, anchored);
            return true;
        }

        if (AnswerRules.IsAnswering(operation.Change))
        {
            spots.Talk(operation);
            return true;
        }

        var active = !effects.TryGetValue((operation.Id, operation.Author), out var known) || known.Active;
        if (!histories.TryGetValue(operation.Author, out var history))
            histories[operation.Author] = history = new AuthorHistory();
        if (operation.Change is Change.StepsJoined joined)
            history.Join(operation.Id, joined.Steps);
        else
            history.Add(operation.Stamp, active, known.Stamp);
        if (operation.Change is Change.ItemAdded added)
        {
            var item = ItemOf(operation.Id);
            item.Arrive(operation, added);
            // On the foremost sheet, until it is put in order: mostly that is where it lies.
            item.Sheet = painted.Count > 0 ? painted[^1].Sheet : 0;
            if (inOrder && painted.Count > 0 && !PaintOrder.IsLast(painted[^1], top, item))
                inOrder = false;
            painted.Add(item);
        }

        if (operation.Change is Change.TextTyped typed)
            ItemOf(typed.Text).Typed.Take(operation.Id, operation.Stamp, typed.Typed, false);
        if (active)
            Contribute(operation, true);
        return true;
    }

    public bool CanUndo(Guid author) => histories.GetValueOrDefault(author)?.CanUndo ?? false;

    public bool CanRedo(Guid author) => histories.GetValueOrDefault(author)?.CanRedo ?? false;

    /// <summary>The changes that undo the author's last standing step on this page; none when there is no such step.</summary>
    public List<Change> Undo(Guid author) =>
        [.. (histories.GetValueOrDefault(author)?.ToUndo() ?? []).Select(target => new Change.EffectSet(target, false))];

    /// <summary>The changes that bring back what the author undid last, unless something new was done since; else none.</summary>
    public List<Change> Redo(Guid author) =>
        [.. (histories.GetValueOrDefault(author)?.ToRedo() ?? []).Select(target => new Change.EffectSet(target, true))];

    /// <summary>Something is being typed into a text, or no longer, that is no operation yet: it is shown.</summary>
    public void Typing(OpId text) => Touch(text).Retyped();

    /// <summary>The ids of items whose look has changed since the last call.</summary>
    public List<OpId> TakeChanged()
    {
        // What lies above another number of sheets now is painted elsewhere among all.
        if (!inOrder && hasSheets)
            InOrder();
        var taken = changed.ToList();
        changed.Clear();
        return taken;
    }

    /// <summary>All operations in the order of their stamps: what a snapshot holds.</summary>
    public List<Operation> Operations() => [.. operations.Values.OrderBy(operation => operation.Stamp)];

    /// <summary>What the page shows, as bytes: equal for equal sets of operations, whatever way they came.</summary>
    public byte[] EncodeState()
    {
        var writer = new ByteWriter(1024);
        var columns = new SampleCodec.Writers();
        writer.Varint((ulong)Items.Count);
        foreach (var item in Items)
        {
            Parts.WriteId(writer, item.Id);
            writer.Byte((byte)((item.Shown ? 1 : 0) | (item.Active ? 2 : 0)));
            if (!item.Shown)
                continue;
            item.WriteState(writer, columns);
        }

        foreach (var column in columns.All)
            writer.Bytes(column.Written);
        foreach (var spot in SpotsWithin(item => item.Content.StateBounds))
            WriteSpot(writer, spot);
        foreach (var layer in Layers)
            WriteLayer(writer, layer);
        return writer.ToArray();
    }

    private static void WriteSpot(ByteWriter writer, Spot spot)
    {
        writer.Guid(spot.Id);
        writer.Byte((byte)spot.Kind);
        foreach (var edge in new[] { spot.Area.Left, spot.Area.Top, spot.Area.Right, spot.Area.Bottom })
            writer.Signed(edge);
        writer.Varint((ulong)spot.Values.Count);
        foreach (var (field, value) in spot.Values.OrderBy(entry => entry.Key))
        {
            writer.Byte((byte)field);
            writer.Text(value);
        }

        writer.Signed(spot.DoneAt ?? 0);
        writer.Guid(spot.DoneBy);
        writer.Varint((ulong)spot.Answers.Count);
        foreach (var answer in spot.Answers)
        {
            Parts.WriteId(writer, answer.Id);
            writer.Text(answer.Text);
            writer.Varint((ulong)answer.Ink.Length);
        }
    }

    private static void WriteLayer(ByteWriter writer, Layer layer)
    {
        writer.Guid(layer.Id);
        writer.Text(layer.Name);
        writer.Text(layer.Order);
        writer.Byte((byte)((layer.Hidden ? 1 : 0) | (layer.Locked ? 2 : 0)));
        writer.Byte((byte)layer.Opacity);
    }

    private static bool Belongs(Change change) =>
        change
            is Change.ItemAdded
                or Change.ItemsRemoved
                or Change.ItemsShifted
                or Change.ItemsTransformed
                or Change.ItemsSet
                or Change.TextTyped
                or Change.GapsAdded
                or Change.EffectSet
                or Change.SpotAdded
                or Change.SpotSet
                or Change.LayerSet
                or Change.StepsJoined
                or Change.ItemsAnchored
                or Change.AnswerAdded
                or Change.AnswerWithdrawn;

    private void InOrder()
    {
        top = PaintOrder.Sort(painted, item => changed.Add(item.Id));
        inOrder = true;
    }

    private void ApplyEffect(Operation operation, Change.EffectSet effect)
    {
        var key = (effect.Target, operation.Author);
        var before = !effects.TryGetValue(key, out var standing) || standing.Active;
        if (standing.Stamp > operation.Stamp)
            return;
        effects[key] = (operation.Stamp, effect.Active);
        if (!operations.TryGetValue(effect.Target, out var target) || target.Author != operation.Author || !target.Change.IsStep)
            return;
        histories[operation.Author].SetActive(target.Stamp, effect.Active, operation.Stamp);
        if (before != effect.Active)
            Contribute(target, effect.Active);
    }

    private void Contribute(Operation operation, bool adds)
    {
        switch (operation.Change)
        {
            case Change.ItemAdded added:
                Touch(operation.Id).SetActive(adds);
                Cover(operation.Id);
                foreach (var id in added.Replaced.Distinct())
                    CountRemoval(id, adds);
                break;
            case Change.ItemsSet set:
                foreach (var id in set.Items.Distinct())
                {
                    var item = Touch(id);
                    foreach (var value in set.Values)
                        item.Set(operation.Stamp, operation.Author, value, adds);
                    Cover(id);
                }

                inOrder = false;
                break;
            case Change.LayerSet layer:
                layers.Contribute(operation, layer, adds);
                foreach (var item in painted)
                    changed.Add(item.Id);
                inOrder = false;
                break;
            case Change.ItemsRemoved removed:
                foreach (var id in removed.Items.Distinct())
                    CountRemoval(id, adds);
                break;
            case Change.ItemsShifted shifted:
                Moves++;
                foreach (var id in shifted.Items.Distinct())
                    Touch(id).Place(operation.Stamp, Transform.Shift(shifted.Dx, shifted.Dy), adds);
                break;
            case Change.ItemsTransformed transformed:
                Moves++;
                foreach (var id in transformed.Items.Distinct())
                    Touch(id).Place(operation.Stamp, transformed.Transform, adds);
                spots.Contribute(operation, adds);
                break;
            case Change.TextTyped typed:
                var text = Touch(typed.Text);
                text.Typed.SetActive(operation.Id, adds);
                text.Retyped();
                break;
            case Change.SpotAdded or Change.SpotSet:
                spots.Contribute(operation, adds);
                break;
            case Change.GapsAdded gaps:
                foreach (var stroke in gaps.Strokes.GroupBy(stroke => stroke.Stroke, stroke => stroke.Intervals))
                {
                    if (adds)
                        Touch(stroke.Key).AddGaps(operation.Id, [.. stroke.SelectMany(intervals => intervals)]);
                    else
                        Touch(stroke.Key).TakeGapsBack(operation.Id);
                }

                break;
        }
    }

    /// <summary>Has a thing go along with something else: these steps are done to it instead of those, and are no operations of this page.</summary>
    internal void Carry(OpId id, IEnumerable<(Stamp Stamp, Transform Step)> before, IEnumerable<(Stamp Stamp, Transform Step)> now)
    {
        var item = Touch(id);
        foreach (var (stamp, step) in before)
            item.Place(stamp, step, false);
        foreach (var (stamp, step) in now)
            item.Place(stamp, step, true);
    }

    /// <summary>
    /// Takes an operation out again, the latest of those that are in: the page is as it was before it. For going back in a page's history, where nobody undoes.
    /// </summary>
    /// <param name="operation">The operation.</param>
    /// <param name="replaced">Of a switch, the earlier one whose place it took; null where there is none.</param>
    internal void Withdraw(Operation operation, Operation? replaced)
    {
        if (!operations.Remove(operation.Id))
            return;
        switch (operation.Change)
        {
            case Change.EffectSet effect:
                Unswitch(operation, effect, replaced?.Change as Change.EffectSet, replaced?.Stamp ?? default);
                return;
            case var change when AnswerRules.IsAnswering(change):
                spots.Unsay(operation);
                return;
            case Change.StepsJoined or Change.ItemsAnchored:
                return;
        }

        if (!effects.TryGetValue((operation.Id, operation.Author), out var known) || known.Active)
            Contribute(operation, false);
        if (operation.Change is Change.TextTyped typed)
            ItemOf(typed.Text).Typed.Withdraw(operation.Id);
        histories[operation.Author].Remove(operation.Stamp);
        if (operation.Change is Change.ItemAdded)
        {
            var item = Touch(operation.Id);
            item.Leave();
            painted.RemoveAt(painted.LastIndexOf(item));
        }
    }

    private void Unswitch(Operation operation, Change.EffectSet effect, Change.EffectSet? before, Stamp stampBefore)
    {
        var key = (effect.Target, operation.Author);
        if (before is null)
            effects.Remove(key);
        else
            effects[key] = (stampBefore, before.Active);
        var active = before?.Active ?? true;
        if (!operations.TryGetValue(effect.Target, out var target) || target.Author != operation.Author || !target.Change.IsStep)
            return;
        histories[operation.Author].SetActive(target.Stamp, active, stampBefore);
        if (active != effect.Active)
            Contribute(target, active);
    }

    /// <summary>The layer that things of a layer are on now: what it was merged into, or the first where it is gone.</summary>
    public Guid LayerFor(Guid layer) => layers.Of(layer)?.Id ?? Guid.Empty;

    /// <summary>Whether a spot was made and not taken back by who made it; it may have been removed since.</summary>
    public bool HasSpot(Guid id) => spots.IsMade(id);

    private PageItem Touch(OpId id)
    {
        changed.Add(id);
        return ItemOf(id);
    }

    private void CountRemoval(OpId id, bool adds)
    {
        Touch(id).CountRemoval(adds ? 1 : -1);
        Cover(id);
    }

    /// <summary>What others lie on, or are folded away with, may be seen now, or no more, or lie elsewhere among all.</summary>
    private void Cover(OpId id)
    {
        if (Find(id) is not { HasArrived: true, Content.Covers: true } sheet)
            return;
        (inOrder, hasSheets) = (false, true);
        if (sheet.Content is not SlipContent)
            return;
        foreach (var item in painted.Where(item => item.Slip == sheet.Id))
            changed.Add(item.Id);
    }

    /// <summary>
    /// A thing may lie elsewhere, or have another form: what leans on it follows. Words lean on shapes, which lean on nothing, and connectors on all
    /// that are none themselves, so what leans on something that leans is two steps away at most.
    /// </summary>
    private void Follow(PageItem item)
    {
        if (item.HasArrived)
        {
            foreach (var (_, on) in item.Content.LeansOn)
                (leaning.TryGetValue(on, out var leaners) ? leaners : leaning[on] = []).Add(item.Id);
        }

        if (!leaning.TryGetValue(item.Id, out var followers))
            return;
        foreach (var follower in followers)
        {
            Touch(follower).Follow();
            if (leaning.TryGetValue(follower, out var further))
            {
                foreach (var next in further)
                    Touch(next).Follow();
            }
        }
    }

    private PageItem ItemOf(OpId id)
    {
        if (!items.TryGetValue(id, out var item))
            items[id] = item = new PageItem(id, layers, Guarding, Find, Follow);
        return item;
    }
}
