using CalmQuill.Core.Access;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Layers;
using CalmQuill.Core.Library;
using CalmQuill.Core.Ordering;
using CalmQuill.Core.Papers;
using CalmQuill.Core.Spots;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Operations;

/// <summary>Whether one operation may enter one document. The server asks before it stores; a device asks before it applies.</summary>
public static class OperationRules
{
    /// <summary>How far a stamp may be ahead of the server's clock, in milliseconds.</summary>
    public const long MostAhead = 60_000;

    private const ulong MostCounter = 1UL << 48;

    /// <param name="operation">The operation, well formed.</param>
    /// <param name="kind">The kind of the document it is meant for.</param>
    /// <param name="role">The sender's role in the document's space.</param>
    /// <param name="sender">Who is signed in.</param>
    /// <param name="nowUnixMilliseconds">The checking side's clock.</param>
    /// <returns>Null when it may enter, else why not.</returns>
    public static Refusal? Check(Operation operation, DocumentKind kind, Role role, Guid sender, long nowUnixMilliseconds)
    {
        if (!Rights.MayRead(role))
            return new Refusal(Refusal.NotAllowedCode, $"You are not a member of the space this belongs to.");
        if (!Rights.MayWrite(role) && !(Rights.May(role, Act.Answer) && AnswerRules.IsAnswering(operation.Change)))
            return new Refusal(Refusal.NotAllowedCode, $"You may read here, but not write.");
        if (operation.Author != sender)
            return new Refusal("wrong-author", $"This was written under another person's name.");
        if (operation.Id.Counter is 0 or > MostCounter)
            return new Refusal("bad-id", $"This change has no proper number.");
        if (operation.Time.UnixMilliseconds > nowUnixMilliseconds + MostAhead)
            return new Refusal(Refusal.ClockAheadCode, $"This device's clock is ahead of the server's by more than a minute.");
        // Whole characters first: whatever reads texts further needs them.
        if (!Texts(operation.Change).All(IsWhole))
            return new Refusal("bad-text", $"A text holds half a character.");
        if (Named(operation.Change).Any(id => id.Counter > MostCounter))
            return new Refusal("bad-id", $"This change names something that has no proper number.");
        return CheckChange(operation.Change, kind) ?? CheckTexts(operation.Change);
    }

    /// <summary>No text holds signs that databases and documents cannot keep; of control characters, lines and tabs alone.</summary>
    private static Refusal? CheckTexts(Change change)
    {
        foreach (var text in Texts(change))
        {
            foreach (var c in text)
            {
                if (c is '\n' or '\r' or '\t' || !char.IsControl(c))
                    continue;
                return new Refusal("bad-text", $"A text holds control characters.");
            }
        }

        return null;
    }

    /// <summary>The operations that a change names.</summary>
    private static IEnumerable<OpId> Named(Change change) =>
        change switch
        {
            Change.ItemsRemoved removed => removed.Items,
            Change.ItemsShifted shifted => shifted.Items,
            Change.GapsAdded gaps => gaps.Strokes.Select(stroke => stroke.Stroke),
            Change.EffectSet effect => [effect.Target],
            Change.SpotAdded spot => spot.Items,
            Change.ItemsTransformed transformed => transformed.Items,
            Change.ItemAdded added => added.Replaced,
            Change.ItemsSet set => set.Items,
            Change.StepsJoined joined => joined.Steps,
            Change.ItemsAnchored anchored => anchored.Items.Append(anchored.On),
            Change.AnswerWithdrawn withdrawn => [withdrawn.Answer],
            Change.TextTyped typed => typed.Typed.LeansOn(LetterId.Own).Append(typed.Text),
            _ => [],
        };

    /// <summary>Whether no character beyond U+FFFF was cut in two, which cannot be written as UTF-8.</summary>
    private static bool IsWhole(string text)
    {
        for (var i = 0; i < text.Length; i++)
        {
            if (!char.IsSurrogate(text[i]))
                continue;
            if (i + 1 == text.Length || !char.IsSurrogatePair(text[i], text[i + 1]))
                return false;
            i++;
        }

        return true;
    }

    private static IEnumerable<string> Texts(Change change) =>
        change switch
        {
            Change.NodePlaced placed => [placed.Order],
            Change.OrdersSet set => set.Orders.Select(one => one.Order),
            Change.PropertySet set => [set.Value],
            Change.PageAdded added => [added.Order, added.Paper],
            Change.SpotAdded spot => spot.Values.Select(value => value.Value),
            Change.SpotSet spot => spot.Values.Select(value => value.Value),
            Change.AnswerAdded answer => [answer.Text],
            Change.ItemAdded added => added.Texts,
            Change.ItemsSet set => set.Values.Select(value => value.Value),
            Change.LayerSet set => set.Values.Select(value => value.Value),
            Change.TextTyped typed => typed
                .Typed.Insertions.Select(insertion => insertion.Text)
                .Concat(typed.Typed.Formats.Select(format => format.Value)),
            _ => [],
        };

    private static Refusal? CheckChange(Change change, DocumentKind kind) =>
        (kind, change) switch
        {
            (
                DocumentKind.Library,
                Change.NodePlaced
                {
                    NodeKind: NodeKind.Folder
                        or NodeKind.Notebook
                        or NodeKind.Tag
                        or NodeKind.Lens
                        or NodeKind.Paper
                        or NodeKind.MarkKind
                        or NodeKind.Stamp
                } placed
            ) => Check(placed),
            (DocumentKind.Library or DocumentKind.Notebook, Change.PropertySet set) => Check(set, kind),
            (DocumentKind.Library, Change.Visited) => null,
            (DocumentKind.Notebook, Change.PageAdded added) => Check(added),
            (DocumentKind.Notebook, Change.NodePlaced { NodeKind: NodeKind.Section or NodeKind.Page } placed) => Check(placed),
            (DocumentKind.Library or DocumentKind.Notebook, Change.OrdersSet set) => Check(set),
            (DocumentKind.Library or DocumentKind.Notebook, Change.TagSet tag) => tag.Target == Guid.Empty || tag.Tag == Guid.Empty
                ? new Refusal("bad-id", $"A tag needs something to be put on.")
                : null,
            (DocumentKind.Page, Change.ItemAdded added) => added.Check() ?? TooMany(added.Replaced.Count),
            (DocumentKind.Page, Change.ItemsRemoved removed) => CheckItems(removed.Items),
            (DocumentKind.Page, Change.ItemsShifted shifted) => CheckItems(shifted.Items)
                ?? (Far(shifted.Dx) || Far(shifted.Dy) ? new Refusal("too-far", $"Ink can be moved by at most 20 metres.") : null),
            (DocumentKind.Page, Change.GapsAdded gaps) => Check(gaps),
            (DocumentKind.Page, Change.EffectSet) => null,
            (DocumentKind.Page, Change.SpotAdded spot) => SpotRules.Check(spot) ?? TooMany(spot.Items.Count),
            (DocumentKind.Page, Change.SpotSet spot) => SpotRules.Check(spot.Spot, spot.Values),
            (DocumentKind.Page, Change.AnswerAdded answer) => AnswerRules.Check(answer),
            (DocumentKind.Page, Change.AnswerWithdrawn) => null,
            (DocumentKind.Page, Change.ItemsTransformed transformed) => Check(transformed),
            (DocumentKind.Page, Change.TextTyped typed) => WritingRules.Check(typed.Typed),
            (DocumentKind.Page, Change.ItemsSet set) => ItemRules.Check(set) ?? TooMany(set.Items.Count),
            (DocumentKind.Page, Change.LayerSet set) => LayerRules.Check(set),
            (DocumentKind.Page, Change.StepsJoined joined) => CheckItems(joined.Steps),
            (DocumentKind.Aside, Change.ItemsAnchored anchored) => CheckItems(anchored.Items) ?? Check(anchored.Lay),
            // Marks, links, headings and curtains are the page's.
            (DocumentKind.Aside, not (Change.SpotAdded or Change.SpotSet or Change.AnswerAdded or Change.AnswerWithdrawn)) => CheckChange(
                change,
                DocumentKind.Page
            ),
            _ => new Refusal("wrong-document", $"This change does not belong into a document of this kind."),
        };

    private static Refusal? Check(Change.NodePlaced placed)
    {
        if (placed.Node == Guid.Empty)
            return new Refusal("bad-id", $"What is put somewhere has no proper id.");
        return OrderKey.IsValid(placed.Order) ? null : new Refusal("bad-order", $"The place in the order is not well formed.");
    }

    private static Refusal? Check(Change.OrdersSet set)
    {
        if (set.Orders.Count is 0 or > Neighbourhood.MostLaid)
            return new Refusal("bad-order", $"Between one and {Neighbourhood.MostLaid:N0} things get a new place at once.");
        if (set.Orders.Select(one => one.Node).Distinct().Count() < set.Orders.Count)
            return new Refusal("bad-order", $"A thing gets two new places at once.");
        return set.Orders.All(one => one.Node != Guid.Empty && OrderKey.IsValid(one.Order))
            ? null
            : new Refusal("bad-order", $"The place in the order is not well formed.");
    }

    private static Refusal? Check(Change.PropertySet set, DocumentKind kind)
    {
        if (!Properties.All.TryGetValue(set.Property, out var descriptor))
            return new Refusal("bad-property", $"This property is not known here.");
        return descriptor.BelongsIn(kind)
            ? descriptor.Check(set.Value, kind)
            : new Refusal("wrong-document", $"This change does not belong into a document of this kind.");
    }

    private static Refusal? Check(Change.PageAdded added)
    {
        if (added.Page == Guid.Empty)
            return new Refusal("bad-id", $"A page has no proper id.");
        if (!OrderKey.IsValid(added.Order))
            return new Refusal("bad-order", $"The place in the order is not well formed.");
        return PaperText.Read(added.Paper).Refusal;
    }

    private static Refusal? Check(Change.GapsAdded gaps)
    {
        foreach (var stroke in gaps.Strokes)
        {
            foreach (var interval in stroke.Intervals)
            {
                if (interval.Start < 0 || interval.End < interval.Start || interval.End > StrokeSamples.MostSamples * Interval.PerSample)
                    return new Refusal("bad-gap", $"What was rubbed out lies outside its stroke.");
            }
        }

        if (gaps.Strokes.Count == 0)
            return new Refusal("empty", $"This change names nothing to change.");
        return TooMany(Math.Max(gaps.Strokes.Count, gaps.Strokes.Max(stroke => stroke.Intervals.Count)));
    }

    private static Refusal? Check(Change.ItemsTransformed transformed)
    {
        if (transformed.Items.Count + transformed.Spots.Count == 0)
            return new Refusal("empty", $"This change names nothing to change.");
        if (TooMany(Math.Max(transformed.Items.Count, transformed.Spots.Count)) is { } refusal)
            return refusal;
        return Check(transformed.Transform);
    }

    private static Refusal? Check(Transform transform) =>
        transform.IsReasonable
            ? null
            : new Refusal("too-far", $"Ink can be scaled by at most {Transform.MostScale} times, and moved by at most 20 metres.");

    private static Refusal? CheckItems(IReadOnlyList<OpId> items) =>
        items.Count == 0 ? new Refusal("empty", $"This change names nothing to change.") : TooMany(items.Count);

    private static Refusal? TooMany(int count) =>
        count > OperationCodec.MostItems
            ? new Refusal("too-many", $"At most {OperationCodec.MostItems:N0} things are changed at once.")
            : null;

    private static bool Far(int value) => value is < -StrokeSamples.MostCoordinate or > StrokeSamples.MostCoordinate;
}
