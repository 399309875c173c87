namespace CalmQuill.Core.Writing;

/// <summary>
/// Letters of one insertion that lie side by side and share all that can be said of them: whether they are seen, and which formats reach over them.
/// </summary>
internal sealed class LetterRun(Batch batch, string text, int offset, int start, int length)
{
    public Batch Batch => batch;

    /// <summary>The first of them among the letters of their operation.</summary>
    public int Start => start;

    public int Length { get; private set; } = length;

    /// <summary>How many standing operations removed them.</summary>
    public int Removals { get; set; }

    public Cover Cover { get; set; } = Cover.None;

    /// <summary>Where in the order of the text it lies.</summary>
    public RunBlock Block { get; set; } = null!;

    public LetterId First => LetterAt(0);

    public LetterId Last => LetterAt(Length - 1);

    public bool IsSeen => batch.Active && Removals == 0;

    /// <summary>How many of its letters are seen.</summary>
    public int Seen => IsSeen ? Length : 0;

    public ReadOnlySpan<char> Text => text.AsSpan(offset, Length);

    /// <summary>One of its letters.</summary>
    public LetterId LetterAt(int at) => new(batch.Id, start + at);

    /// <summary>Keeps the first letters; the others become a run of their own.</summary>
    public LetterRun Split(int at)
    {
        var rest = new LetterRun(batch, text, offset + at, start + at, Length - at) { Removals = Removals, Cover = Cover };
        Length = at;
        return rest;
    }
}
