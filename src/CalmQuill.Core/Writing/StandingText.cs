using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Writing;

/// <summary>
/// A typed text without its past: of each operation what stands of it, and of what is gone no more than that something was there, so that the letters
/// keep their places.
/// </summary>
internal static class StandingText
{
    /// <summary>Stands for a letter that is gone, and shows nothing (ZERO WIDTH SPACE).</summary>
    internal const char Blank = '\u200B';

    /// <param name="tree">The letters.</param>
    /// <returns>
    /// What is left of each operation that is still needed: its letters that are gone are blank, and removed by itself; formats that no letter shows are
    /// left out.
    /// </returns>
    public static Dictionary<OpId, TextChange> Of(LetterTree tree)
    {
        var shown = Shown(tree);
        var standing = new Dictionary<OpId, TextChange>();
        var needed = new Queue<OpId>(
            tree.Batches.Where(batch => batch.IsIn && (batch.Runs.Exists(run => run.IsSeen) || shown.ContainsKey(batch.Id)))
                .Select(batch => batch.Id)
        );
        while (needed.TryDequeue(out var id))
        {
            if (standing.ContainsKey(id))
                continue;
            var left = standing[id] = Left(tree.BatchOf(id)!, shown.GetValueOrDefault(id, []));
            foreach (var other in left.LeansOn(id))
                needed.Enqueue(other);
        }

        return standing;
    }

    /// <summary>The formats that letters which are seen, and the end, owe their look to; by operation and place.</summary>
    private static Dictionary<OpId, HashSet<int>> Shown(LetterTree tree)
    {
        var shown = new Dictionary<OpId, HashSet<int>>();
        var looked = new HashSet<Cover>();
        foreach (var run in tree.Order.Runs)
        {
            if ((run.IsSeen || run == tree.Order.End) && looked.Add(run.Cover))
            {
                foreach (
                    var last in run
                        .Cover.Formats.Where(format => format.Active)
                        .GroupBy(format => format.Trait)
                        .Select(group => group.Last())
                )
                    (shown.TryGetValue(last.Operation, out var places) ? places : shown[last.Operation] = []).Add(last.Place);
            }
        }

        return shown;
    }

    private static TextChange Left(Batch batch, HashSet<int> formats)
    {
        var seen = new bool[batch.Letters];
        foreach (var run in batch.Runs.Where(run => run.IsSeen))
            Array.Fill(seen, true, run.Start, run.Length);
        var insertions = new List<Insertion>();
        var first = 0;
        foreach (var insertion in batch.Change.Insertions)
        {
            var start = first;
            insertions.Add(
                insertion with
                {
                    Text = new string([.. insertion.Text.Select((letter, i) => seen[start + i] ? letter : Blank)]),
                }
            );
            first += insertion.Text.Length;
        }

        return new TextChange(insertions, Gone(seen, batch.Id), [.. batch.Change.Formats.Where((_, place) => formats.Contains(place))]);
    }

    private static List<LetterSpan> Gone(bool[] seen, OpId id)
    {
        var spans = new List<LetterSpan>();
        for (var i = 0; i < seen.Length; )
        {
            var end = i + 1;
            while (end < seen.Length && seen[end] == seen[i])
                end++;
            if (!seen[i])
                spans.Add(new LetterSpan(id, i, end - i));
            i = end;
        }

        return spans;
    }
}
