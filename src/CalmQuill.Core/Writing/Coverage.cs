namespace CalmQuill.Core.Writing;

/// <summary>Which formats reach over which letters: every edge that lies in the text, and the covers of its runs.</summary>
internal sealed class Coverage(LetterTree tree)
{
    private readonly Dictionary<LetterId, List<StandingFormat>> edges = [];

    /// <summary>Another number whenever a format was taken back or came again.</summary>
    public int Version { get; private set; }

    /// <summary>Lays the formats of an operation over the letters between their edges.</summary>
    public void Put(Batch batch)
    {
        for (var i = 0; i < batch.Change.Formats.Count; i++)
            Reach(new StandingFormat(batch.Change.Formats[i], batch, i), batch);
    }

    /// <summary>Takes them off again.</summary>
    public void TakeOut(Batch batch)
    {
        foreach (var format in batch.Formats)
        {
            foreach (var run in Reached(format))
                run.Cover = run.Cover.Without(format);
            DropEdge(format.From.Letter, format, batch);
            DropEdge(format.To.Letter, format, batch);
        }
    }

    /// <summary>Notes that formats of an operation count otherwise than before.</summary>
    public void Switched(Batch batch)
    {
        if (batch.Formats.Count > 0)
            Version++;
    }

    /// <summary>The formats that reach over what comes between two runs side by side.</summary>
    public Cover Between(LetterRun? left, LetterRun right)
    {
        var leftCover = left?.Cover ?? Cover.None;
        var (before, behind) = (left?.Last ?? LetterId.Start, right.First);
        var atLeft = edges.GetValueOrDefault(before);
        if (leftCover == right.Cover && atLeft is null)
            return leftCover;
        var all = leftCover.Formats.Concat(right.Cover.Formats).Concat(atLeft ?? Enumerable.Empty<StandingFormat>()).Distinct();
        return Cover.Of(
            all.Where(format => (leftCover.Holds(format) || IsFrom(format, before)) && (right.Cover.Holds(format) || IsTo(format, behind)))
                .Order()
        );

        // Before all letters there is one edge only.
        static bool IsFrom(StandingFormat format, LetterId letter) =>
            format.From.Letter == letter && (format.From.After || letter == LetterId.Start);

        static bool IsTo(StandingFormat format, LetterId letter) => format.To == new Edge(letter, false);
    }

    /// <summary>Lays a format over the letters between its edges.</summary>
    private void Reach(StandingFormat format, Batch batch)
    {
        batch.Formats.Add(format);
        KeepEdge(format.From, format, batch);
        KeepEdge(format.To, format, batch);
        // Letters side by side often share a cover, and then do so again.
        var (before, now) = (Cover.None, Cover.None.With(format));
        foreach (var run in Reached(format))
        {
            if (run.Cover != before)
                (before, now) = (run.Cover, run.Cover.With(format));
            run.Cover = now;
        }
    }

    private void KeepEdge(Edge edge, StandingFormat format, Batch batch)
    {
        if (edge.Letter.Operation != batch.Id)
            tree.BatchOf(edge.Letter.Operation)!.Leaning++;
        if (!edges.TryGetValue(edge.Letter, out var those))
            edges[edge.Letter] = those = [];
        those.Add(format);
    }

    private void DropEdge(LetterId letter, StandingFormat format, Batch batch)
    {
        if (letter.Operation != batch.Id)
            tree.BatchOf(letter.Operation)!.Leaning--;
        edges[letter].Remove(format);
        if (edges[letter].Count == 0)
            edges.Remove(letter);
    }

    /// <summary>The runs between the edges of a format.</summary>
    private IEnumerable<LetterRun> Reached(StandingFormat format)
    {
        var from = tree.RunAt(format.From);
        var to = tree.RunAt(format.To);
        return from is null ? [] : tree.Order.From(from, to);
    }
}
