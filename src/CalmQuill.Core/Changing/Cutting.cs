using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;

namespace CalmQuill.Core.Changing;

/// <summary>A piece of a page as it lies: what is copied, cut and laid down elsewhere. Its form is an ordinary batch of operations.</summary>
/// <remarks>What was rubbed out of a stroke stays rubbed out in its copy, as gaps of the copy; groups stay groups of their own.</remarks>
public static class Cutting
{
    /// <summary>Cuts items out of a page, in the order in which they are painted.</summary>
    public static byte[] Of(PageDocument page, IReadOnlySet<OpId> chosen)
    {
        var piece = new Piece();
        var gaps = new List<StrokeGaps>();
        var groups = new Dictionary<string, List<OpId>>();
        var copies = new Dictionary<OpId, OpId>();
        foreach (var item in page.Items)
        {
            if (!chosen.Contains(item.Id) ? !IsFoldedAway(item) : !item.Shown)
                continue;
            var id = copies[item.Id] = piece.Add(item.Content.Copy());
            if (!item.Content.IsWhole)
                gaps.Add(new StrokeGaps(id, Interval.Complement(item.Visible(), 0, item.Content.End)));
            if (item.Group.Length > 0)
                (groups.TryGetValue(item.Group, out var members) ? members : groups[item.Group] = []).Add(id);
        }

        if (gaps.Count > 0)
            piece.Add(new Change.GapsAdded(gaps));
        foreach (var (group, members) in groups)
            piece.Add(new Change.ItemsSet(members, [new ItemValue(ItemField.Group, group)]));
        foreach (var (original, copy) in copies)
        {
            if (Joins(page.Find(original)!) is { Count: > 0 } joins)
                piece.Add(new Change.ItemsSet([copy], joins));
            if (page.Find(original)!.Content.Alone is { Count: > 0 } alone)
                piece.Add(new Change.ItemsSet([copy], alone));
        }

        return OperationCodec.Encode(piece.Operations);

        // What leans on things that are copied too leans on their copies.
        List<ItemValue> Joins(PageItem item) =>
            [
                .. item
                    .Content.LeansOn.Where(lean => copies.ContainsKey(lean.On))
                    .Select(lean => new ItemValue(lean.Field, copies[lean.On].ToString())),
            ];

        // The copy of a slip is unfolded, with all that lies on it.
        bool IsFoldedAway(PageItem item) => item is { Stands: true, Shown: false } && chosen.Contains(item.Slip);
    }

    /// <summary>The box of a piece, 0.01 mm; null when it is empty.</summary>
    /// <exception cref="OperationFormatException">The bytes are not a piece.</exception>
    public static Box? Bounds(ReadOnlySpan<byte> piece)
    {
        return Open(piece).Bounds();
    }

    /// <summary>A piece as a page that holds nothing else.</summary>
    /// <inheritdoc cref="Bounds"/>
    public static PageDocument Open(ReadOnlySpan<byte> piece)
    {
        var page = new PageDocument();
        foreach (var operation in OperationCodec.Decode(piece))
            page.Apply(operation);
        return page;
    }
}
