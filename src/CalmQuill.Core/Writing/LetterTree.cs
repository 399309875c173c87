using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Writing;

/// <summary>The letters of a text as the tree that they are, and as the runs in which they lie from left to right.</summary>
/// <remarks>
/// Letters that hang on one side of one letter lie in the order in which they were typed, by the stamps of their operations. So they keep their order where all
/// that was done is done once more under other numbers, as in a copy of the page.
/// </remarks>
internal sealed class LetterTree : IComparer<LetterId>
{
    private readonly Dictionary<OpId, Batch> batches = [];

    /// <summary>What <see cref="LetterId.Start"/> and <see cref="LetterId.End"/> are letters of.</summary>
    private readonly Batch bounds = new(default, default, new TextChange([new Insertion(LetterId.Start, false, "\0\n")], [], []), false)
    {
        IsIn = true,
    };

    public LetterTree()
    {
        var end = new LetterRun(bounds, "\n", 0, LetterId.End.Index, 1);
        bounds.Runs.Add(end);
        Order = new LetterOrder(end);
    }

    public LetterOrder Order { get; }

    /// <summary>All operations that arrived, part of the text or not.</summary>
    public IReadOnlyCollection<Batch> Batches => batches.Values;

    public bool Add(Batch batch) => batches.TryAdd(batch.Id, batch);

    public void Forget(OpId id) => batches.Remove(id);

    public Batch? BatchOf(OpId id) => id == default ? bounds : batches.GetValueOrDefault(id);

    /// <summary>An operation that this one leans on and that is no part of the text; null when all are.</summary>
    public OpId? MissingOf(Batch batch)
    {
        foreach (var id in batch.Change.LeansOn(batch.Id))
        {
            if (BatchOf(id) is not { IsIn: true })
                return id;
        }

        return null;
    }

    /// <summary>Whether all letters that it names can be, and each is there when it is named.</summary>
    public bool IsSound(Batch batch)
    {
        var letters = 0;
        foreach (var insertion in batch.Change.Insertions)
        {
            if (!insertion.IsProper || !Exists(batch, insertion.At, letters))
                return false;
            letters += insertion.Text.Length;
        }

        foreach (var removal in batch.Change.Removals)
        {
            if (!removal.IsProper || removal.Last.IsBound || !Exists(batch, removal.Last, letters))
                return false;
        }

        foreach (var format in batch.Change.Formats)
        {
            if (!Exists(batch, format.From.Letter, letters) || !Exists(batch, format.To.Letter, letters))
                return false;
        }

        return true;
    }

    private bool Exists(Batch batch, LetterId letter, int ownLetters) =>
        letter.Index >= 0
        && letter.Index
            < (
                letter.Operation == batch.Id ? ownLetters
                : letter.IsBound ? 2
                : BatchOf(letter.Operation)!.Letters
            );

    /// <summary>Puts the letters that an operation typed where they belong.</summary>
    /// <param name="batch">The operation.</param>
    /// <param name="coverBetween">What reaches over letters that come between two runs.</param>
    public void Put(Batch batch, Func<LetterRun?, LetterRun, Cover> coverBetween)
    {
        batch.IsIn = true;
        var first = 0;
        foreach (var insertion in batch.Change.Insertions)
        {
            var head = new LetterId(batch.Id, first);
            var run = new LetterRun(batch, insertion.Text, 0, first, insertion.Text.Length);
            var next = NextOf(head, insertion);
            BatchOf(insertion.At.Operation)!.AddChild(insertion.At.Index, insertion.Before, head, this);
            run.Cover = coverBetween(Order.Previous(next), next);
            Order.InsertBefore(next, run);
            batch.Runs.Add(run);
            first += insertion.Text.Length;
        }

        Lean(batch, 1);
        if (batch.Active)
            Count(batch, 1);
    }

    /// <summary>Takes them out again; nothing leans on them.</summary>
    public void TakeOut(Batch batch)
    {
        Lean(batch, -1);
        foreach (var run in batch.Runs)
            Order.Remove(run);
        var first = batch.Letters;
        foreach (var insertion in batch.Change.Insertions.Reverse())
        {
            first -= insertion.Text.Length;
            BatchOf(insertion.At.Operation)!.RemoveChild(insertion.At.Index, insertion.Before, new LetterId(batch.Id, first));
        }
    }

    /// <summary>Has what an operation does to letters count or not.</summary>
    public void SetActive(Batch batch, bool active)
    {
        if (batch.Active == active)
            return;
        if (!active)
            Count(batch, -1);
        foreach (var run in batch.Runs)
            run.Block.Seen -= run.Seen;
        batch.Active = active;
        foreach (var run in batch.Runs)
            run.Block.Seen += run.Seen;
        if (active)
            Count(batch, 1);
    }

    /// <summary>The run that begins at an edge; null behind the end.</summary>
    public LetterRun? RunAt(Edge edge)
    {
        if (edge.Letter == LetterId.Start)
            return Order.First;
        if (!edge.After)
            return RunFrom(edge.Letter);
        return RunAfter(edge.Letter);
    }

    /// <summary>The run before which letters come that are typed at a place: the beginning of what lies behind them in the tree.</summary>
    private LetterRun NextOf(LetterId head, Insertion insertion)
    {
        var (at, before) = (insertion.At, insertion.Before);
        var batch = BatchOf(at.Operation)!;
        var siblings = batch.Children(at.Index, before);
        var place = siblings is null ? 0 : ~siblings.BinarySearch(head, this);
        LetterId? larger = place < siblings?.Count ? siblings[place] : null,
            largest = siblings?[^1];
        // What was typed on from a letter hangs on its right side, too.
        if (!before && !at.IsBound && batch.LastOf(at.Index) > at.Index)
        {
            var on = new LetterId(at.Operation, at.Index + 1);
            if (Compare(on, head) > 0 && (larger is null || Compare(on, larger.Value) < 0))
                larger = on;
            if (largest is null || Compare(on, largest.Value) > 0)
                largest = on;
        }

        if (larger is { } behind)
            return RunFrom(Leftmost(behind));
        if (before)
            return RunFrom(at);
        return RunAfter(largest is { } last ? Rightmost(last) : at)!;
    }

    /// <summary>Which of two letters that hang on one side of one letter lies first.</summary>
    public int Compare(LetterId one, LetterId other)
    {
        var byOperation = one.Operation == other.Operation ? 0 : BatchOf(one.Operation)!.Stamp.CompareTo(BatchOf(other.Operation)!.Stamp);
        return byOperation != 0 ? byOperation : one.Index.CompareTo(other.Index);
    }

    private LetterId Leftmost(LetterId letter)
    {
        while (BatchOf(letter.Operation)!.Children(letter.Index, true) is { } children)
            letter = children[0];
        return letter;
    }

    private LetterId Rightmost(LetterId letter)
    {
        while (true)
        {
            var batch = BatchOf(letter.Operation)!;
            var last = batch.LastOf(letter.Index);
            if (batch.FirstWithRight(letter.Index, last) is not { } index)
                return letter with { Index = last };
            var child = batch.Children(index, false)![^1];
            var on = letter with { Index = index + 1 };
            letter = index < last && Compare(on, child) > 0 ? on : child;
        }
    }

    /// <summary>Whether something hangs on the right side of a letter.</summary>
    public bool HasRight(LetterId letter)
    {
        var batch = BatchOf(letter.Operation)!;
        return batch.Children(letter.Index, false) is not null || (!letter.IsBound && batch.LastOf(letter.Index) > letter.Index);
    }

    /// <summary>The run that holds a letter, and which of its letters that is; null where it is not here.</summary>
    public (LetterRun Run, int At)? Locate(LetterId letter)
    {
        if (letter == LetterId.End)
            return (Order.End, 0);
        if (letter.IsBound || BatchOf(letter.Operation) is not { IsIn: true } batch || letter.Index < 0 || letter.Index >= batch.Letters)
            return null;
        var run = batch.Runs[batch.RunOf(letter.Index)];
        return (run, letter.Index - run.Start);
    }

    /// <summary>The run that begins with a letter.</summary>
    private LetterRun RunFrom(LetterId letter)
    {
        var (run, at) = Locate(letter)!.Value;
        return Order.Split(run, at);
    }

    /// <summary>The letter behind one, seen or not; none is behind the end.</summary>
    public LetterId LetterAfter(LetterId letter)
    {
        if (letter == LetterId.Start)
            return Order.First.First;
        var (run, at) = Locate(letter)!.Value;
        return at + 1 < run.Length ? run.LetterAt(at + 1) : Order.Next(run)!.First;
    }

    /// <summary>The run that begins behind a letter; null behind the end.</summary>
    private LetterRun? RunAfter(LetterId letter)
    {
        if (letter == LetterId.Start)
            return Order.First;
        var (run, at) = Locate(letter)!.Value;
        return at + 1 < run.Length ? Order.Split(run, at + 1) : Order.Next(run);
    }

    /// <summary>Counts what an operation removes, or counts it no longer.</summary>
    private void Count(Batch batch, int by)
    {
        foreach (var removal in batch.Change.Removals)
        {
            var from = BatchOf(removal.Operation)!;
            RunFrom(removal.First);
            RunAfter(removal.Last);
            for (var i = from.RunOf(removal.Start); i < from.Runs.Count && from.Runs[i].Start <= removal.Last.Index; i++)
            {
                var run = from.Runs[i];
                run.Block.Seen -= run.Seen;
                run.Removals += by;
                run.Block.Seen += run.Seen;
            }
        }
    }

    /// <summary>Notes that an operation leans on others by what it removes, or does no longer; by what it types at them is noted with their children.</summary>
    private void Lean(Batch batch, int by)
    {
        foreach (var removal in batch.Change.Removals)
        {
            if (removal.Operation != batch.Id)
                BatchOf(removal.Operation)!.Leaning += by;
        }
    }
}
