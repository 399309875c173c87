using CalmQuill.Core.Ordering;

namespace CalmQuill.Core.Notebooks;

/// <summary>What turns one outline of a notebook into another: one run of entries in place of another, and the numbers of the pages behind it.</summary>
/// <param name="From">So many entries stay at the head.</param>
/// <param name="Dropped">So many after them go.</param>
/// <param name="Entries">These come in their place.</param>
/// <param name="Shift">What is added to the numbers of all entries behind.</param>
public sealed record OutlineChange(int From, int Dropped, IReadOnlyList<NotebookEntry> Entries, int Shift)
{
    /// <summary>The shortest such change.</summary>
    public static OutlineChange Between(IReadOnlyList<NotebookEntry> before, IReadOnlyList<NotebookEntry> after)
    {
        var shift = before.Count > 0 && after.Count > 0 ? after[^1].Number - before[^1].Number : 0;
        var (head, tail) = SameEnds.Of(before, after, (one, other) => IsSame(one, other, 0), (one, other) => IsSame(one, other, shift));
        return new OutlineChange(
            head,
            before.Count - head - tail,
            [.. after.Skip(head).Take(after.Count - head - tail)],
            tail > 0 ? shift : 0
        );
    }

    /// <summary>Field by field and the likeliest first: it is asked of every entry at every change.</summary>
    private static bool IsSame(NotebookEntry before, NotebookEntry after, int shift) =>
        ReferenceEquals(before, after) && shift == 0
        || before.Number + shift == after.Number
            && before.Id == after.Id
            && before.Depth == after.Depth
            && before.InBin == after.InBin
            && before.Parent == after.Parent
            && before.Kind == after.Kind
            && before.Order == after.Order
            && before.Title == after.Title
            && before.Colour == after.Colour
            && before.Paper == after.Paper
            && before.Planner == after.Planner
            && before.CreatedAt == after.CreatedAt
            && before.BinnedAt == after.BinnedAt
            && before.OwnTags == after.OwnTags
            && before.Tags == after.Tags;
}
