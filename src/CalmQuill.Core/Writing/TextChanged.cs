using CalmQuill.Core.Ordering;

namespace CalmQuill.Core.Writing;

/// <summary>
/// How much of a text nothing was done to since its paragraphs were told last: so many letters at its head, and so many at its tail, of which its end is the last.
/// </summary>
internal sealed class TextChanged
{
    /// <summary>What does more than so much to a text is not looked at closely.</summary>
    private const int MostPlaces = 100;

    private int head,
        tail;

    public bool IsNothing => head == int.MaxValue;

    /// <summary>The paragraphs are told.</summary>
    public void Nothing() => (head, tail) = (int.MaxValue, int.MaxValue);

    /// <summary>Nothing is as it was.</summary>
    public void All() => (head, tail) = (0, 0);

    /// <summary>An operation was put into the text, or is going to be taken out of it or to count otherwise.</summary>
    public void By(Batch batch, LetterTree tree)
    {
        var places = batch.Runs.Count + batch.Formats.Count + batch.Change.Removals.Sum(removal => removal.Count);
        if (places > MostPlaces)
        {
            All();
            return;
        }

        foreach (var run in batch.Runs)
            Run(run, tree);
        foreach (var removal in batch.Change.Removals)
        {
            var from = tree.BatchOf(removal.Operation)!;
            for (var i = from.RunOf(removal.Start); i < from.Runs.Count && from.Runs[i].Start <= removal.Last.Index; i++)
                Run(from.Runs[i], tree);
        }

        foreach (var format in batch.Formats)
            Between(PlaceOf(format.From, tree), PlaceOf(format.To, tree), tree);
    }

    /// <summary>How many of the paragraphs that were told last are the same at the head, and of the rest how many at the tail, but for where they begin.</summary>
    public (int Head, int Tail) Kept(List<Paragraph> paragraphs)
    {
        if (paragraphs.Count == 0)
            return (0, 0);
        // A paragraph goes on to its line break and is the same only with it, and begins behind one.
        var same = paragraphs.CountWhile(paragraph => paragraph.End < head);
        var from = paragraphs[^1].End + 1L - tail;
        return (same, Math.Min(paragraphs.Count - paragraphs.CountWhile(paragraph => paragraph.Start <= from), paragraphs.Count - same));
    }

    private void Run(LetterRun run, LetterTree tree)
    {
        var at = tree.Order.PositionOf(run);
        Between(at, at + run.Seen, tree);
    }

    private void Between(int from, int to, LetterTree tree)
    {
        head = Math.Min(head, Math.Min(from, to));
        tail = Math.Min(tail, tree.Order.Seen + 1 - Math.Max(from, to));
    }

    /// <summary>The position of what lies behind an edge; that of the end is the number of letters.</summary>
    private static int PlaceOf(Edge edge, LetterTree tree) =>
        tree.RunAt(edge) is { } run ? tree.Order.PositionOf(run) : tree.Order.Seen + 1;
}
