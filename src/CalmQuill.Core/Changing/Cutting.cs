using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;

namespace CalmQuill.Core.Changing;

/// <summary>A piece of a page as it lies: what is copied, cut and laid down elsewhere. Its form is an ordinary batch of operations.</summary>
/// <remarks>What was rubbed out of a stroke stays rubbed out in its copy, as gaps of the copy; groups stay groups of their own.</remarks>
public static class Cutting
{
    private const ulong Replica = 1;

    /// <summary>Cuts items out of a page, in the order in which they are painted.</summary>
    public static byte[] Of(PageDocument page, IReadOnlySet<OpId> chosen)
    {
        var operations = new List<Operation>();
        var gaps = new List<StrokeGaps>();
        var groups = new Dictionary<string, List<OpId>>();
        foreach (var item in page.Items)
        {
            if (!chosen.Contains(item.Id) ? !IsFoldedAway(item) : !item.Shown)
                continue;
            var id = Add(item.Content.Copy());
            if (!item.Content.IsWhole)
                gaps.Add(new StrokeGaps(id, Interval.Complement(item.Visible(), 0, item.Content.End)));
            if (item.Group.Length > 0)
                (groups.TryGetValue(item.Group, out var members) ? members : groups[item.Group] = []).Add(id);
        }

        if (gaps.Count > 0)
            Add(new Change.GapsAdded(gaps));
        foreach (var (group, members) in groups)
            Add(new Change.ItemsSet(members, [new ItemValue(ItemField.Group, group)]));
        return OperationCodec.Encode(operations);

        // The copy of a slip is unfolded, with all that lies on it.
        bool IsFoldedAway(PageItem item) => item is { Stands: true, Shown: false } && chosen.Contains(item.Slip);

        OpId Add(Change change)
        {
            var id = new OpId(Replica, (ulong)operations.Count + 1);
            operations.Add(new Operation(id, Hlc.At(operations.Count + 1), Guid.Empty, change));
            return id;
        }
    }

    /// <summary>The box of a piece, 0.01 mm; null when it is empty.</summary>
    /// <exception cref="OperationFormatException">The bytes are not a piece.</exception>
    public static Box? Bounds(ReadOnlySpan<byte> piece)
    {
        var page = new PageDocument();
        foreach (var operation in OperationCodec.Decode(piece))
            page.Apply(operation);
        return page.Bounds();
    }
}
