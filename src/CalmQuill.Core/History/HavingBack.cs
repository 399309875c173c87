using CalmQuill.Core.Changing;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Spots;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.History;

/// <summary>
/// What brings back what stood on a page at a moment: as new operations by whoever has it back, so that nothing that others did since is undone. What
/// is gone is laid down anew, what was rubbed out of a thing is laid where that thing lies, and what was moved or made to look otherwise is put back
/// where nobody else changed it since.
/// </summary>
public sealed class HavingBack
{
    private const ulong Replica = 1;
    private readonly PageHistory history;
    private readonly PageDocument now;
    private readonly HashSet<OpId> changedByOthers = [];
    private readonly List<Operation> piece = [];
    private readonly List<StrokeGaps> gaps = [];
    private readonly Dictionary<OpId, OpId> laid = [];

    private HavingBack(PageHistory history, PageDocument now, Guid person)
    {
        (this.history, this.now) = (history, now);
        foreach (var operation in history.Since.Where(operation => operation.Author != person))
        {
            changedByOthers.UnionWith(Access.TouchRules.Altered(operation.Change));
            // Who switches something off or on does to a thing what that did.
            if (operation.Change is Change.EffectSet effect && history.Find(effect.Target) is { } target)
                changedByOthers.UnionWith(Access.TouchRules.Altered(target.Change));
        }
    }

    /// <summary>The changes, to be made one after the other.</summary>
    public Laying Laying => new(piece);

    /// <summary>How many things come back or are put back.</summary>
    public int Things { get; private set; }

    /// <summary>How many others changed since, and which are left as they are.</summary>
    public int Left { get; private set; }

    /// <param name="history">The history, at the moment that is had back.</param>
    /// <param name="now">The page as it is.</param>
    /// <param name="chosen">The things that are had back; null for all.</param>
    /// <param name="person">Who does it.</param>
    public static HavingBack Of(PageHistory history, PageDocument now, IReadOnlySet<OpId>? chosen, Guid person)
    {
        var back = new HavingBack(history, now, person);
        var area = chosen is null ? null : back.AreaOf(chosen);
        foreach (var then in history.Page.Items)
        {
            if (Comparing.IsSeen(then) && chosen?.Contains(then.Id) is not false)
                back.Have(then);
        }

        var standing = now.Spots().Select(spot => spot.Id).ToHashSet();
        foreach (var spot in history.Page.Spots().Where(spot => !standing.Contains(spot.Id)))
        {
            if (chosen is null || spot.Items.Any(chosen.Contains) || (area is { } within && within.Meets(spot.Area)))
                back.Have(spot);
        }

        if (back.gaps.Count > 0)
            back.Add(new Change.GapsAdded(back.gaps));
        return back;
    }

    private void Have(PageItem then)
    {
        var standing = now.Find(then.Id) is { Stands: true } item && item.Visible().Count > 0 ? item : null;
        if (standing is null)
        {
            Things++;
            Lay(then, then.Visible());
            return;
        }

        var isPutBack = false;
        if (!Comparing.LiesAlike(then, standing) || Comparing.Restyled(then, standing).Count > 0 || !Comparing.ReadsAlike(then, standing))
        {
            // Where another changed it since, or it may not be changed, it stays as it is.
            if (changedByOthers.Contains(then.Id) || !standing.IsOpen)
                Left++;
            else
                isPutBack = PutBack(then, standing);
        }

        var missing = Missing(then, standing, isPutBack);
        if (missing.Count > 0)
            Lay(isPutBack ? then : standing, missing);
        if (isPutBack || missing.Count > 0)
            Things++;
    }

    /// <summary>What of a thing is not seen any more; nothing where it is measured otherwise now, as a shape that was made another.</summary>
    private static List<Interval> Missing(PageItem then, PageItem standing, bool isPutBack)
    {
        var isAlike = then.Content.End == standing.Content.End;
        if (!isAlike && !isPutBack)
            return [];
        var seen = isAlike ? standing.Visible() : standing.Gaps.Visible(then.Content.End / Interval.PerSample + 1);
        return [.. then.Visible().SelectMany(part => Interval.Complement(seen, part.Start, part.End))];
    }

    private bool PutBack(PageItem then, PageItem standing)
    {
        if (!Comparing.LiesAlike(then, standing))
        {
            var step = Whole(then).After(Whole(standing).Inverse());
            if (!step.IsReasonable)
                return false;
            Add(step.IsShift ? new Change.ItemsShifted([then.Id], step.E, step.F) : new Change.ItemsTransformed([then.Id], [], step));
        }

        var values = Comparing
            .Restyled(then, standing)
            .Select(field => new ItemValue(field, then.Read(field)))
            // A layer that was erased since is none to lie on.
            .Where(value => value.Field is not ItemField.Layer || standing.IsThere(value.Value))
            .ToList();
        if (values.Count > 0)
            Add(new Change.ItemsSet([then.Id], values));
        if (!Comparing.ReadsAlike(then, standing))
            Add(new Change.TextTyped(then.Id, Passage.Of(then.Typed.Paragraphs()).InPlaceOf(standing.Typed, LetterId.Own)));
        return true;
    }

    private static Transform Whole(PageItem item) => item.Placed?.Whole() ?? Transform.Identity;

    private void Lay(PageItem item, List<Interval> parts)
    {
        var id = Add(item.Content.Copy() with { Layer = now.LayerFor(item.Layer?.Id ?? Guid.Empty) });
        laid[item.Id] = id;
        if (Interval.Complement(parts, 0, item.Content.End) is { Count: > 0 } gone)
            gaps.Add(new StrokeGaps(id, gone));
    }

    /// <summary>A mark, link or heading that is gone: with all that was said to it, unless who made it took it back, which is theirs to do.</summary>
    private void Have(Spot then)
    {
        Things++;
        if (now.HasSpot(then.Id))
            Add(new Change.SpotSet(then.Id, [new SpotValue(SpotField.Removed, "")]));
        else
            Add(
                new Change.SpotAdded(
                    Successor(then.Id),
                    then.Kind,
                    then.Area,
                    [.. then.Items.Select(id => laid.GetValueOrDefault(id, id))],
                    [.. then.Values.Select(value => new SpotValue(value.Key, value.Value))]
                )
            );
    }

    /// <summary>An id for what takes a spot's place: another every time, since the one before may have been taken back too.</summary>
    private Guid Successor(Guid spot)
    {
        var bytes = spot.ToByteArray();
        var seed = history.Length + now.OperationCount;
        for (var i = 0; i < 4; i++)
            bytes[i] ^= (byte)(seed >> (8 * i));
        bytes[15] ^= 0x5A;
        return new Guid(bytes);
    }

    private Box? AreaOf(IReadOnlySet<OpId> chosen) =>
        Box.Around(chosen.Select(history.Page.Find).Where(item => item is { Shown: true }).Select(item => item!.Bounds));

    private OpId Add(Change change)
    {
        var id = new OpId(Replica, (ulong)piece.Count + 1);
        piece.Add(new Operation(id, Hlc.At(piece.Count + 1), Guid.Empty, change));
        return id;
    }
}
