using CalmQuill.Core.Operations;
using CalmQuill.Core.Ordering;

namespace CalmQuill.Core.Writing;

/// <summary>One operation on a typed text: what it typed, where that lies now, and what was typed at its letters.</summary>
internal sealed class Batch(OpId id, Stamp stamp, TextChange change, bool active)
{
    private readonly int[] starts = StartsOf(change);
    private readonly SortedList<int, List<LetterId>> lefts = [],
        rights = [];

    public OpId Id => id;

    public Stamp Stamp => stamp;

    public TextChange Change => change;

    /// <summary>False once its author has taken it back.</summary>
    public bool Active { get; set; } = active;

    /// <summary>Whether all that it leans on is here, and it is part of the text.</summary>
    public bool IsIn { get; set; }

    /// <summary>How much of other operations hangs on its letters: what was typed at them, what removes them, and edges of formats.</summary>
    public int Leaning { get; set; }

    /// <summary>How many letters it typed.</summary>
    public int Letters { get; } = change.Letters;

    /// <summary>Its letters as they lie in the text, in the order in which they were typed.</summary>
    public List<LetterRun> Runs { get; } = [];

    /// <summary>Its formats, as they stand at letters.</summary>
    public List<StandingFormat> Formats { get; } = [];

    /// <summary>The letters of others that hang on a side of a letter, in their order; null for none.</summary>
    public List<LetterId>? Children(int letter, bool before) => (before ? lefts : rights).GetValueOrDefault(letter);

    public void AddChild(int letter, bool before, LetterId child, IComparer<LetterId> order)
    {
        var side = before ? lefts : rights;
        if (!side.TryGetValue(letter, out var children))
            side[letter] = children = [];
        var place = children.BinarySearch(child, order);
        children.Insert(~place, child);
        if (child.Operation != id)
            Leaning++;
    }

    public void RemoveChild(int letter, bool before, LetterId child)
    {
        var side = before ? lefts : rights;
        side[letter].Remove(child);
        if (side[letter].Count == 0)
            side.Remove(letter);
        if (child.Operation != id)
            Leaning--;
    }

    /// <summary>The last letter that was typed on from a letter without a break.</summary>
    public int LastOf(int letter)
    {
        var place = Array.BinarySearch(starts, letter);
        var next = place >= 0 ? place + 1 : ~place;
        return next < starts.Length ? starts[next] - 1 : Letters - 1;
    }

    /// <summary>The first letter from one to another, both included, on whose right side something hangs; null for none.</summary>
    public int? FirstWithRight(int from, int to)
    {
        var place = Searching.CountWhile(rights.Count, i => rights.Keys[i] < from);
        return place < rights.Count && rights.Keys[place] <= to ? rights.Keys[place] : null;
    }

    /// <summary>The place among <see cref="Runs"/> of the run that holds a letter.</summary>
    public int RunOf(int letter) => Runs.CountWhile(run => run.Start <= letter) - 1;

    private static int[] StartsOf(TextChange change)
    {
        var starts = new int[change.Insertions.Count];
        for (var i = 1; i < starts.Length; i++)
            starts[i] = starts[i - 1] + change.Insertions[i - 1].Text.Length;
        return starts;
    }
}
