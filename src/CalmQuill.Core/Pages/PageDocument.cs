using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Pages;

/// <summary>A page: what the set of its operations shows. The order in which they arrive, and how often, makes no difference.</summary>
/// <remarks>
/// Every operation but <see cref="Change.EffectSet"/> contributes something that can be taken out again: a stroke, a removal, a shift, gaps.
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
    private bool inOrder = true;

    public int OperationCount => operations.Count;

    /// <summary>The strokes in the order in which they are painted; removed and taken-back ones are among them.</summary>
    public IReadOnlyList<PageItem> Items
    {
        get
        {
            if (!inOrder) painted.Sort((a, b) => a.Stamp.CompareTo(b.Stamp));
            inOrder = true;
            return painted;
        }
    }

    public PageItem? Find(OpId id) => items.GetValueOrDefault(id);

    /// <summary>Takes an operation in. False when it was here already, or does not belong on a page.</summary>
    public bool Apply(Operation operation)
    {
        if (operation.Change.Kind is < ChangeKind.StrokeAdded or > ChangeKind.EffectSet || !operations.TryAdd(operation.Id, operation)) return false;
        if (operation.Change is Change.EffectSet effect)
        {
            ApplyEffect(operation, effect);
            return true;
        }

        var active = !effects.TryGetValue((operation.Id, operation.Author), out var known) || known.Active;
        if (!histories.TryGetValue(operation.Author, out var history)) histories[operation.Author] = history = new AuthorHistory();
        history.Add(operation.Stamp, active, known.Stamp);
        if (operation.Change is Change.StrokeAdded stroke)
        {
            var item = ItemOf(operation.Id);
            item.Arrive(operation, stroke);
            if (painted.Count > 0 && painted[^1].Stamp > item.Stamp) inOrder = false;
            painted.Add(item);
        }

        if (active) Contribute(operation, true);
        return true;
    }

    /// <summary>The change that undoes the author's last standing step on this page; null when there is none.</summary>
    public Change? Undo(Guid author) =>
        histories.GetValueOrDefault(author)?.ToUndo() is { } target ? new Change.EffectSet(target, false) : null;

    /// <summary>The change that brings back what the author undid last, unless something new was done since; null when there is none.</summary>
    public Change? Redo(Guid author) =>
        histories.GetValueOrDefault(author)?.ToRedo() is { } target ? new Change.EffectSet(target, true) : null;

    /// <summary>The ids of items whose look has changed since the last call.</summary>
    public List<OpId> TakeChanged()
    {
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
            writer.Fixed64(item.Id.Replica);
            writer.Varint(item.Id.Counter);
            writer.Byte((byte)((item.Shown ? 1 : 0) | (item.Active ? 2 : 0)));
            if (!item.Shown) continue;
            writer.Byte((byte)item.Stroke!.Pen.Kind);
            writer.Varint((ulong)item.Stroke.Pen.Width);
            writer.Fixed32(item.Stroke.Pen.Colour);
            writer.Signed(item.Dx);
            writer.Signed(item.Dy);
            var visible = item.Visible();
            writer.Varint((ulong)visible.Count);
            foreach (var interval in visible)
            {
                writer.Signed(interval.Start);
                writer.Signed(interval.End);
            }

            SampleCodec.Write(writer, columns, item.Stroke.Samples);
        }

        foreach (var column in columns.All) writer.Bytes(column.Written);

        return writer.ToArray();
    }

    private void ApplyEffect(Operation operation, Change.EffectSet effect)
    {
        var key = (effect.Target, operation.Author);
        var before = !effects.TryGetValue(key, out var standing) || standing.Active;
        if (standing.Stamp > operation.Stamp) return;
        effects[key] = (operation.Stamp, effect.Active);
        if (!operations.TryGetValue(effect.Target, out var target) || target.Author != operation.Author || target.Change is Change.EffectSet) return;
        histories[operation.Author].SetActive(target.Stamp, effect.Active, operation.Stamp);
        if (before != effect.Active) Contribute(target, effect.Active);
    }

    private void Contribute(Operation operation, bool adds)
    {
        switch (operation.Change)
        {
            case Change.StrokeAdded:
                Touch(operation.Id).SetActive(adds);
                break;
            case Change.ItemsRemoved removed:
                foreach (var id in removed.Items) Touch(id).CountRemoval(adds ? 1 : -1);
                break;
            case Change.ItemsShifted shifted:
                foreach (var id in shifted.Items) Touch(id).Shift(adds ? shifted.Dx : -shifted.Dx, adds ? shifted.Dy : -shifted.Dy);
                break;
            case Change.GapsAdded gaps:
                foreach (var stroke in gaps.Strokes)
                {
                    if (adds) Touch(stroke.Stroke).Gaps.Add(operation.Id, stroke.Intervals);
                    else Touch(stroke.Stroke).Gaps.TakeBack(operation.Id);
                }

                break;
        }
    }

    private PageItem Touch(OpId id)
    {
        changed.Add(id);
        return ItemOf(id);
    }

    private PageItem ItemOf(OpId id)
    {
        if (!items.TryGetValue(id, out var item)) items[id] = item = new PageItem(id);
        return item;
    }
}
