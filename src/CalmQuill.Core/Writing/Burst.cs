using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Writing;

/// <summary>
/// What somebody types in one go, key by key: part of the text at once, and one operation in the end, which is one step to be taken back. Letters that
/// are removed again right after they were typed never were.
/// </summary>
/// <param name="text">The text.</param>
/// <param name="id">The number of the operation that it becomes.</param>
/// <param name="now">The stamp's time until then.</param>
public sealed class Burst(TypedText text, OpId id, Hlc now)
{
    /// <summary>What it came to up to now.</summary>
    public TextChange Change { get; private set; } = new([], [], []);

    public bool IsEmpty => Change.IsEmpty;

    /// <summary>What it came to as an operation of whatever number.</summary>
    public TextChange Finished => Change.Renamed(id, LetterId.Own);

    /// <summary>Types letters before a position.</summary>
    public void Type(int position, string letters)
    {
        var typed = text.InsertionAt(position, letters);
        var last = Change.Insertions.Count > 0 ? Change.Insertions[^1] : null;
        var goesOn = last is not null && !typed.Before && typed.At == new LetterId(id, Change.Letters - 1);
        Become(
            Change with
            {
                Insertions = goesOn
                    ? [.. Change.Insertions.SkipLast(1), last! with { Text = last.Text + letters }]
                    : [.. Change.Insertions, typed],
            }
        );
    }

    /// <summary>Lays a passage down before a position.</summary>
    public void Lay(int position, Passage passage)
    {
        var first = Change.Letters;
        Type(position, passage.Text);
        Become(Change with { Formats = [.. Change.Formats, .. passage.FormatsAt(id, first)] });
    }

    /// <summary>Takes a change in that was made for the text as it is; it names its own letters by <see cref="LetterId.Own"/>.</summary>
    public void Take(TextChange change)
    {
        var first = Change.Letters;
        Edge Of(Edge edge) =>
            edge.Letter.Operation == LetterId.Own ? edge with { Letter = new LetterId(id, first + edge.Letter.Index) } : edge;
        Become(
            new TextChange(
                [.. Change.Insertions, .. change.Insertions],
                [.. Change.Removals, .. change.Removals],
                [.. Change.Formats, .. change.Formats.Select(format => format with { From = Of(format.From), To = Of(format.To) })]
            )
        );
    }

    /// <summary>Removes letters.</summary>
    /// <param name="position">The first.</param>
    /// <param name="count">How many.</param>
    public void Remove(int position, int count)
    {
        var insertions = Change.Insertions;
        var removals = new List<LetterSpan>(Change.Removals);
        foreach (var span in text.RemovalsOf(position, count))
        {
            if (Shorten(insertions, span) is { } shorter)
                insertions = shorter;
            else
                removals.Add(span);
        }

        Become(Change with { Insertions = insertions, Removals = removals });
    }

    /// <summary>Makes letters or paragraphs look otherwise.</summary>
    public void Add(Format format) => Become(Change with { Formats = [.. Change.Formats, format] });

    /// <summary>Takes it out of the text again, to come as an operation or not at all.</summary>
    public void End() => text.Withdraw(id);

    /// <summary>What is left of the letters when their last ones go; null where those are not the last, or something was done at them.</summary>
    private IReadOnlyList<Insertion>? Shorten(IReadOnlyList<Insertion> insertions, LetterSpan span)
    {
        var letters = insertions.Sum(insertion => insertion.Text.Length);
        if (span.Operation != id || span.Start + span.Count != letters || insertions[^1].Text.Length < span.Count)
            return null;
        bool IsGone(LetterId letter) => letter.Operation == id && letter.Index >= span.Start;
        if (
            Change.Formats.Any(format => IsGone(format.From.Letter) || IsGone(format.To.Letter))
            || Change.Removals.Any(removal => removal.Operation == id && removal.Start + removal.Count > span.Start)
        )
            return null;
        var left = insertions[^1].Text[..^span.Count];
        return left.Length > 0 ? [.. insertions.SkipLast(1), insertions[^1] with { Text = left }] : [.. insertions.SkipLast(1)];
    }

    private void Become(TextChange change)
    {
        text.Withdraw(id);
        Change = change;
        if (!IsEmpty)
            text.Take(id, new Stamp(now, id), change);
    }
}
