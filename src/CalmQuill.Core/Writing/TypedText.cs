using System.Text;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Writing;

/// <summary>
/// A typed text: what the set of operations on it shows. The order in which they arrive makes no difference, and what two people type at one place at the
/// same time does not get mixed up.
/// </summary>
/// <remarks>
/// The letters are a tree, as in Fugue (Weidner and Kleppmann, “The Art of the Fugue”, 2023): each hangs on one side of another, siblings lie in the
/// order of their stamps, and the text is the tree from left to right. Letters that were removed stay in it unseen, so that what was typed at them
/// keeps its place. Letters typed one behind the other are kept as one run until something comes between. Formats reach from one edge to another
/// (Litt et al., “Peritext”, 2022); runs end wherever an edge lies, so each run has one <see cref="Cover"/>. An operation that names letters which
/// are not here waits for them. Every operation can be taken back by <see cref="SetActive"/>.
/// </remarks>
public sealed class TypedText
{
    /// <summary>What ends a paragraph.</summary>
    internal const char Break = '\n';

    private readonly Dictionary<OpId, List<Batch>> waiting = [];
    private LetterTree tree = new();
    private Coverage coverage;
    private readonly TextChanged changed = new();
    private List<Paragraph> paragraphs = [];
    private int version = -1;

    public TypedText() => coverage = new Coverage(tree);

    /// <summary>How many letters are seen.</summary>
    public int Length => tree.Order.Seen;

    /// <summary>All letters that are seen.</summary>
    public string Text
    {
        get
        {
            var text = new StringBuilder(Length);
            foreach (var run in tree.Order.Runs)
            {
                if (run.IsSeen)
                    text.Append(run.Text);
            }

            return Signs.Whole(text.ToString());
        }
    }

    /// <summary>How the last paragraph looks where it is empty.</summary>
    public Look EndLook => tree.Order.End.Cover.Look(coverage.Version);

    /// <summary>The letters that are seen, by how they look.</summary>
    public List<TextSpan> Spans() => Spans(0, Length);

    /// <summary>The same from one position to another.</summary>
    private List<TextSpan> Spans(int from, int to)
    {
        var spans = new List<TextSpan>();
        var text = new StringBuilder();
        var look = Look.Usual;
        foreach (var (run, at) in tree.Order.SeenFrom(from))
        {
            if (from >= to)
                break;
            var own = run.Cover.Look(coverage.Version);
            var some = run.Text[at..Math.Min(run.Length, at + to - from)];
            from += some.Length;
            if (text.Length > 0 && !own.Equals(look))
            {
                spans.Add(new TextSpan(text.ToString(), look));
                text.Clear();
            }

            look = own;
            text.Append(some);
        }

        if (text.Length > 0)
            spans.Add(new TextSpan(text.ToString(), look));
        return spans;
    }

    /// <summary>
    /// The paragraphs; there is always one. Those at which nothing was done since they were told last are the same, or have the same letters in hand.
    /// </summary>
    public IReadOnlyList<Paragraph> Paragraphs()
    {
        if (version != coverage.Version)
            changed.All();
        if (changed.IsNothing)
            return paragraphs;
        var (head, tail) = changed.Kept(paragraphs);
        var (from, to, by) = (0, Length, 0);
        if (head > 0)
            from = paragraphs[head - 1].End + 1;
        if (tail > 0)
        {
            by = Length - paragraphs[^1].End;
            to = paragraphs[^tail].Start + by;
        }

        List<Paragraph> now = [.. paragraphs.Take(head), .. Paragraph.Of(Spans(from, to), EndLook, from)];
        // What ends in a line break has an empty paragraph behind it, which here is the first of those that follow.
        if (tail > 0)
            now.RemoveAt(now.Count - 1);
        for (var i = paragraphs.Count - tail; i < paragraphs.Count; i++)
            now.Add(by == 0 ? paragraphs[i] : paragraphs[i] with { Start = paragraphs[i].Start + by });
        changed.Nothing();
        version = coverage.Version;
        return paragraphs = now;
    }

    /// <summary>Takes an operation in, once.</summary>
    /// <param name="id">The operation.</param>
    /// <param name="stamp">Its stamp.</param>
    /// <param name="change">What it does.</param>
    /// <param name="active">Whether it counts, or was taken back.</param>
    public void Take(OpId id, Stamp stamp, TextChange change, bool active = true)
    {
        var batch = new Batch(id, stamp, change.Renamed(LetterId.Own, id), active);
        if (!tree.Add(batch))
            return;
        var arrived = new Queue<Batch>([batch]);
        while (arrived.TryDequeue(out var next))
        {
            if (tree.MissingOf(next) is { } missing)
            {
                if (!waiting.TryGetValue(missing, out var those))
                    waiting[missing] = those = [];
                those.Add(next);
                continue;
            }

            if (!tree.IsSound(next))
                continue;
            tree.Put(next, coverage.Between);
            coverage.Put(next);
            changed.By(next, tree);
            if (!waiting.Remove(next.Id, out var freed))
                continue;
            foreach (var one in freed)
                arrived.Enqueue(one);
        }
    }

    /// <summary>Has an operation count or not.</summary>
    public void SetActive(OpId id, bool active)
    {
        if (tree.BatchOf(id) is not { } batch)
            return;
        if (batch.IsIn)
        {
            changed.By(batch, tree);
            tree.SetActive(batch, active);
            coverage.Switched(batch);
        }
        else
            batch.Active = active;
    }

    /// <summary>Takes an operation out again, as if it had not arrived: of a text that goes back in its history.</summary>
    public void Withdraw(OpId id)
    {
        if (tree.BatchOf(id) is not { } batch)
            return;
        // Nothing leans on the latest. Where clocks ran wrong something may, and then waits again.
        if (batch.IsIn && batch.Leaning == 0 && !waiting.ContainsKey(id))
        {
            changed.By(batch, tree);
            tree.SetActive(batch, false);
            coverage.TakeOut(batch);
            tree.TakeOut(batch);
            tree.Forget(id);
            return;
        }

        var kept = tree.Batches.Where(one => one != batch).ToList();
        waiting.Clear();
        changed.All();
        tree = new LetterTree();
        coverage = new Coverage(tree);
        foreach (var one in kept)
            Take(one.Id, one.Stamp, one.Change, one.Active);
    }

    /// <summary>What is left of each operation when the past is closed: see <see cref="StandingText"/>.</summary>
    public Dictionary<OpId, TextChange> Standing() => StandingText.Of(tree);

    /// <summary>Whether an operation is part of the text; else it waits for what it names, or names what cannot be.</summary>
    public bool Holds(OpId id) => tree.BatchOf(id) is { IsIn: true };

    /// <summary>The letter at a position; <see cref="LetterId.End"/> behind all.</summary>
    public LetterId At(int position)
    {
        var (run, at) = tree.Order.Find(position);
        return run.LetterAt(at);
    }

    /// <summary>How many letters that are seen stand before a letter, which need not be seen itself; null where it is not here.</summary>
    public int? PositionOf(LetterId letter)
    {
        if (letter == LetterId.Start)
            return 0;
        if (tree.Locate(letter) is not { } found)
            return null;
        var (run, at) = found;
        return tree.Order.PositionOf(run) + (run.IsSeen ? at : 0);
    }

    /// <summary>The operation that said last how a letter is to look; null where nothing was said.</summary>
    public OpId? SaidOf(int position, Trait trait)
    {
        var run = tree.Order.Find(position).Run;
        return run.Cover.Formats.LastOrDefault(format => format.Active && format.Trait == trait)?.Operation;
    }

    /// <summary>What types letters before a position.</summary>
    public Insertion InsertionAt(int position, string text)
    {
        var left = position == 0 ? LetterId.Start : At(position - 1);
        return tree.HasRight(left) ? new Insertion(tree.LetterAfter(left), true, text) : new Insertion(left, false, text);
    }

    /// <summary>What removes letters.</summary>
    /// <param name="position">The first.</param>
    /// <param name="count">How many.</param>
    public List<LetterSpan> RemovalsOf(int position, int count)
    {
        var spans = new List<LetterSpan>();
        var (run, at) = tree.Order.Find(position);
        for (LetterRun? one = run; one is not null && count > 0; one = tree.Order.Next(one), at = 0)
        {
            if (!one.IsSeen)
                continue;
            var some = Math.Min(count, one.Length - at);
            var span = new LetterSpan(one.Batch.Id, one.Start + at, some);
            if (spans.Count > 0 && spans[^1] is var last && last.Operation == span.Operation && last.Start + last.Count == span.Start)
                spans[^1] = last with { Count = last.Count + some };
            else
                spans.Add(span);
            count -= some;
        }

        return spans;
    }

    /// <summary>
    /// What makes letters look otherwise. What is typed behind the last of them looks so, too, but for links, which end where they end.
    /// </summary>
    /// <param name="position">The first.</param>
    /// <param name="count">How many, at least one.</param>
    /// <param name="trait">A trait of letters.</param>
    /// <param name="value">What it is to be.</param>
    public Format FormatOf(int position, int count, Trait trait, string value) =>
        new(
            new Edge(At(position), false),
            trait is Trait.Link ? new Edge(At(position + count - 1), true) : new Edge(At(position + count), false),
            trait,
            value
        );

    /// <summary>What makes paragraphs look otherwise, with all that is typed into them.</summary>
    /// <param name="position">A position in the first.</param>
    /// <param name="count">How far behind it the last one is reached.</param>
    /// <param name="trait">A trait of paragraphs.</param>
    /// <param name="value">What it is to be.</param>
    public Format FormatOfParagraphs(int position, int count, Trait trait, string value) =>
        new(new Edge(BreakBefore(position), true), new Edge(BreakFrom(position + count), true), trait, value);

    /// <summary>The line break before a position that is seen; the start where there is none.</summary>
    private LetterId BreakBefore(int position)
    {
        var (run, at) = tree.Order.Find(position);
        for (LetterRun? one = run; one is not null; one = tree.Order.Previous(one))
        {
            var place = one.IsSeen ? one.Text[..(one == run ? at : one.Length)].LastIndexOf(Break) : -1;
            if (place >= 0)
                return one.LetterAt(place);
        }

        return LetterId.Start;
    }

    /// <summary>The first line break from a position on that is seen; the end where there is none.</summary>
    private LetterId BreakFrom(int position)
    {
        var (run, at) = tree.Order.Find(position);
        for (LetterRun? one = run; one is not null; one = tree.Order.Next(one), at = 0)
        {
            var place = one.IsSeen ? one.Text[at..].IndexOf(Break) : -1;
            if (place >= 0)
                return one.LetterAt(at + place);
        }

        return LetterId.End;
    }
}
